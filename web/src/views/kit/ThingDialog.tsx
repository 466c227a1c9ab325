/** One thing with everything that placing asks of it. */
import { type ReactNode, useState } from 'react'
import { BOUNDS } from '../../api/bounds'
import type { Reach, Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Actions, Button, Dialog, Muted, Row } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'
import { REACH_WORDS } from '../../ui/icons'
import { Fold } from '../../ui/Fold'
import { Picks } from '../../ui/Picks'
import { useUnits } from '../../ui/preferences'
import { PriceLine } from './PriceLine'
import { RoleFields, roleName } from './RoleFields'
import { ServesFields, servesWords, useServices } from './ServesFields'
import { WhereFields, whereWords } from './WhereFields'

const NATURES = [
  'food',
  'fuel',
  'soap',
  'down',
  'sharp',
  'air_mat',
  'electronics',
  'dirty',
  'clean',
  'papers',
  'valuables',
  'first_aid',
  'shelter',
] as const
const NATURE_OPTIONS = NATURES.map((id) => ({ id, text: id.replace('_', ' ') }))

const EMPTY: Thing = {
  id: '',
  name: '',
  group: '',
  count: 1,
  mass_kg: 0,
  volume_l: 0,
  pressed_l: 0,
  longest_mm: 0,
  reach: 'camp',
  dry: 'any',
  wet: false,
  natures: [],
  not_with: [],
  rider_id: null,
  holds_water_l: 0,
  soft_vessel: false,
  salts: false,
  fuel: false,
  food: false,
  guessed: [],
  may_stay: false,
  because: '',
  price: null,
  inside: null,
  bag: false,
  role: null,
  where: [],
  closed: false,
  serves: [],
  fit: null,
  condition: 'trusted',
  held: 'owned',
  spare: false,
  must: false,
  last_time: '',
  unused_tours: 0,
  year: null,
  instead_of: null,
  library_id: null,
}
const FLAGS = {
  wet: 'gets wet',
  fuel: 'is fuel',
  food: 'is food that always comes',
  soft_vessel: 'soft vessel',
  salts: 'bottle for drinks with salts',
  bag: 'is a bag for other things',
  closed: 'a bag that stays shut on the way',
  may_stay: 'may stay at home if room is short',
  must: 'must come, whatever it costs',
  spare: 'a second one on purpose',
} as const
type Flag = keyof typeof FLAGS
const GUESSES = (['mass', 'volume', 'reach', 'dry', 'natures', 'serves'] as const).map((id) => ({
  id,
  text: { mass: 'mass', volume: 'volume', reach: 'moment of use', dry: 'dryness', natures: 'likeness', serves: 'what it serves' }[id],
}))

export function ThingDialog({
  thing,
  onClose,
  onKeep,
  onRemove,
  owned = false,
  more,
}: {
  thing: Thing | null
  /** Of the library: nothing of one tour is asked. */
  owned?: boolean
  more?: ReactNode
  onClose: () => void
  onKeep: (thing: Thing) => void
  onRemove: (thing: Thing) => void
}) {
  const { sheet } = useDesk()
  const units = useUnits()
  const [draft, setDraft] = useState<Thing>(thing ?? EMPTY)
  const [trouble, setTrouble] = useState('')
  const services = useServices()
  const set = (part: Partial<Thing>) => setDraft({ ...draft, ...part })
  const keep = () => {
    if (!draft.name.trim()) return setTrouble('Give the thing a name.')
    if (draft.volume_l === 0 && (!draft.where.length || draft.where.some((w) => w.how === 'packed')))
      return setTrouble('Say its packed volume: what it takes in a bag.')
    const stem =
      draft.name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .slice(0, 30) || 'thing'
    if (draft.pressed_l > draft.volume_l) return setTrouble('Pressed it cannot take more than packed.')
    let id = draft.id || stem
    for (let n = 2; !draft.id && sheet.kit.some((t) => t.id === id); n += 1) id = `${stem}-${n}`
    onKeep({ ...draft, id, name: draft.name.trim(), where: draft.inside === null ? draft.where : [] })
  }
  const hosts = sheet.kit.filter((t) => t.id !== thing?.id && t.count === 1 && t.inside === null && !sheet.kit.some((o) => o.inside === thing?.id))
  const flags = (Object.keys(FLAGS) as Flag[]).filter((f) => draft[f])
  return (
    <Dialog draft title={thing ? thing.name : 'Add a thing'} open onClose={onClose} wide>
      <Row $min={150}>
        <Field label="Name" value={draft.name} onChange={(name) => set({ name })} />
        <Field label="Kit it belongs to" value={draft.group} onChange={(group) => set({ group })} placeholder="cook, sleep, wash …" />
        <Measure label="How many" value={draft.count} quantity="count" range={BOUNDS.Thing.count} onChange={(n) => set({ count: Math.round(n) })} />
        {!owned && (
          <Choice
            label="Who carries it"
            value={draft.rider_id ?? 'shared'}
            onChange={(v) => set({ rider_id: v === 'shared' ? null : v })}
            options={[{ id: 'shared', text: 'Shared: wherever it fits' }, ...sheet.riders.map((r) => ({ id: r.id, text: r.name }))]}
          />
        )}
      </Row>
      <Row $min={130}>
        <Measure
          label="Mass of one"
          value={draft.mass_kg}
          quantity="mass"
          decimals={3}
          range={BOUNDS.Thing.mass_kg}
          onChange={(mass_kg) => set({ mass_kg })}
        />
        <Measure
          label="Packed volume of one"
          value={draft.volume_l}
          quantity="volume"
          decimals={2}
          range={BOUNDS.Thing.volume_l}
          onChange={(volume_l) => set({ volume_l })}
        />
        <Measure
          label="Pressed, at least"
          value={draft.pressed_l}
          quantity="volume"
          decimals={2}
          range={BOUNDS.Thing.pressed_l}
          onChange={(pressed_l) => set({ pressed_l })}
        />
        <Measure
          label="Longest rigid side"
          value={draft.longest_mm}
          quantity="length"
          range={BOUNDS.Thing.longest_mm}
          onChange={(longest_mm) => set({ longest_mm })}
        />
        <Measure
          label="Holds water"
          value={draft.holds_water_l}
          quantity="volume"
          decimals={2}
          range={BOUNDS.Thing.holds_water_l}
          onChange={(holds_water_l) => set({ holds_water_l })}
        />
      </Row>
      <Row $min={200}>
        <Choice<Reach>
          label="When a hand must find it"
          value={draft.reach}
          onChange={(reach) => set({ reach })}
          options={(Object.keys(REACH_WORDS) as Reach[]).map((id) => ({ id, text: REACH_WORDS[id] }))}
        />
        {!owned && (
          <Choice
            label="Rides in another thing"
            value={draft.inside ?? '-'}
            onChange={(v) => set({ inside: v === '-' ? null : v })}
            options={[
              { id: '-', text: 'No, by itself' },
              ...hosts.map((t) => ({ id: t.id, text: t.bag ? `In ${t.name}` : `In ${t.name}, taking no room` })),
            ]}
          />
        )}
        <Choice
          label="Dry"
          value={draft.dry}
          onChange={(dry) => set({ dry })}
          options={[
            { id: 'any', text: 'May get damp' },
            { id: 'own_bag', text: 'In its own dry bag' },
            { id: 'must', text: 'Must stay dry: waterproof bag' },
          ]}
        />
      </Row>
      <Picks
        label="About it"
        options={(Object.keys(FLAGS) as Flag[]).map((id) => ({ id, text: FLAGS[id] }))}
        chosen={flags}
        onChange={(v) => set(Object.fromEntries((Object.keys(FLAGS) as Flag[]).map((f) => [f, v.includes(f)])))}
      />
      <Picks label="A guess is its" options={GUESSES} chosen={draft.guessed} onChange={(guessed) => set({ guessed })} />
      <Picks label="What it is like" options={NATURE_OPTIONS} chosen={draft.natures} onChange={(natures) => set({ natures })} />
      <Picks label="Must not ride in one bag with" options={NATURE_OPTIONS} chosen={draft.not_with} onChange={(not_with) => set({ not_with })} />
      {more}
      {draft.inside === null && !owned && (
        <Fold
          summary={draft.where.length ? `Along the road: ${whereWords(draft.where, (km) => units.show(km, 'distance'))}` : 'Packed all the way'}
          open={draft.where.length > 0}
        >
          <WhereFields where={draft.where} onChange={(where) => set({ where })} />
        </Fold>
      )}
      <Fold summary={draft.role ? `What it does: ${roleName(draft.role)}` : 'Does nothing for stores, sleep or clothes'} open={draft.role !== null}>
        <RoleFields role={draft.role} onChange={(role) => set({ role })} />
      </Fold>
      <Fold summary={servesWords(draft.serves, services)} open={draft.serves.length > 0}>
        <ServesFields thing={draft} onChange={set} />
      </Fold>
      {thing && !owned && <PriceLine thing={thing} />}
      <Measure
        label={`Price of one${sheet.money ? `, ${sheet.money}` : ''}`}
        value={draft.price ?? 0}
        quantity="count"
        range={BOUNDS.Thing.price}
        onChange={(v) => set({ price: v || null })}
      />
      {draft.last_time && <Field label="Last time" value={draft.last_time} onChange={(last_time) => set({ last_time })} />}
      {!owned && <Field label="It comes because" value={draft.because} onChange={(because) => set({ because })} />}
      <Muted>
        Weigh on a kitchen scale; measure packed volume in the bag it travels in, and again pressed as far as it goes; 0 where it gives no more.
      </Muted>
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      <Actions>
        {thing && <Button onPress={() => onRemove(thing)}>{owned ? 'Remove from the library' : 'Remove from the kit'}</Button>}
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted onPress={keep}>
          Keep
        </Button>
      </Actions>
    </Dialog>
  )
}
