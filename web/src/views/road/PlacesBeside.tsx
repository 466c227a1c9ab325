/** Places of the gazetteer along the road, offered as stops: all of them, those of a stretch, or some. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, type OfferedStop, type Stop } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../../ui/sheet'

const ALL = 'all'
/** So many of what a place may have are told in its line. */
const PERHAPS = 2

/** What lies along the road and is no stop yet; asked anew when the road or its stops change. */
export const useOffered = () => {
  const { tour } = useDesk()
  return useQuery({ queryKey: ['offered', tour.id, tour.revision], queryFn: () => api.offeredStops(tour.id) }).data?.stops
}

export function PlacesBeside({ offered, onClose, onTake }: { offered: OfferedStop[]; onClose: () => void; onTake: (stops: Stop[]) => void }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const [where, setWhere] = useState(ALL)
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const stretches = assessment.gaps
    .filter((gap) => gap.supply === 'food' || gap.supply === 'water')
    .sort((a, b) => b.to_km - b.from_km - (a.to_km - a.from_km))
    .slice(0, 6)
    .map((gap) => ({ id: `${gap.supply} ${gap.from_km}`, gap }))
  const within = stretches.find(({ id }) => id === where)?.gap
  const shown = offered.filter(({ stop }) => !within || (stop.at_km > within.from_km && stop.at_km < within.to_km))
  const taken = shown.filter(({ stop }) => !left.has(stop.id))
  const toggle = (id: string) => setLeft(new Set(left.has(id) ? [...left].filter((one) => one !== id) : [...left, id]))
  return (
    <Dialog title="Places along the road" open onClose={onClose} wide>
      <Muted>
        What a place so large mostly has is a guess, marked ~, until you say it. What is less sure is told and does not count. {shown[0]?.source}, CC
        BY 4.0.
      </Muted>
      <Choice
        label="Which"
        value={where}
        onChange={setWhere}
        options={[
          { id: ALL, text: `All ${offered.length} along the road` },
          ...stretches.map(({ id, gap }) => ({
            id,
            text: `${gap.supply === 'food' ? 'No food' : 'No water'} from ${units.show(gap.from_km, 'distance')} to ${units.show(gap.to_km, 'distance')}`,
          })),
        ]}
      />
      <div style={{ maxHeight: '46vh', overflowY: 'auto' }}>
        <Ticks>
          <thead>
            <tr>
              <th>Take</th>
              <th className="n">At</th>
              <th>Place</th>
              <th className="n">People</th>
              <th className="wide">Counted on; perhaps</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((place) => (
              <PlaceRow key={place.stop.id} place={place} taken={!left.has(place.stop.id)} onToggle={toggle} />
            ))}
          </tbody>
        </Ticks>
      </div>
      {!shown.length && <p>No place lies there.</p>}
      <Actions>
        <Button onPress={() => setLeft(new Set(taken.length ? shown.map(({ stop }) => stop.id) : []))}>
          {taken.length ? 'None of them' : 'All of them'}
        </Button>
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted isDisabled={!taken.length} onPress={() => onTake(taken.map(({ stop }) => stop))}>
          Take {taken.length} as stops
        </Button>
      </Actions>
    </Dialog>
  )
}

const Ticks = styled(Sheet)`
  input[type='checkbox'] {
    width: 22px;
    height: 22px;
    margin: 4px 8px;
    accent-color: var(--ink);
  }
`

function PlaceRow({ place: { stop, counted, perhaps }, taken, onToggle }: { place: OfferedStop; taken: boolean; onToggle: (id: string) => void }) {
  const units = useUnits()
  const maybe = perhaps.slice(0, PERHAPS).map((one) => `${one.words} ${units.show(one.chance, 'share', 0)}`)
  return (
    <tr>
      <td>
        <input type="checkbox" checked={taken} onChange={() => onToggle(stop.id)} aria-label={`Take ${stop.name}`} />
      </td>
      <td className="n">{units.show(stop.at_km, 'distance')}</td>
      <td>
        {stop.name}
        {stop.detour_km > 0 && <Muted as="span"> {units.show(stop.detour_km, 'distance', 1)} off</Muted>}
      </td>
      <td className="n">{stop.people ? units.show(stop.people, 'count') : ''}</td>
      <td>
        {counted.length > 0 && `~ ${counted.join(', ')}`}
        {maybe.length > 0 && (
          <Muted as="span">
            {counted.length > 0 && '; '}perhaps {maybe.join(', ')}
          </Muted>
        )}
      </td>
    </tr>
  )
}
