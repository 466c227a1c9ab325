/** The parts against the scale, where a missing kilogram may be, and where the rider sits. */
import styled from 'styled-components'
import { api, type WeighLine } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Button, Muted, RailLine } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { MissingKilo } from './MissingKilo'
import type { Weighing } from './useWeighIn'

export const Figures = styled.table`
  width: 100%;
  font-size: var(--size-small);
  font-stretch: var(--width-narrow);
  td,
  th {
    padding: 4px 6px 4px 0;
    border-bottom: 1px solid var(--hair);
    text-align: left;
    font-weight: 500;
  }
  th[scope='row'] {
    font-weight: 620;
  }
  td {
    text-align: right;
    white-space: nowrap;
  }
`

const TOLD: Record<WeighLine['told'], string> = {
  not_weighed: '',
  same: 'as reckoned',
  within_guesses: 'within the guesses',
  to_explain: 'to explain',
}

export function PartsAgainstScale({ weighing: { bike, told, mine, things } }: { weighing: Weighing }) {
  const seat = told.seats.find((s) => s.bike_id === bike.id)
  return (
    <div>
      <RailLine>
        <Icon name="stores" size={17} />
        Parts against the scale
      </RailLine>
      <Figures>
        <tbody>
          {[...mine, ...things]
            .filter((l) => l.scale_kg !== null)
            .map((l) => (
              <Part key={l.key} line={l} />
            ))}
        </tbody>
      </Figures>
      {![...mine, ...things].some((l) => l.scale_kg !== null) && <Muted>Nothing of this bike is weighed yet. Begin with the rear wheel.</Muted>}
      {told.missing
        .filter((m) => m.bike_id === bike.id)
        .map((m) => (
          <div key={m.bike_id} style={{ marginTop: 14 }}>
            <MissingKilo missing={m} />
          </div>
        ))}
      {seat && <Seat seat={seat} />}
    </div>
  )
}

function Part({ line: l }: { line: WeighLine }) {
  const { ask } = useDesk()
  const units = useUnits()
  const canTake = l.scale_kg !== null && (l.weighed === 'thing' || (l.weighed === 'bag' && l.told !== 'same'))
  return (
    <tr>
      <th scope="row">
        {l.name}
        <Muted as="span" style={{ display: 'block' }}>
          {units.figure(l.parts_kg, 'mass', 2)} in parts, {units.show(l.scale_kg ?? 0, 'mass', 2)} on the scale
          {l.dry ? ', dry' : ''}
          {l.at ? `, ${new Date(l.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}` : ''}
          {l.earlier.map((e) => `; before ${units.show(e.kg, 'mass', 2)}${e.at ? '' : ' in the plan'}`).join('')}
        </Muted>
      </th>
      <td>
        {(l.difference_kg ?? 0) > 0 ? '+' : ''}
        {units.show(l.difference_kg ?? 0, 'mass', 2)}
        <Muted>{TOLD[l.told]}</Muted>
        {canTake && (
          <Button $small onPress={() => void ask(`Weighed: ${l.name}`, (id, revision) => api.takeMeasured(id, revision, l.key))}>
            Take it
          </Button>
        )}
      </td>
    </tr>
  )
}

function Seat({ seat }: { seat: Weighing['told']['seats'][number] }) {
  const { ask } = useDesk()
  const units = useUnits()
  return (
    <section aria-label="Where the rider sits" style={{ marginTop: 14 }}>
      <RailLine>
        <Icon name="rider" size={17} />
        Where the rider sits
      </RailLine>
      <p>
        {units.show(seat.rider_kg, 'mass')}, {units.show(seat.ahead_mm, 'length', 0)} ahead of the rear wheel; reckoned were{' '}
        {units.show(seat.reckoned_mm, 'length', 0)}.
      </p>
      <Button
        $small
        onPress={() => void ask('Weighed: where the rider sits', (id, revision) => api.takeMeasured(id, revision, `seat/${seat.bike_id}`))}
      >
        Take it
      </Button>
    </section>
  )
}
