/** The road on paper, to carry along: a block a day with its light, its places, and what is shut. Seen only in print. */
import { useDesk } from '../../api/tour'
import { useUnits } from '../../ui/preferences'
import styled from 'styled-components'
import { shortDate } from '../../ui/dates'
import { aboutAir } from '../../instruments/air'
import { clock } from '../../ui/dates'
import { campPast, SHOP_WORDS, WATER_WORDS } from './words'

const Paper = styled.div`
  display: none;
  @media print {
    display: block;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 9.5pt;
    font-stretch: var(--width-text);
  }
  th {
    text-align: left;
    border-bottom: 1.5pt solid black;
  }
  td,
  th {
    padding: 1pt 4pt;
    vertical-align: top;
  }
  tbody {
    break-inside: avoid;
    border-bottom: 0.5pt solid black;
  }
  .n {
    text-align: right;
    white-space: nowrap;
  }
  h1 {
    font-size: 14pt;
    margin: 0 0 6pt;
  }
`

export function RoadSheet() {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const passing = new Map(assessment.passings.map((p) => [p.stop_id, p]))
  const deedsAt = new Map((assessment.stores?.stops ?? []).map((at) => [at.stop_id, at.deeds]))
  const take = (stop: string, lane: 'water' | 'food') => {
    const deed = deedsAt.get(stop)?.find((d) => d.lane === lane)
    if (!deed || deed.amount <= 0) return ''
    return lane === 'water' ? `fill ${units.show(deed.amount, 'volume')}` : `buy ${units.show(deed.amount, 'mass')} of food`
  }
  const stopsOf = (number: number) => sheet.road.stops.filter((s) => passing.get(s.id)?.day === number)
  return (
    <Paper>
      <h1>{sheet.name}</h1>
      <table>
        <thead>
          <tr>
            <th className="n">Day</th>
            <th>Date</th>
            <th className="n">km</th>
            <th>Place</th>
            <th>Water</th>
            <th>Shop</th>
            <th>Take on</th>
            <th>When you pass</th>
          </tr>
        </thead>
        {assessment.days.map((day) => (
          <tbody key={day.number}>
            <tr>
              <td className="n">
                <b>{day.number}</b>
              </td>
              <td>
                <b>{shortDate(day.date)}</b>
              </td>
              <td className="n">{units.figure(day.from_km, 'distance')}</td>
              <td colSpan={5}>
                {day.rest
                  ? 'rest'
                  : `${units.show(day.distance_km, 'distance')}, ${units.show(day.ascent_m, 'elevation')} up, ${units.show(day.riding_hours, 'hours')} riding`}
                {day.sunrise_h !== null && day.sunset_h !== null && `; light ${clock(day.sunrise_h)} to ${clock(day.sunset_h)}`}
                {`; night ${aboutAir(assessment)}${units.show(day.night_low_c, 'temperature')} at ${day.night_at || `a wild camp${campPast(day, units)}`}`}
              </td>
            </tr>
            {!day.rest &&
              stopsOf(day.number).map((stop) => {
                const visit = passing.get(stop.id)
                const shut = [stop.shop === 'none' ? null : visit?.shop_shut, visit?.water_fails]
                  .map((why) => (why ? units.say(why) : ''))
                  .filter(Boolean)
                return (
                  <tr key={stop.id}>
                    <td colSpan={2} />
                    <td className="n">{units.figure(stop.at_km, 'distance')}</td>
                    <td>{stop.name}</td>
                    <td>
                      {stop.water === 'none' ? '' : WATER_WORDS[stop.water]}
                      {stop.treat_water && ', treat'}
                    </td>
                    <td>{stop.shop === 'none' ? '' : SHOP_WORDS[stop.shop]}</td>
                    <td>{[take(stop.id, 'water'), take(stop.id, 'food')].filter(Boolean).join(', ')}</td>
                    <td>{shut.join('; ')}</td>
                  </tr>
                )
              })}
          </tbody>
        ))}
      </table>
    </Paper>
  )
}
