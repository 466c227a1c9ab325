/** Where the weather comes from: stations, typed design weather, or the rough default. */
import { useState } from 'react'
import { BOUNDS } from '../../api/bounds'
import { api, type Road } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Actions, Button, Dialog, FileButton, Muted, RailLine, Row } from '../../ui/controls'
import { Area, Choice, Field, Measure } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { useUnits } from '../../ui/preferences'
import { OutlookTable } from './OutlookTable'
import { Sheet } from './sheet'
import { WeatherTable } from './WeatherTable'
import { MONTHS } from './words'
import { Zones } from './Zones'

const KNOWN = {
  stations: 'The weather comes from the stations below: the nearest weigh most, each corrected to the height of the road.',
  typed: 'The weather is the one you typed. Stations would follow the date as well.',
} as const
const ODDS = [
  { id: '0.3', text: '1 in 3' },
  { id: '0.1', text: '1 in 10' },
  { id: '0.05', text: '1 in 20' },
  { id: '0.02', text: '1 in 50' },
]

export function WeatherPanel({ road, put }: { road: Road; put: (what: string, part: Partial<Road>) => void }) {
  const { assessment, ask } = useDesk()
  const units = useUnits()
  const [at, setAt] = useState('')
  const [height, setHeight] = useState('')
  const [name, setName] = useState('')
  const [pasting, setPasting] = useState<string | null>(null)
  const source = assessment.climate?.source
  const assumed = assessment.assumptions.find((a) => a.name === 'Weather not known')
  const bring = (content: File) =>
    ask('Reading the station', (id, revision) =>
      api.bringStation(id, revision, content, { name, at_km: at.replace(',', '.'), elevation_m: height.replace(',', '.') }),
    )
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
        <Field label="Name of the station" value={name} onChange={setName} placeholder="from the file" />
        <Field label="At km of the road" value={at} onChange={setAt} placeholder="by its coordinates" />
        <Field label="At a height of, m" value={height} onChange={setHeight} placeholder="as the record, or the road" />
      </Row>
      <Row $min={200}>
        <FileButton accept={['.csv', '.epw', '.txt']} onFile={(f) => void bring(f)}>
          Bring a station record
        </FileButton>
        <Button onPress={() => setPasting('')}>Paste twelve months</Button>
        <Muted>Twelve rows of months (max; min; rain days; humidity; wind), a daily record (DATE, TMAX, TMIN, PRCP) or a typical year (EPW).</Muted>
      </Row>
      <Zones road={road} put={put} />
      <OutlookTable />
      {road.stations.map((station) => (
        <Fold
          key={station.id}
          summary={
            <>
              <b>{station.name}</b>,{' '}
              {station.at_km === null ? `${station.lat_deg?.toFixed(2)}, ${station.lon_deg?.toFixed(2)}` : units.show(station.at_km, 'distance')},{' '}
              {station.elevation_m === null ? 'as high as the road' : units.show(station.elevation_m, 'elevation')},{' '}
              {station.source || 'twelve months'}
            </>
          }
        >
          <Sheet>
            <thead>
              <tr>
                <td />
                <th className="n">Min</th>
                <th className="n">Max</th>
                <th className="n">Rain days</th>
                <th className="n">Humidity</th>
                <th className="n">Wind</th>
              </tr>
            </thead>
            <tbody>
              {station.months.map((m, i) => (
                <tr key={MONTHS[i]}>
                  <td>{MONTHS[i]}</td>
                  <td className="n">{units.show(m.mean_min_c, 'temperature')}</td>
                  <td className="n">{units.show(m.mean_max_c, 'temperature')}</td>
                  <td className="n">{m.rain_days.toFixed(0)}</td>
                  <td className="n">
                    {m.humidity_pct.toFixed(0)}
                    {'\u00a0'}%
                  </td>
                  <td className="n">
                    {m.wind_ms.toFixed(1)}
                    {'\u00a0'}m/s
                  </td>
                </tr>
              ))}
            </tbody>
          </Sheet>
          <Button $small onPress={() => put(`Remove ${station.name}`, { stations: road.stations.filter((s) => s.id !== station.id) })}>
            Remove this station
          </Button>
        </Fold>
      ))}
      {!road.stations.length && (
        <>
          <RailLine>Typed weather</RailLine>
          <WeatherTable weather={road.weather} onChange={(weather) => put('Change the weather', { weather })} />
        </>
      )}
      {pasting !== null && (
        <Dialog draft title="Twelve months of a station" open onClose={() => setPasting(null)} wide>
          <Muted>A row a month from January on, under headings such as month, max, min, rain days, humidity, wind.</Muted>
          <Area
            aria-label="The months"
            value={pasting}
            onChange={(e) => setPasting(e.target.value)}
            placeholder={'month;max;min;rain days\nJan;8;1;11\nFeb;9;1;9'}
          />
          <Actions>
            <Button onPress={() => setPasting(null)}>Not now</Button>
            <Button
              $wanted
              isDisabled={!pasting.trim()}
              onPress={() => void bring(new File([pasting], 'months.csv')).then((kept) => kept && setPasting(null))}
            >
              Take it
            </Button>
          </Actions>
        </Dialog>
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
