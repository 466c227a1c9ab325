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
      <Lines aria-label="Places">
        {shown.map((place) => (
          <PlaceLine key={place.stop.id} place={place} taken={!left.has(place.stop.id)} onToggle={toggle} />
        ))}
      </Lines>
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

const Lines = styled.ul`
  list-style: none;
  margin: 8px 0;
  padding: 0;
  max-height: 46vh;
  overflow-y: auto;
  border-top: 2px solid var(--ink);
  li {
    border-bottom: 1px solid var(--hair);
  }
  label {
    display: grid;
    grid-template-columns: 22px 64px minmax(0, 1fr);
    gap: 0 10px;
    padding: 5px 4px;
    min-height: 44px;
    cursor: pointer;
  }
  input {
    width: 20px;
    height: 20px;
    margin: 1px 0;
    accent-color: var(--ink);
    grid-row: span 2;
  }
  .at {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .has {
    grid-column: 3;
    font-size: var(--size-small);
    color: var(--ink2);
  }
`

function PlaceLine({ place: { stop, counted, perhaps }, taken, onToggle }: { place: OfferedStop; taken: boolean; onToggle: (id: string) => void }) {
  const units = useUnits()
  const maybe = perhaps.slice(0, PERHAPS).map((one) => `${one.words} ${units.show(one.chance, 'share', 0)}`)
  return (
    <li>
      <label>
        <input type="checkbox" checked={taken} onChange={() => onToggle(stop.id)} aria-label={`Take ${stop.name}`} />
        <span className="at">{units.show(stop.at_km, 'distance')}</span>
        <span>
          <b>{stop.name}</b>
          {stop.people ? `, ${units.show(stop.people, 'count')} people` : ''}
          {stop.detour_km > 0 && `, ${units.show(stop.detour_km, 'distance', 1)} off`}
        </span>
        <span className="has">
          {counted.length > 0 && `~ ${counted.join(', ')}`}
          {maybe.length > 0 && `${counted.length > 0 ? '; ' : ''}perhaps ${maybe.join(', ')}`}
        </span>
      </label>
    </li>
  )
}
