/** Two or a few things beside each other: figures, price on this tour, and the ground on which each comes. */
import type { ReactNode } from 'react'
import styled from 'styled-components'
import type { Ranking, Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { useRanking } from './useRanking'
import { useServices, wordsOf } from './ServesFields'
import { VERDICT_WORDS } from './verdicts'

const Table = styled.table`
  width: 100%;
  font-size: var(--size-small);
  table-layout: fixed;
  th,
  td {
    text-align: left;
    padding: 4px 8px;
    border-bottom: 1px solid var(--hair);
    vertical-align: top;
  }
  th[scope='row'] {
    width: 150px;
    font-weight: 500;
    color: var(--ink2);
    font-size: var(--size-note);
  }
  thead th {
    border-bottom: 2px solid var(--ink);
  }
  td.least {
    font-weight: 760;
  }
`
type Row = Ranking['things'][number]

export function CompareThings({ things, onClose }: { things: Thing[]; onClose: () => void }) {
  const { sheet } = useDesk()
  const units = useUnits()
  const services = useServices()
  const { data, isPending } = useRanking()
  const rowOf = (t: Thing) => data?.things.find((r) => r.thing_id === t.id)
  const figures: [string, (t: Thing, r: Row | undefined) => number | null | undefined, (n: number) => string][] = [
    ['Mass', (t) => t.mass_kg * t.count, (n) => units.show(n, 'mass', 2)],
    ['Packed', (t) => t.volume_l * t.count, (n) => units.show(n, 'volume')],
    ['On this tour, a day', (_, r) => r?.minutes_a_day, (n) => units.show(n, 'minutes', 1)],
    ['Work a day', (_, r) => r?.kj_a_day, (n) => `${n.toFixed(0)}\u00a0kJ`],
    ['Needed on', (_, r) => r?.uses, (n) => `${n} days`],
    ['A use', (_, r) => r?.minutes_a_use, (n) => units.show(n, 'minutes', 1)],
    ['Price', (t) => (t.price === null ? null : t.price * t.count), (n) => `${n.toFixed(0)} ${sheet.money}`],
  ]
  const words: [string, (t: Thing, r: Row | undefined) => ReactNode][] = [
    ['Serves as', (t) => t.serves.map((s) => wordsOf(services, s)).join(', ') || 'nobody said'],
    ['Does', (t) => roleFigures(t, units)],
    ['Condition', (t) => `${t.condition.replaceAll('_', ' ')}, ${t.held}`],
    ['Verdict', (_, r) => (r ? VERDICT_WORDS[r.verdict] : '')],
    ['Because', (_, r) => (r ? units.say(r.ground) : '')],
  ]
  return (
    <Dialog title="Beside each other" open onClose={onClose} wide>
      {isPending && <Muted role="status">Reckoning …</Muted>}
      <div style={{ overflowX: 'auto' }}>
        <Table>
          <thead>
            <tr>
              <td />
              {things.map((t) => (
                <th key={t.id} scope="col">
                  {t.count > 1 ? `${t.count} × ` : ''}
                  {t.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {figures.map(([label, value, show]) => {
              const all = things.map((t) => value(t, rowOf(t)) ?? null)
              const least = Math.min(...all.filter((n): n is number => n !== null))
              return (
                <tr key={label}>
                  <th scope="row">{label}</th>
                  {all.map((n, i) => (
                    <td key={things[i]?.id} className={n === least && all.length > 1 && label !== 'Needed on' ? 'least' : undefined}>
                      {n === null ? '–' : show(n)}
                    </td>
                  ))}
                </tr>
              )
            })}
            {words.map(([label, value]) => (
              <tr key={label}>
                <th scope="row">{label}</th>
                {things.map((t) => (
                  <td key={t.id}>{value(t, rowOf(t))}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <Actions>
        <Button onPress={onClose}>Done</Button>
      </Actions>
    </Dialog>
  )
}

function roleFigures(t: Thing, units: ReturnType<typeof useUnits>): string {
  const { role } = t
  switch (role?.does) {
    case 'sleeping_bag':
      return `comfort ${units.show(role.comfort_c, 'temperature')}`
    case 'mat':
      return `R ${role.r_value}`
    case 'bed_layer':
      return `${units.show(role.warms_k, 'temperature_difference')} warmer in bed`
    case 'bank':
      return units.show(role.holds_wh, 'energy')
    default:
      return role === null || role === undefined ? '–' : role.does.replaceAll('_', ' ')
  }
}
