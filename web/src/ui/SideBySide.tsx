import type { ReactNode } from 'react'
import styled from 'styled-components'
import { Button } from './controls'

const Table = styled.table`
  width: 100%;
  font-size: var(--size-small);
  font-stretch: var(--width-text);
  table-layout: fixed;
  th {
    text-align: left;
    vertical-align: bottom;
    padding: 4px 8px;
    border-bottom: 2px solid var(--ink);
    font-size: var(--size-text);
  }
  th:first-child,
  td:first-child {
    width: 170px;
    color: var(--ink2);
    font-size: var(--size-note);
  }
  td {
    padding: 4px 8px;
    border-bottom: 1px solid var(--hair);
    vertical-align: top;
    font-weight: 620;
  }
  td small {
    font-weight: 500;
    font-size: var(--size-note);
    color: var(--ink2);
    display: block;
  }
  li {
    font-weight: 500;
    font-size: var(--size-note);
    line-height: 16px;
    padding-bottom: 3px;
  }
`

const MOST_NAMED = 4

/** A few entries, and how many more there are. */
export function Few({ entries, none = 'none' }: { entries: ReactNode[]; none?: string }) {
  if (!entries.length) return none
  return (
    <ul>
      {entries.slice(0, MOST_NAMED).map((entry, i) => (
        <li key={i}>{entry}</li>
      ))}
      {entries.length > MOST_NAMED && <li>and {entries.length - MOST_NAMED} more</li>}
    </ul>
  )
}

export type Rows<T> = [label: string, show: (column: T, first: T) => ReactNode][]

/** A few things compared, a column each; the first is the one in use, the others can be taken or forgotten. */
export function SideBySide<T extends { id: string; name: string }>({
  columns,
  rows,
  busy,
  takeWords,
  onTake,
  onForget,
}: {
  columns: T[]
  rows: Rows<T>
  busy: boolean
  takeWords: string
  onTake: (column: T) => void
  onForget: (column: T) => void
}) {
  const [first] = columns
  if (!first) return null
  return (
    <div style={{ overflowX: 'auto', opacity: busy ? 0.6 : 1 }}>
      <Table>
        <thead>
          <tr>
            <th>{busy ? 'Reckoning …' : ''}</th>
            {columns.map((c) => (
              <th key={c.id}>{c.name}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([label, show]) => (
            <tr key={label}>
              <td>{label}</td>
              {columns.map((c) => (
                <td key={c.id}>{show(c, first)}</td>
              ))}
            </tr>
          ))}
          <tr>
            <td />
            {columns.map((c) => (
              <td key={c.id}>
                {c !== first && (
                  <div style={{ display: 'flex', gap: 6, flexWrap: 'wrap' }}>
                    <Button $small $wanted onPress={() => onTake(c)}>
                      {takeWords}
                    </Button>
                    <Button $small onPress={() => onForget(c)}>
                      Forget it
                    </Button>
                  </div>
                )}
              </td>
            ))}
          </tr>
        </tbody>
      </Table>
    </div>
  )
}
