/** Places of the gazetteer along the road, offered as stops: all of them, those of a stretch, or some. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { PLACES_OF } from '../../api/bounds'
import { api, type OfferedStop, type Stop } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { ByName, regionOf } from './ByName'
import { Line, Lines, useLeftOut, useStretch } from './PlaceLines'

/** So many of what a place may have are told in its line. */
const PERHAPS = 2

/** What lies along the road and is no stop yet; asked anew when the road or its stops change, and as it was until that is told: whoever
 * has the dialog open goes on. */
export const useOffered = () => {
  const { tour } = useDesk()
  const asked = {
    queryKey: ['offered', tour.id, tour.revision],
    queryFn: ({ signal }: { signal: AbortSignal }) => api.offeredStops(tour.id, '', signal),
  }
  return useQuery({ ...asked, placeholderData: keepPreviousData }).data?.stops
}

/** Of these one may stand several times along a road: what is chosen tells where. */
const byName = ({ stop, country }: OfferedStop, units: ReturnType<typeof useUnits>) =>
  `${stop.name}, ${regionOf(country)}, at ${units.show(stop.at_km, 'distance')}${stop.detour_km > 0 ? `, ${units.show(stop.detour_km, 'distance')} off` : ''}`

export function PlacesBeside({ offered, onClose, onTake }: { offered: OfferedStop[]; onClose: () => void; onTake: (stops: Stop[]) => void }) {
  const { tour } = useDesk()
  const units = useUnits()
  const { where, setWhere, inside, choices } = useStretch()
  const { takes, toggle, leave } = useLeftOut()
  const shown = offered.filter(({ stop }) => inside(stop.at_km))
  const taken = shown.filter(({ stop }) => takes(stop.id))
  return (
    <Dialog title="Places along the road" open onClose={onClose} wide>
      <Muted>
        What a place so large mostly has is a guess, marked ~, until you say it. What is less sure is told and does not count. {PLACES_OF}, CC BY 4.0.
      </Muted>
      <ByName
        label="A place by its name"
        note="Also off the road: for a parcel, a train, a night with friends."
        about={`offered ${tour.id} ${tour.revision}`}
        ask={async (called, signal) => (await api.offeredStops(tour.id, called, signal)).stops}
        words={(place) => byName(place, units)}
        onTake={(place) => onTake([place.stop])}
        none="No place near the road is called so that is no stop yet."
      />
      {offered.length > 0 && <Choice label="Which" value={where} onChange={setWhere} options={choices(`All ${offered.length} along the road`)} />}
      {offered.length > 0 && (
        <Lines aria-label="Places">
          {shown.map((place) => (
            <PlaceLine key={place.stop.id} place={place} taken={takes(place.stop.id)} onToggle={toggle} />
          ))}
        </Lines>
      )}
      {offered.length > 0 && !shown.length && <p>No place lies there.</p>}
      <Actions>
        {offered.length > 0 && (
          <Button onPress={() => leave(taken.length ? shown.map(({ stop }) => stop.id) : [])}>{taken.length ? 'None of them' : 'All of them'}</Button>
        )}
        <Button onPress={onClose}>Not now</Button>
        {offered.length > 0 && (
          <Button $wanted isDisabled={!taken.length} onPress={() => onTake(taken.map(({ stop }) => stop))}>
            Take {taken.length} as stops
          </Button>
        )}
      </Actions>
    </Dialog>
  )
}

function PlaceLine({ place: { stop, counted, perhaps }, taken, onToggle }: { place: OfferedStop; taken: boolean; onToggle: (id: string) => void }) {
  const units = useUnits()
  const maybe = perhaps.slice(0, PERHAPS).map((one) => `${one.words} ${units.show(one.chance, 'share', 0)}`)
  return (
    <Line
      taken={taken}
      onToggle={() => onToggle(stop.id)}
      label={`Take ${stop.name}`}
      at={units.show(stop.at_km, 'distance')}
      what={
        <>
          <b>{stop.name}</b>
          {stop.people ? `, ${units.show(stop.people, 'count')} people` : ''}
          {stop.detour_km > 0 && `, ${units.show(stop.detour_km, 'distance', 1)} off`}
        </>
      }
      has={
        <>
          {counted.length > 0 && `~ ${counted.join(', ')}`}
          {maybe.length > 0 && `${counted.length > 0 ? '; ' : ''}perhaps ${maybe.join(', ')}`}
        </>
      }
    />
  )
}
