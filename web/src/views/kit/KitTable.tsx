/** The kit for those who think in rows: every column sorted by its head. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Thing } from '../../api/client'
import { REACH_WORDS } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../../ui/sheet'

const Scroll = styled.div`
  overflow-x: auto;
  td {
    height: 27px;
    white-space: nowrap;
    max-width: 230px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  th button {
    font-weight: inherit;
    cursor: pointer;
    min-height: 24px;
  }
  tr[aria-selected='true'] td {
    background: var(--tag);
  }
  input[type='checkbox'] {
    width: 18px;
    min-height: 18px;
  }
`
const DRY = { any: '', own_bag: 'own dry bag', must: 'must' } as const

interface Props {
  things: Thing[]
  chosen: Set<string>
  onChoose: (ids: Set<string>) => void
  onOpen: (thing: Thing) => void
  minutes: Record<string, number>
  placeOf: (thing: Thing) => string
  riderOf: (thing: Thing) => string
}

export function KitTable({ things, chosen, onChoose, onOpen, minutes, placeOf, riderOf }: Props) {
  const units = useUnits()
  const [sorted, setSorted] = useState<{ by: string; down: boolean }>({ by: '', down: false })
  const columns: { id: string; head: string; n?: boolean; value: (t: Thing) => number | string; show?: (t: Thing) => string }[] = [
    { id: 'kit', head: 'Kit', value: (t) => t.group },
    { id: 'count', head: 'Count', n: true, value: (t) => t.count },
    {
      id: 'one',
      head: `One, ${units.show(1, 'mass').split('\u00a0')[1]}`,
      n: true,
      value: (t) => t.mass_kg,
      show: (t) => units.figure(t.mass_kg, 'mass', 3),
    },
    { id: 'mass', head: 'All', n: true, value: (t) => t.mass_kg * t.count, show: (t) => units.figure(t.mass_kg * t.count, 'mass', 2) },
    {
      id: 'volume',
      head: units.show(1, 'volume').split('\u00a0')[1] ?? '',
      n: true,
      value: (t) => t.volume_l * t.count,
      show: (t) => units.figure(t.volume_l * t.count, 'volume', 1),
    },
    { id: 'minutes', head: 'Min a day', n: true, value: (t) => minutes[t.id] ?? 0, show: (t) => (minutes[t.id] ?? 0).toFixed(1) },
    { id: 'reach', head: 'Wanted', value: (t) => REACH_WORDS[t.reach] },
    { id: 'dry', head: 'Dry', value: (t) => DRY[t.dry] },
    { id: 'who', head: 'Who', value: riderOf },
    { id: 'where', head: 'Where', value: placeOf },
    { id: 'why', head: 'Why it comes', value: (t) => t.because },
  ]
  const key = columns.find((c) => c.id === sorted.by)?.value ?? ((t: Thing) => t.name)
  const rows = sorted.by ? [...things].sort((a, b) => (sorted.down ? -1 : 1) * compare(key(a), key(b))) : things
  const head = (id: string, text: string, n = false) => (
    <th key={id} className={n ? 'n' : undefined} aria-sort={sorted.by === id ? (sorted.down ? 'descending' : 'ascending') : 'none'}>
      <button type="button" onClick={() => setSorted({ by: id, down: sorted.by === id && !sorted.down })}>
        {text}
        {sorted.by === id ? (sorted.down ? ' ▾' : ' ▴') : ''}
      </button>
    </th>
  )
  return (
    <Scroll>
      <Sheet aria-label="All things">
        <thead>
          <tr>
            <th>
              <span className="unseen">Chosen</span>
            </th>
            {head('name', 'Thing')}
            {columns.map((c) => head(c.id, c.head, c.n))}
          </tr>
        </thead>
        <tbody>
          {rows.map((t) => (
            <tr key={t.id} aria-selected={chosen.has(t.id)}>
              <td>
                <input
                  type="checkbox"
                  aria-label={`Choose ${t.name}`}
                  checked={chosen.has(t.id)}
                  onChange={() => {
                    const next = new Set(chosen)
                    if (!next.delete(t.id)) next.add(t.id)
                    onChoose(next)
                  }}
                />
              </td>
              <td>
                <button type="button" className="plain" onClick={() => onOpen(t)}>
                  {t.name}
                </button>
              </td>
              {columns.map((c) => (
                <td key={c.id} className={c.n ? 'n' : undefined}>
                  {c.show ? c.show(t) : c.value(t)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Sheet>
    </Scroll>
  )
}

const compare = (a: number | string, b: number | string) =>
  typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b))
