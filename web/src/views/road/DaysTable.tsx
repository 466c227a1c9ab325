/** The days as the core cut them, and the stretches that ask for the most water and food. */
import { useDesk } from '../../api/tour'
import { usePlayhead } from '../../instruments/moment'
import { Muted, RailLine, Section } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { Sheet } from './sheet'

export function DaysTable() {
  const { assessment } = useDesk()
  const { moment, goToKm } = usePlayhead()
  const units = useUnits()
  const now = assessment.moments?.day[moment]
  const gaps = [...assessment.gaps].sort((a, b) => b.need - a.need)
  const worst = (supply: 'water' | 'food') => gaps.filter((g) => g.supply === supply).slice(0, 3)
  return (
    <>
      <RailLine>Longest stretches</RailLine>
      {(['water', 'food'] as const).map((supply) => (
        <ul key={supply}>
          {worst(supply).map((g) => (
            <li key={g.from_km}>
              <Muted as="span">
                <b>{supply === 'water' ? units.show(g.need, 'volume') : units.show(g.need, 'mass')} of {supply}</b> leaving {g.from_name}: {units.show(g.to_km - g.from_km, 'distance')}, {units.show(g.hours, 'hours')} of riding, {g.nights} {g.nights === 1 ? 'night' : 'nights'}, to {g.to_name}
              </Muted>
            </li>
          ))}
        </ul>
      ))}
      <Section>Days</Section>
      <Sheet>
        <thead><tr><th className="n">Day</th><th className="n">Far</th><th className="n">Up</th><th className="n">Riding</th><th className="n">Night</th><th>Ends at</th></tr></thead>
        <tbody>
          {assessment.days.map((day) => (
            <tr key={day.number} aria-current={day.number === now}>
              <td className="n"><button type="button" className="plain" onClick={() => goToKm(day.from_km)}>{day.number}</button></td>
              <td className="n">{units.show(day.distance_km, 'distance')}</td>
              <td className="n">{units.show(day.ascent_m, 'elevation')}</td>
              <td className="n">{units.show(day.riding_hours, 'hours')}</td>
              <td className="n">{units.show(day.night_low_c, 'temperature')}</td>
              <td>{day.night_at || 'wild camp'}</td>
            </tr>
          ))}
        </tbody>
      </Sheet>
    </>
  )
}
