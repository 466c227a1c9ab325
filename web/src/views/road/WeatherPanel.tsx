/** Where the weather comes from: stations, typed design weather, or the rough default. */
import { BOUNDS } from '../../api/bounds'
import type { Road } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Muted, RailLine, Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { OutlookTable } from './OutlookTable'
import { BringStation, StationList } from './Stations'
import { WeatherTable } from './WeatherTable'
import { Zones } from './Zones'

const KNOWN = {
  stations:
    'The weather comes from the stations below: the nearest weigh most, each corrected to the height of the road. Dashed ones stand in where none of yours is near.',
  grid: 'The weather comes from published monthly means, brought to the height of the road: the dashed stations stand for them. One of your own replaces those near it.',
  typed: 'The weather is the one you typed. Stations would follow the date as well.',
} as const
const ODDS = [
  { id: '0.3', text: '1 in 3' },
  { id: '0.1', text: '1 in 10' },
  { id: '0.05', text: '1 in 20' },
  { id: '0.02', text: '1 in 50' },
]

export function WeatherPanel({ road, put }: { road: Road; put: (what: string, part: Partial<Road>) => void }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const source = assessment.climate?.source
  const assumed = assessment.assumptions.find((a) => a.name === 'Weather not known')
  return (
    <>
      <Muted>
        {source && source in KNOWN
          ? KNOWN[source as keyof typeof KNOWN]
          : `No weather is known${assumed ? `: it is ${units.say(assumed.value)} (${assumed.source})` : ''}. Bring a station near the road.`}
      </Muted>
      <Row $min={160}>
        <Choice
          label="Plan for a night colder, or a day hotter, on"
          value={String(road.odds)}
          onChange={(v) => put('Change the odds', { odds: Number(v) })}
          options={ODDS.some((o) => Number(o.id) === road.odds) ? ODDS : [...ODDS, { id: String(road.odds), text: units.show(road.odds, 'share') }]}
        />
      </Row>
      <StationList road={road} put={put} />
      {assessment.climate?.offered.length ? (
        <Muted>Dashed: {assessment.climate.offered[0]?.source}; contains modified Copernicus information.</Muted>
      ) : null}
      <BringStation />
      <Zones road={road} put={put} />
      <OutlookTable />
      {!road.stations.length && (
        <>
          <RailLine>Typed weather</RailLine>
          <WeatherTable weather={road.weather} onChange={(weather) => put('Change the weather', { weather })} />
        </>
      )}
      <Row $min={160}>
        <Measure
          label="A day's ride begins at"
          value={road.start_hour}
          quantity="hours"
          range={BOUNDS.Road.start_hour}
          onChange={(start_hour) => put('Change the start of the day', { start_hour })}
          hidden={false}
        />
        <Measure
          label="On the road, for each hour ridden"
          value={road.pause_factor}
          quantity="hours"
          decimals={2}
          range={BOUNDS.Road.pause_factor}
          onChange={(pause_factor) => put('Change the pauses', { pause_factor })}
        />
      </Row>
    </>
  )
}
