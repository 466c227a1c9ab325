/** Stations of the weather: brought as a record, pasted as twelve months, looked at, removed. */
import { type ReactNode, useState } from 'react'
import styled from 'styled-components'
import { NINE_IN_TEN } from '../../api/bounds'
import { api, type NamedPlace, type Road } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, FileButton, Muted, Row } from '../../ui/controls'
import { Area, Field } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { freeId } from '../../ui/freeId'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../../ui/sheet'
import { ByName, regionOf } from './ByName'
import { MONTHS } from './words'

type Station = Road['stations'][number]

export function BringStation() {
  const { ask } = useDesk()
  const [at, setAt] = useState('')
  const [height, setHeight] = useState('')
  const [name, setName] = useState('')
  const [pasting, setPasting] = useState(false)
  const bring = (content: File) =>
    ask('Reading the station', (id, revision) =>
      api.bringStation(id, revision, content, { name, at_km: at.replace(',', '.'), elevation_m: height.replace(',', '.') }),
    )
  return (
    <>
      <Row $min={160}>
        <Field label="Name of the station" value={name} onChange={setName} placeholder="from the file" />
        <Field label="At km of the road" value={at} onChange={setAt} placeholder="by its coordinates" />
        <Field label="At a height of, m" value={height} onChange={setHeight} placeholder="as the record, or the road" />
      </Row>
      <Row $min={200}>
        <FileButton accept={['.csv', '.epw', '.txt']} onFile={(f) => void bring(f)}>
          Bring a station record
        </FileButton>
        <Button onPress={() => setPasting(true)}>Paste twelve months</Button>
        <Muted>Twelve rows of months (max; min; rain days; humidity; wind), a daily record (DATE, TMAX, TMIN, PRCP) or a typical year (EPW).</Muted>
      </Row>
      <ClimateByName at={at} />
      {pasting && <PasteMonths onClose={() => setPasting(false)} onTake={(file) => void bring(file).then((kept) => kept && setPasting(false))} />}
    </>
  )
}

/** The published climate of a place, found by its name without a network: for a road that was typed, or a place off the road. */
function ClimateByName({ at }: { at: string }) {
  const { sheet, change } = useDesk()
  const units = useUnits()
  const take = async (place: NamedPlace) => {
    const station = await api.climateOf(place)
    const id = freeId(
      'station',
      sheet.road.stations.map((s) => s.id),
    )
    const km = Number(at.replace(',', '.'))
    const here = at.trim() && Number.isFinite(km) ? { at_km: km } : sheet.road.typed_days.length ? { at_km: 0 } : {}
    await change(`Take the climate of ${place.name}`, { road: { ...sheet.road, stations: [...sheet.road.stations, { ...station, ...here, id }] } })
  }
  const height = (place: NamedPlace) => (place.elevation_m === null ? '' : `, ${units.show(place.elevation_m, 'elevation')}`)
  return (
    <ByName
      label="Or the published climate of a place"
      note="Found without a network; a guess with a width until you replace its months."
      about="places"
      ask={async (called, signal) => (await api.namedPlaces(called, signal)).places}
      words={(place) => `${place.name}, ${regionOf(place.country)}${height(place)}`}
      may={(place) => place.elevation_m !== null}
      onTake={take}
      none="No place is called so. Try how it is written there."
    />
  )
}

function PasteMonths({ onClose, onTake }: { onClose: () => void; onTake: (months: File) => void }) {
  const [text, setText] = useState('')
  return (
    <Dialog draft title="Twelve months of a station" open onClose={onClose} wide>
      <Muted>A row a month from January on, under headings such as month, max, min, rain days, humidity, wind.</Muted>
      <Area
        aria-label="The months"
        value={text}
        onChange={(e) => setText(e.target.value)}
        placeholder={'month;max;min;rain days\nJan;8;1;11\nFeb;9;1;9'}
      />
      <Actions>
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted isDisabled={!text.trim()} onPress={() => onTake(new File([text], 'months.csv'))}>
          Take it
        </Button>
      </Actions>
    </Dialog>
  )
}

/** The rider's own stations, then those that stand in, dashed: a touch makes one the rider's. */
export function StationList({ road, put }: { road: Road; put: (what: string, part: Partial<Road>) => void }) {
  const { assessment } = useDesk()
  const take = (station: Station) => {
    const id = freeId(
      'station',
      road.stations.map((s) => s.id),
    )
    put(`Make ${station.name} mine`, { stations: [...road.stations, { ...station, id }] })
  }
  return (
    <Stands>
      {road.stations.map((station) => (
        <li key={station.id}>
          <StationFold station={station}>
            <Button $small onPress={() => put(`Remove ${station.name}`, { stations: road.stations.filter((s) => s.id !== station.id) })}>
              Remove this station
            </Button>
          </StationFold>
        </li>
      ))}
      {assessment.climate?.offered.map((station) => (
        <li key={station.id} className="offered">
          <StationFold station={station} guessed>
            <Button $small onPress={() => take(station)}>
              Make it mine, to keep or to replace
            </Button>
          </StationFold>
        </li>
      ))}
    </Stands>
  )
}

const Stands = styled.ul`
  list-style: none;
  margin: 8px 0;
  padding: 0;
  li {
    border-left: 3px solid var(--ink);
    padding: 1px 0 1px 8px;
    margin: 3px 0;
  }
  li.offered {
    border-left-style: dashed;
  }
`

function StationFold({ station, guessed, children }: { station: Station; guessed?: boolean; children: ReactNode }) {
  const units = useUnits()
  const where = station.at_km === null ? `${station.lat_deg?.toFixed(2)}, ${station.lon_deg?.toFixed(2)}` : units.show(station.at_km, 'distance')
  const height = station.elevation_m === null ? 'as high as the road' : units.show(station.elevation_m, 'elevation')
  const width = station.width_k > 0 ? `, ± ${units.show(NINE_IN_TEN * station.width_k, 'temperature_difference', 0)}` : ''
  return (
    <Fold
      summary={
        <>
          {guessed && '~ '}
          <b>{station.name}</b>, {guessed ? height : `${where}, ${height}, ${station.source || 'twelve months'}`}
          {width}
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
      {children}
    </Fold>
  )
}
