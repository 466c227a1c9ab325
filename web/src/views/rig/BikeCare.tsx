/** What a bike asks for on the way: on which evenings, and why. */
import type { Assessment, Bike } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Muted, Section } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { unitOf } from '../../ui/units'
import { Lines, Scroll } from './partsLook'

const LUBES: { id: Bike['lube']; text: string }[] = [
  { id: 'wet', text: 'Wet oil' },
  { id: 'dry', text: 'Dry oil' },
  { id: 'wax', text: 'Wax' },
]
const CARE: Record<Assessment['care'][number]['kind'], string> = {
  oil: 'Oil the chain',
  clean: 'Brush off sand and dust',
  pressure: 'Air, by a gauge',
  look: 'Bolts and straps',
  spokes: 'Feel for loose spokes',
  renew: 'New parts',
}

export function BikeCare({ bike, onChange }: { bike: Bike; onChange: (what: string, bike: Bike) => void }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const mine = assessment.care.filter((task) => task.bike_ids.includes(bike.id))
  const weeks = assessment.pressures.filter((week) => week.bike_id === bike.id)
  const kinds = [...new Set(mine.map((task) => task.kind))]
  return (
    <>
      <Section>What it asks for on the way</Section>
      <Choice label="Chain oil" value={bike.lube} options={LUBES} onChange={(lube) => onChange(`Chain oil of ${bike.name}`, { ...bike, lube })} />
      {kinds.length ? (
        <Lines>
          <tbody>
            {kinds.map((kind) => {
              const tasks = mine.filter((task) => task.kind === kind)
              return (
                <tr key={kind}>
                  <th scope="row">
                    {CARE[kind]}
                    <small>{tasks[0] && units.say(tasks[0].because)}</small>
                  </th>
                  <td>
                    {tasks.length > 1 ? 'Evenings of days ' : 'Evening of day '}
                    {tasks.map((task) => task.day).join(', ')}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </Lines>
      ) : (
        <Muted>Nothing yet.</Muted>
      )}
      {weeks.length > 0 && (
        <Scroll tabIndex={0} role="region" aria-label="Air in the tyres">
          <Lines>
            <thead>
              <tr>
                <th scope="col">Air, by a gauge</th>
                <th scope="col" className="figure">
                  In front, {unitOf('pressure', units.system)}
                </th>
                <th scope="col" className="figure">
                  Behind, {unitOf('pressure', units.system)}
                </th>
                <th scope="col">Ground</th>
              </tr>
            </thead>
            <tbody>
              {weeks.map((w) => (
                <tr key={w.from_day}>
                  <td className="whole">{w.from_day === w.to_day ? `Day ${w.from_day}` : `Days ${w.from_day}\u2013${w.to_day}`}</td>
                  <td className="figure">{units.figure(w.front_bar, 'pressure')}</td>
                  <td className="figure">{units.figure(w.rear_bar, 'pressure')}</td>
                  <td>{w.loose > 0 ? `${units.show(w.loose, 'share')} gravel, sand or mud` : 'firm'}</td>
                </tr>
              ))}
            </tbody>
          </Lines>
        </Scroll>
      )}
      <Muted>The diary says each evening what is due, and counts from what was noted. After a wet day oil at once, whatever stands here.</Muted>
    </>
  )
}
