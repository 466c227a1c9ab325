/** Places along the road to choose from: a line each, and which stretch of the road they lie in. */
import { useState, type ReactNode } from 'react'
import styled from 'styled-components'
import { useDesk } from '../../api/tour'
import { useUnits } from '../../ui/preferences'

const ALL = 'all'
const SUPPLY_WORDS = { food: 'No food', water: 'No water' }
/** So many of the longest stretches are named. */
const STRETCHES = 6

/** The longest stretches without food or water, one of which may be chosen. */
export function useStretch() {
  const { assessment } = useDesk()
  const units = useUnits()
  const [where, setWhere] = useState(ALL)
  const stretches = assessment.gaps
    .filter((gap) => gap.supply in SUPPLY_WORDS)
    .sort((a, b) => b.to_km - b.from_km - (a.to_km - a.from_km))
    .slice(0, STRETCHES)
    .map((gap) => ({ id: `${gap.supply} ${gap.from_km}`, gap }))
  const within = stretches.find(({ id }) => id === where)?.gap
  return {
    where,
    setWhere,
    inside: (km: number) => !within || (km > within.from_km && km < within.to_km),
    choices: (all: string) => [
      { id: ALL, text: all },
      ...stretches.map(({ id, gap }) => ({
        id,
        text: `${SUPPLY_WORDS[gap.supply as keyof typeof SUPPLY_WORDS]} from ${units.show(gap.from_km, 'distance')} to ${units.show(gap.to_km, 'distance')}`,
      })),
    ],
  }
}

/** What is left out of all that is shown; everything else is taken. */
export function useLeftOut() {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  return {
    takes: (id: string) => !left.has(id),
    toggle: (id: string) => setLeft(new Set(left.has(id) ? [...left].filter((one) => one !== id) : [...left, id])),
    leave: (ids: string[]) => setLeft(new Set(ids)),
  }
}

export const Lines = styled.ul`
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

/** One of them. */
export function Line(p: { taken: boolean; onToggle: () => void; label: string; at: string; what: ReactNode; has: ReactNode }) {
  return (
    <li>
      <label>
        <input type="checkbox" checked={p.taken} onChange={p.onToggle} aria-label={p.label} />
        <span className="at">{p.at}</span>
        <span>{p.what}</span>
        <span className="has">{p.has}</span>
      </label>
    </li>
  )
}
