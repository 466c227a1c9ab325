/** What a map has along the road, of a file or of the service: new, changed and gone, taken as far as the rider wants. */
import { useEffect, useRef, useState } from 'react'
import { MAP_FILES } from '../../api/bounds'
import { api, type MappedRoad, type MappedStop, Problem, type Progress, type Road } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, FileButton, Muted, Row } from '../../ui/controls'
import { fullDate } from '../../ui/dates'
import { Choice } from '../../ui/fields'
import { UnderWay } from '../../ui/notices'
import { useUnits } from '../../ui/preferences'
import { Line, Lines, useLeftOut, useStretch } from './PlaceLines'
import { PART_WORDS, SURFACE_WORDS } from './words'

const STATE_WORDS: Record<MappedStop['state'], string> = { new: 'New', changed: 'Otherwise than yours', gone: 'Not on the map any more' }
const GROUND = 'ground'
const idOf = (stop: MappedStop) => stop.was ?? stop.stop?.id ?? stop.name

/** A road with what is taken of a map. */
export function withMap(road: Road, map: MappedRoad, takes: (id: string) => boolean): Road {
  const taken = map.stops.filter((one) => takes(idOf(one)))
  const instead = new Map(taken.flatMap((one) => (one.was ? [[one.was, one.stop] as const] : [])))
  const kept = road.stops.flatMap((stop) => (instead.has(stop.id) ? (instead.get(stop.id) ?? []) : stop))
  const more = taken.flatMap((one) => (one.was ? [] : (one.stop ?? [])))
  const ground = takes(GROUND)
  return {
    ...road,
    stops: [...kept, ...more].sort((a, b) => a.at_km - b.at_km),
    surfaces: (ground && map.surfaces) || road.surfaces,
    hazards: ground ? [...road.hazards, ...map.tunnels] : road.hazards,
    transfers: ground ? [...road.transfers, ...map.ferries] : road.transfers,
  }
}

/** Asks a map, and tells how far it is. */
function useMap() {
  const { tour } = useDesk()
  const [progress, setProgress] = useState<Progress | null>(null)
  const [map, setMap] = useState<MappedRoad | null>(null)
  const [trouble, setTrouble] = useState('')
  const asking = useRef<AbortController | null>(null)
  useEffect(() => () => asking.current?.abort(), [])
  const ask = (file: File | null) => {
    const stop = (asking.current = new AbortController())
    setTrouble('')
    setProgress({ what: file ? 'Sending the map' : 'Asking the map service', share: null })
    api
      .lookAtMap(tour.id, file, setProgress, stop.signal)
      .then(setMap, (e: unknown) => setTrouble(e instanceof Problem ? `${e.body.detail} ${e.body.mend ?? ''}` : String(e)))
      .finally(() => setProgress(null))
  }
  return { progress, map, trouble, ask, cancel: () => asking.current?.abort() }
}

export function MapBeside({ onClose }: { onClose: () => void }) {
  const { progress, map, trouble, ask, cancel } = useMap()
  return (
    <Dialog title="What a map has along the road" open onClose={onClose} wide>
      {map ? (
        <Proposals map={map} onClose={onClose} />
      ) : (
        <>
          <p>
            Water, shops with their hours, camp sites, huts, workshops, ground, tunnels and ferries, within a kilometre of the road and five in long
            gaps. Nothing is taken before you say so; what you said yourself stays.
          </p>
          {progress ? (
            <UnderWay what={progress.what} share={progress.share ?? null} onCancel={cancel} />
          ) : (
            <Row $min={200}>
              <FileButton wanted accept={MAP_FILES} onFile={ask}>
                An OpenStreetMap extract
              </FileButton>
              <Button onPress={() => ask(null)}>Ask the map service</Button>
            </Row>
          )}
          <Muted>An extract of the region is a file ending in .osm.pbf. It is read on this server and thrown away.</Muted>
          {trouble && (
            <p role="alert">
              <b>{trouble}</b>
            </p>
          )}
          <Actions>
            <Button onPress={onClose}>Not now</Button>
          </Actions>
        </>
      )}
    </Dialog>
  )
}

function Proposals({ map, onClose }: { map: MappedRoad; onClose: () => void }) {
  const { sheet, change } = useDesk()
  const { where, setWhere, inside, choices } = useStretch()
  const { takes, toggle, leave } = useLeftOut()
  const units = useUnits()
  const shown = map.stops.filter((one) => inside(one.at_km))
  const ground = groundWords(map, sheet.road, units)
  const ids = [...shown.map(idOf), ...(ground ? [GROUND] : [])]
  const count = ids.filter(takes).length
  const take = async () => {
    const within = (id: string) => ids.includes(id) && takes(id)
    const what = `Take ${count} ${count === 1 ? 'thing' : 'things'} of the map`
    if (await change(what, { road: withMap(sheet.road, map, within) })) onClose()
  }
  return (
    <>
      <Muted>
        {map.credit}; as of {fullDate(map.on)}. {units.show(map.looked_at, 'count')} places looked at; the ground is known on{' '}
        {units.show(map.ground_known, 'share', 0)} of the road. {map.remarks.join(' ')}
      </Muted>
      {map.stops.length > 0 && <Choice label="Which" value={where} onChange={setWhere} options={choices(`All ${map.stops.length} places`)} />}
      <Lines aria-label="Of the map">
        {ground && <Line taken={takes(GROUND)} onToggle={() => toggle(GROUND)} label="Take the ground" at="" what={<b>The ground</b>} has={ground} />}
        {shown.map((one) => (
          <Line
            key={idOf(one)}
            taken={takes(idOf(one))}
            onToggle={() => toggle(idOf(one))}
            label={`Take ${one.name}`}
            at={units.show(one.at_km, 'distance')}
            what={
              <>
                <b>{one.name}</b>
                {one.off_km >= 0.5 && `, ${units.show(one.off_km, 'distance', 1)} off`}
                {one.state !== 'new' && ` · ${STATE_WORDS[one.state]}: ${one.parts.map((part) => PART_WORDS[part]).join(', ')}`}
              </>
            }
            has={one.state === 'gone' ? (one.stop ? 'what you said of it stays' : 'the stop goes') : one.words.join(', ')}
          />
        ))}
      </Lines>
      {!ids.length && <p>{map.looked_at ? 'The map has nothing there that you do not have.' : 'This map has no place near your road.'}</p>}
      <Actions>
        <Button onPress={() => leave(count ? ids : [])}>{count ? 'None of them' : 'All of them'}</Button>
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted isDisabled={!count} onPress={() => void take()}>
          Take {count}
        </Button>
      </Actions>
    </>
  )
}

/** What of the ground would be otherwise, in words; nothing where it would not. */
function groundWords(map: MappedRoad, road: Road, units: ReturnType<typeof useUnits>) {
  const at = (s: { from_km: number; to_km: number }) => `${units.figure(s.from_km, 'distance')} to ${units.show(s.to_km, 'distance')}`
  const had = new Set(road.surfaces.map((s) => `${s.from_km} ${s.surface}`))
  const surfaces = (map.surfaces ?? []).filter((s) => !had.has(`${s.from_km} ${s.surface}`))
  return [
    ...surfaces.slice(0, 4).map((s) => `${SURFACE_WORDS[s.surface]} ${at(s)}`),
    ...(surfaces.length > 4 ? [`${surfaces.length - 4} stretches more`] : []),
    ...map.tunnels.map((s) => `tunnel ${at(s)}`),
    ...map.ferries.map((s) => `ferry ${at(s)}, ${units.show(s.hours, 'hours')}`),
  ].join(', ')
}
