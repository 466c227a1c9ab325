/** The lists of the shelf: what is to be stowed, what lies where, and what all of it would cost. */
import { type ComponentProps, useMemo } from 'react'
import styled from 'styled-components'
import type { Placement, Thing } from '../api/client'
import { useDesk } from '../api/tour'
import { IconButton, RailLine } from '../ui/controls'
import { Menu, type MenuEntry } from '../ui/Menu'
import { Icon, REACH_WORDS } from '../ui/icons'
import { useUnits } from '../ui/preferences'
import { Swatch } from '../ui/Swatch'
import { type CarrierEntry, pinCarrier, swapCarriers } from './loadEdits'
import { minutesWords } from './Tag'
import { ThingRow } from './ThingRow'
import { useStow } from './useStow'

const Bill = styled.p`
  border-top: 1px solid var(--edge);
  padding: 4px 0 6px;
  font-size: var(--size-note);
  font-stretch: var(--width-narrow);
  color: var(--ink2);
  b {
    color: var(--ink);
  }
`
type RowOf = (thing: Thing, count: number, from: string | null) => Omit<ComponentProps<typeof ThingRow>, 'pinned'>

/** What is not stowed, by the moment of use. */
export function ToStow({ things: onShelf, row }: { things: Thing[]; row: RowOf }) {
  const { assessment } = useDesk()
  return (Object.keys(REACH_WORDS) as (keyof typeof REACH_WORDS)[]).map((reach) => {
    const things = onShelf.filter((t) => t.reach === reach)
    if (!things.length && onShelf.length) return null
    return (
      <div key={reach} className="group">
        <RailLine>
          <Icon name={reach} size={17} />
          {REACH_WORDS[reach]}
        </RailLine>
        {things.map((t) => (
          <ThingRow key={t.id} {...row(t, assessment.shelf[t.id] ?? 0, null)} />
        ))}
      </div>
    )
  })
}

/** What lies where; `all`: bags with nothing in them too. */
export function OnTheBikes({ groups, placed, all, row }: { groups: CarrierEntry[]; placed: Placement[]; all: boolean; row: RowOf }) {
  const { sheet } = useDesk()
  const byId = useMemo(() => new Map(sheet.kit.map((t) => [t.id, t])), [sheet.kit])
  return groups.map((entry) => {
    const inside = placed.filter((p) => p.carrier_id === entry.id)
    if (!inside.length && !all) return null
    return (
      <div key={entry.id} className="group">
        <BagLine entry={entry} inside={inside} />
        {inside.map((p) => {
          const thing = byId.get(p.thing_id)
          return thing && <ThingRow key={p.thing_id + String(p.pinned)} {...row(thing, p.count, p.carrier_id)} pinned={p.pinned} />
        })}
        <FoodLine carrierId={entry.id} />
      </div>
    )
  })
}

/** What all that is on the shelf would weigh, take and cost. */
export function TakeAll({ things: onShelf }: { things: Thing[] }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const mass = onShelf.reduce((sum, t) => sum + t.mass_kg * (assessment.shelf[t.id] ?? 0), 0)
  const litres = onShelf.reduce((sum, t) => sum + t.volume_l * (assessment.shelf[t.id] ?? 0), 0)
  return (
    <Bill>
      Take all: <b>{units.show(mass, 'mass')}</b>, <b>{units.show(litres, 'volume')}</b>
      {minutesWords(assessment.road ? onShelf.reduce((s, t) => s + (assessment.minutes_a_day[t.id] ?? 0), 0) : undefined)}
    </Bill>
  )
}

/** A bag's name with what can be done to all of it at once. */
function BagLine({ entry, inside }: { entry: CarrierEntry; inside: Placement[] }) {
  const { sheet, change } = useDesk()
  const { label } = useStow()
  const all = sheet.rig.bikes.flatMap((b) => b.carriers)
  const own = all.find((c) => c.id === entry.id)
  const twin =
    own &&
    all.find(
      (c) =>
        c.kind === own.kind &&
        c.side !== own.side &&
        c.id !== own.id &&
        c.side !== 'middle' &&
        sheet.rig.bikes.some((b) => b.carriers.includes(c) && b.carriers.includes(own)),
    )
  const pinned = inside.length > 0 && inside.every((p) => p.pinned)
  const entries: MenuEntry[] = [
    { id: 'pin', text: pinned ? 'Unpin all in it' : 'Pin all in it', off: !inside.length },
    { id: 'out', text: 'All of it to the shelf', off: !inside.length },
  ]
  if (twin) entries.push({ id: 'swap', text: `Swap with ${label(twin.id)}`, note: 'all things and food' })
  const run = (id: string) => {
    if (id === 'pin')
      void change(`${pinned ? 'Unpin' : 'Pin'} all in ${entry.label}`.slice(0, 200), {
        load: pinCarrier(sheet.load, entry.id, !pinned),
      })
    else if (id === 'swap' && twin)
      void change(`Swap ${entry.label} and ${label(twin.id)}`.slice(0, 200), {
        load: swapCarriers(sheet.load, entry.id, twin.id),
      })
    else
      void change(`Empty ${entry.label}`.slice(0, 200), {
        load: { ...sheet.load, placements: sheet.load.placements.filter((p) => p.carrier_id !== entry.id) },
      })
  }
  return (
    <RailLine>
      <Icon name="pack" size={17} />
      {entry.label}
      {own?.colour && (
        <>
          , <Swatch colour={own.colour} />
        </>
      )}
      <em>{inside.length ? '' : 'empty'}</em>
      <Menu label={`All in ${entry.label}`} entries={entries} onChoose={run}>
        <IconButton aria-label={`All in ${entry.label}`}>
          <Icon name="more" size={16} />
        </IconButton>
      </Menu>
    </RailLine>
  )
}

function FoodLine({ carrierId }: { carrierId: string }) {
  const { sheet } = useDesk()
  const share = sheet.load.food.find((f) => f.carrier_id === carrierId)
  if (!share) return null
  return (
    <p className="food">
      <svg width="14" height="14" aria-hidden="true">
        <rect width="14" height="14" fill="url(#food)" stroke="var(--ink)" />
      </svg>
      {share.tenths * 10}
      {'\u00a0'}% of the food
    </p>
  )
}
