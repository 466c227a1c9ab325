/** A thing in the shelf's lists: picked up by pointer, finger or key, with a menu of where it can go. */
import { memo, type RefObject, useState } from 'react'
import type { Thing } from '../api/client'
import { useDesk } from '../api/tour'
import { MenuButton, MenuChoices, type MenuEntry } from '../ui/Menu'
import { IconButton } from '../ui/controls'
import { Icon } from '../ui/icons'
import { useUnits } from '../ui/preferences'
import { moveGroup, pinThing, withNested } from './loadEdits'
import { Tag } from './Tag'
import { usePlaces, useStow } from './useStow'
import { WhyDialog } from './WhyDialog'

interface Row {
  thing: Thing
  count: number
  from: string | null
  pinned?: boolean
}

/** A thing and how many of it, where it lies. It is drawn anew only where something of it changed: what can be done is asked of `acts`. */
export const ThingRow = memo(function ThingRow({
  thing,
  count,
  from,
  pinned,
  minutes,
  held,
  several,
  acts,
}: Row & { minutes: number | undefined; held: boolean; several: boolean; acts: RefObject<ReturnType<typeof useStow>> }) {
  const mine = { thingId: thing.id, count, from }
  const others = () => acts.current.inHand.filter((h) => h.thingId !== thing.id || h.from !== from)
  return (
    <Tag
      thing={thing}
      count={count}
      minutes={minutes}
      held={held}
      pinned={pinned}
      onPress={(more) => (held ? acts.current.putBack(mine) : acts.current.pickUp(mine, more || several))}
      onDragStart={() => !held && acts.current.pickUp(mine, several)}
      onDrop={(to) => acts.current.move(held || several ? [...others(), mine] : [mine], to)}
      menu={<MoveMenu thing={thing} count={count} from={from} pinned={pinned} onNear={() => acts.current.foresee(mine)} />}
    />
  )
})

function MoveMenu({ onNear, ...row }: Row & { onNear: () => void }) {
  const [asked, setAsked] = useState(false)
  return (
    <>
      {asked && <WhyDialog thing={row.thing} from={row.from} onClose={() => setAsked(false)} />}
      <MenuButton menu={<Moves {...row} onAsk={() => setAsked(true)} />}>
        <IconButton aria-label={`Move ${row.thing.name}`} onPressStart={onNear} onFocus={onNear}>
          <Icon name="more" size={16} />
        </IconButton>
      </MenuButton>
    </>
  )
}

/** Where a thing can go, and what else can be done with it. */
function Moves({ thing, count, from, pinned, onAsk }: Row & { onAsk: () => void }) {
  const { sheet, change, assessment } = useDesk()
  const { move, entries, label, pickUp } = useStow()
  const mine = sheet.rig.bikes.find((b) => b.carriers.some((c) => c.id === from))?.carriers
  const at = mine?.find((c) => c.id === from)
  const twin = mine?.find((c) => c.kind === at?.kind && c.id !== from && c.side !== 'middle' && c.side !== at?.side)?.id
  const places = usePlaces([{ thingId: thing.id, count, from }])
  const units = useUnits()
  const ordered = [...places.keys(), ...entries.map((e) => e.id).filter((id) => !places.has(id))]
  const listed: MenuEntry[] = ordered.flatMap((id) => {
    const entry = entries.find((e) => e.id === id)
    if (!entry || id === from) return []
    const place = places.get(id)
    const note = place?.reason ? units.say(place.reason) : place?.fits ? 'fits' : undefined
    return [{ id, text: entry.label, note }]
  })
  listed.unshift({
    id: '#why',
    text: from === null ? 'What would each place cost?' : 'Why here?',
    note: 'and what every other place would cost',
  })
  if (from !== null) {
    listed.unshift({ id: '#shelf', text: 'Back to the shelf' })
    if (thing.group) listed.unshift({ id: '#pinkit', text: `${pinned ? 'Unpin' : 'Pin'} all of “${thing.group}” here` })
    listed.unshift({ id: '#pin', text: pinned ? 'Unpin' : 'Pin it here', note: 'a proposal leaves pinned things where they are' })
    if (count > 1) listed.unshift({ id: '#one', text: 'Take one in hand' })
    if (count > 1 && twin) listed.unshift({ id: '#split', text: `Half of them to ${label(twin)}` })
  }
  const kit = sheet.kit.filter((t) => thing.group && t.group === thing.group)
  const together = kit
    .filter((t) => t.inside === null)
    .map((t) => ({
      id: t.id,
      count:
        from === null
          ? (assessment.shelf[t.id] ?? 0)
          : sheet.load.placements.filter((p) => p.thing_id === t.id && p.carrier_id === from).reduce((n, p) => n + p.count, 0),
    }))
    .filter((t) => t.count > 0)
    .flatMap((t) => withNested(sheet.kit, t.id, t.count))
  if (together.length > 1) {
    listed.push(
      ...ordered
        .flatMap((id) => {
          const entry = entries.find((e) => e.id === id)
          return entry && id !== from ? [{ id: `#kit:${id}`, text: `Whole kit “${thing.group}” to ${entry.label}` }] : []
        })
        .slice(0, 6),
    )
  }
  return (
    <MenuChoices
      label={`Move ${thing.name}`}
      entries={listed}
      onChoose={(id) => {
        if (id === '#why') onAsk()
        else if (id === '#shelf') move([{ thingId: thing.id, count, from }], null)
        else if (id === '#split' && twin && from !== null) move([{ thingId: thing.id, count: Math.floor(count / 2), from }], twin)
        else if (id.startsWith('#kit:'))
          void change(`Move the kit ${thing.group} to ${label(id.slice(5))}`.slice(0, 200), {
            load: moveGroup(sheet.load, together, from, id.slice(5)),
          })
        else if (id === '#pinkit' && from !== null) {
          const here = kit.reduce((load, t) => pinThing(load, t.id, from, !pinned), sheet.load)
          void change(`${pinned ? 'Unpin' : 'Pin'} the kit ${thing.group} in ${label(from)}`.slice(0, 200), { load: here })
        } else if (id === '#one') pickUp({ thingId: thing.id, count: 1, from })
        else if (id === '#pin' && from !== null) {
          void change(`${pinned ? 'Unpin' : 'Pin'} ${thing.name}`.slice(0, 200), {
            load: pinThing(sheet.load, thing.id, from, !pinned),
          })
        } else move([{ thingId: thing.id, count, from }], id)
      }}
    />
  )
}
