/** What of the library stays at home, comes along and is packed as kits; and what a kilogram less costs. */
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { api, type Owned } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { Button, Muted, RailLine } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import type { Library } from './useLibrary'

const Lines = styled.ul`
  li {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 6px;
    min-height: 32px;
    border-bottom: 1px solid var(--hair);
    font-size: var(--size-small);
  }
  li > button:nth-of-type(1) {
    text-align: left;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    font-weight: 620;
    min-height: 32px;
    cursor: pointer;
  }
  small {
    font-size: var(--size-fine);
    color: var(--ink2);
    font-stretch: var(--width-narrow);
    white-space: nowrap;
  }
  img {
    width: 26px;
    height: 26px;
    object-fit: cover;
    border-radius: 2px;
  }
`
const CONDITION = { new: 'untried', trusted: 'trusted', worn: 'worn', near_its_end: 'near its end', repaired: 'repaired' }
const FEW = 8

const MOST_STEPS = 5

interface Props {
  library: Library
  onOpen: (owned: Owned) => void
}

const Picture = ({ of: o }: { of: Owned }) => (o.has_picture ? <img src={`/api/library/${o.id}/picture?v=${o.version}`} alt="" /> : <span />)

export function LeftAtHome({ library: { home, take }, onOpen }: Props) {
  const units = useUnits()
  const { busy } = useWork()
  return (
    <>
      <RailLine>
        Left at home
        <em>{home.length}</em>
      </RailLine>
      <Lines>
        {home.map((o) => (
          <li key={o.id}>
            <Picture of={o} />
            <button type="button" onClick={() => onOpen(o)}>
              {o.thing.name}
            </button>
            <small>
              {o.thing.held === 'wished' ? 'wished' : CONDITION[o.thing.condition]}, {units.show(o.thing.mass_kg * o.thing.count, 'mass', 2)}
              {o.thing.last_time && `; last time: ${o.thing.last_time}`}
            </small>
            {o.thing.hung ? (
              <Link to="../rig">hang it</Link>
            ) : (
              <Button $small aria-label={`Take ${o.thing.name} along`} isDisabled={busy !== ''} onPress={() => take([o], `Take ${o.thing.name}`)}>
                +
              </Button>
            )}
          </li>
        ))}
        {!home.length && <Muted as="li">All of these come along.</Muted>}
      </Lines>
    </>
  )
}

export function ComesAlong({ library: { along, here, typed, data }, onOpen }: Props) {
  const units = useUnits()
  if (!along.length) return null
  return (
    <>
      <RailLine>
        Comes along
        <em>{here}</em>
      </RailLine>
      <Lines>
        {along.slice(0, typed ? data?.most : FEW).map((o) => (
          <li key={o.id}>
            <Picture of={o} />
            <button type="button" onClick={() => onOpen(o)}>
              {o.thing.name}
            </button>
            <small>{o.tours.length > 1 ? `on ${o.tours.length} tours` : units.show(o.thing.mass_kg * o.thing.count, 'mass', 2)}</small>
            <span />
          </li>
        ))}
      </Lines>
    </>
  )
}

export function Kits({ library: { home, kit, setKit, take } }: { library: Library }) {
  const units = useUnits()
  const { data: packed } = useQuery({ queryKey: ['library', 'kits'], queryFn: api.libraryKits })
  return (
    <>
      <RailLine>
        Kits <em>a bag in a bag</em>
      </RailLine>
      <Lines>
        {(packed?.kits ?? []).map((k) => (
          <li key={k.name}>
            <span />
            <button type="button" aria-pressed={kit === k.name} onClick={() => setKit(kit === k.name ? '' : k.name)}>
              {kit === k.name ? '▾ ' : '▸ '}
              {k.name}
            </button>
            <small>
              {k.things} things, {units.show(k.mass_kg, 'mass')}
            </small>
            {kit === k.name && home.length > 0 ? (
              <Button $small aria-label={`Take all of ${k.name} along`} onPress={() => take(home, `Take the kit ${k.name}`)}>
                + all
              </Button>
            ) : (
              <span />
            )}
          </li>
        ))}
      </Lines>
    </>
  )
}

export function Ladder() {
  const { tour, sheet } = useDesk()
  const units = useUnits()
  const { data: ladder } = useQuery({ queryKey: ['ladder', tour.id, tour.revision], queryFn: () => api.ladder(tour.id) })
  if (!ladder?.steps.length) return null
  return (
    <>
      <RailLine>
        A kilogram less costs <em>{sheet.money || 'money'}</em>
      </RailLine>
      <Lines>
        {ladder.steps.slice(0, MOST_STEPS).map((step) => (
          <li key={`${step.thing_id} ${step.name}`}>
            <span />
            <span>
              {step.name ? `${step.name} for ` : 'Leave '}
              {sheet.kit.find((t) => t.id === step.thing_id)?.name}
            </span>
            <small>
              {units.show(step.saves_kg, 'mass', 2)}, {units.show(step.saves_l, 'volume')}
            </small>
            <b>{step.money_a_kg === null ? `${step.money_a_litre ?? 0} a litre` : step.money_a_kg.toFixed(0)}</b>
          </li>
        ))}
      </Lines>
    </>
  )
}
