/** What a bike asks for on the way: on which evenings, and why. */
import type { Assessment, Bike } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Muted, Section } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { Lines } from './partsLook'

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
      <Muted>The diary says each evening what is due, and counts from what was noted. After a wet day oil at once, whatever stands here.</Muted>
    </>
  )
}
