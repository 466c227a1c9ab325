/** Figures of the tour over all plays: as planned, and between which it lies eight times in ten. */
import styled from 'styled-components'
import type { Rehearsal } from '../../api/client'
import { useUnits } from '../../ui/preferences'

export const Figures = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: var(--size-small);
  th {
    text-align: left;
    font-weight: 600;
    padding: 4px 6px 4px 0;
  }
  thead th {
    font-size: var(--size-note);
    color: var(--ink2);
    border-bottom: 1px solid var(--edge);
    vertical-align: bottom;
  }
  td,
  thead th:not(:first-child) {
    text-align: right;
    padding: 4px 0 4px 10px;
    font-variant-numeric: tabular-nums;
  }
  tbody tr {
    border-bottom: 1px solid var(--hair);
  }
`

export function YearTable({ year }: { year: Rehearsal['year'] }) {
  const units = useUnits()
  const shown = (value: number | null, quantity: Rehearsal['year'][number]['quantity']) => (value === null ? '–' : units.show(value, quantity))
  return (
    <Figures>
      <thead>
        <tr>
          <th scope="col">Figure</th>
          <th scope="col">Planned</th>
          <th scope="col">1 in 10 below</th>
          <th scope="col">Middle</th>
          <th scope="col">1 in 10 above</th>
        </tr>
      </thead>
      <tbody>
        {year.map((row) => (
          <tr key={row.name}>
            <th scope="row">{row.name}</th>
            <td>{shown(row.planned, row.quantity)}</td>
            <td>{shown(row.low, row.quantity)}</td>
            <td>{shown(row.middle, row.quantity)}</td>
            <td>{shown(row.high, row.quantity)}</td>
          </tr>
        ))}
      </tbody>
    </Figures>
  )
}
