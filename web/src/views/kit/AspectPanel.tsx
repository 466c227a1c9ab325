/** The controls of one aspect of a thing. */
import { type ReactNode, useEffect, useRef } from 'react'
import styled from 'styled-components'
import { BOUNDS } from '../../api/bounds'
import type { Reach, Thing, TourSheet } from '../../api/client'
import { useDesk } from '../../api/tour'
import { focusFirstField } from '../../ui/Dialog'
import { Muted, Row } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'
import { REACH_WORDS } from '../../ui/icons'
import { Picks } from '../../ui/Picks'
import {
  ALL_FLAGS,
  ALL_VESSEL_FLAGS,
  aspect,
  type AspectId,
  CONDITIONS,
  DRY,
  FLAGS,
  type Guessable,
  HELD,
  NATURES,
  natureWords,
  VESSEL_FLAGS,
} from './aspects'
import { RoleFields } from './RoleFields'
import { ServesFields } from './ServesFields'
import { WhereFields } from './WhereFields'

const Box = styled.section`
  grid-column: 1 / -1;
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 10px 12px 12px;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  background: var(--tag);
`
const NATURE_OPTIONS = NATURES.map((id) => ({ id, text: natureWords(id) }))
const optionsOf = <T extends string>(words: Record<T, string>) => (Object.keys(words) as T[]).map((id) => ({ id, text: words[id] }))
const GUESSED: Record<Guessable, string> = {
  mass: 'the mass',
  volume: 'the volume',
  reach: 'moment and length',
  dry: 'how dry',
  natures: 'what it is like',
  serves: 'what it serves as',
  role: 'what it does',
}

interface Panel {
  sheet: TourSheet
  thing: Thing
  onChange: (part: Partial<Thing>) => void
}

/** The controls of each aspect. */
const FIELDS: Record<AspectId, (of: Panel) => ReactNode> = {
  room: ({ thing, onChange }) => (
    <>
      <Row>
        <Measure
          label="Packed volume of one"
          value={thing.volume_l}
          quantity="volume"
          decimals={2}
          range={BOUNDS.Thing.volume_l}
          onChange={(volume_l) => onChange({ volume_l })}
        />
        <Measure
          label="Pressed, at least"
          value={thing.pressed_l}
          quantity="volume"
          decimals={2}
          range={BOUNDS.Thing.pressed_l}
          onChange={(pressed_l) => onChange({ pressed_l })}
        />
      </Row>
      <Muted>Measure it in the bag it travels in, and again pressed as far as it goes; 0 where it gives no more.</Muted>
    </>
  ),
  longest: ({ thing, onChange }) => (
    <Row>
      <Measure
        label="Longest rigid side"
        value={thing.longest_mm}
        quantity="length"
        range={BOUNDS.Thing.longest_mm}
        onChange={(longest_mm) => onChange({ longest_mm })}
      />
      <Measure
        label="Thickness, its middle side"
        value={thing.thick_mm}
        quantity="length"
        range={BOUNDS.Thing.thick_mm}
        onChange={(thick_mm) => onChange({ thick_mm })}
      />
    </Row>
  ),
  reach: ({ thing, onChange }) => (
    <Choice<Reach> label="When a hand must find it" value={thing.reach} onChange={(reach) => onChange({ reach })} options={optionsOf(REACH_WORDS)} />
  ),
  where: ({ thing, onChange }) => <WhereFields where={thing.where} onChange={(where) => onChange({ where })} />,
  inside: ({ sheet, thing, onChange }) => {
    const outer = sheet.kit.some((o) => o.inside === thing.id)
    const hosts = outer ? [] : sheet.kit.filter((t) => t.id !== thing.id && t.count === 1 && t.inside === null)
    return (
      <>
        <Choice
          label="Rides in another thing"
          value={thing.inside ?? '-'}
          onChange={(v) => onChange({ inside: v === '-' ? null : v })}
          options={[
            { id: '-', text: 'No, by itself' },
            ...hosts.map((t) => ({ id: t.id, text: t.bag ? `In ${t.name}` : `In ${t.name}, taking no room` })),
          ]}
        />
        {outer && <Muted>Others ride in it already.</Muted>}
      </>
    )
  },
  group: ({ thing, onChange }) => (
    <Field label="Kit it belongs to" value={thing.group} onChange={(group) => onChange({ group })} placeholder="cook, sleep, wash …" />
  ),
  dry: ({ thing, onChange }) => <Choice label="Kept dry" value={thing.dry} onChange={(dry) => onChange({ dry })} options={optionsOf(DRY)} />,
  natures: ({ thing, onChange }) => (
    <Picks label="What it is like" options={NATURE_OPTIONS} chosen={thing.natures} onChange={(natures) => onChange({ natures })} />
  ),
  not_with: ({ thing, onChange }) => (
    <Picks label="Must not ride in one bag with" options={NATURE_OPTIONS} chosen={thing.not_with} onChange={(not_with) => onChange({ not_with })} />
  ),
  role: ({ thing, onChange }) => <RoleFields role={thing.role} onChange={(role) => onChange({ role })} />,
  serves: ({ thing, onChange }) => <ServesFields thing={thing} onChange={onChange} />,
  water: ({ thing, onChange }) => (
    <>
      <Measure
        label="Holds water"
        value={thing.holds_water_l}
        quantity="volume"
        decimals={2}
        range={BOUNDS.Thing.holds_water_l}
        onChange={(holds_water_l) => onChange({ holds_water_l })}
      />
      <Picks
        label="It is a"
        options={optionsOf(VESSEL_FLAGS)}
        chosen={ALL_VESSEL_FLAGS.filter((f) => thing[f])}
        onChange={(v) => onChange(Object.fromEntries(ALL_VESSEL_FLAGS.map((f) => [f, v.includes(f)])))}
      />
    </>
  ),
  about: ({ thing, onChange }) => (
    <Picks
      label="About it"
      options={optionsOf(FLAGS)}
      chosen={ALL_FLAGS.filter((f) => thing[f])}
      onChange={(v) => onChange(Object.fromEntries(ALL_FLAGS.map((f) => [f, v.includes(f)])))}
    />
  ),
  because: ({ thing, onChange }) => <Field label="It comes because" value={thing.because} onChange={(because) => onChange({ because })} />,
  state: ({ thing, onChange }) => (
    <Row $min={150}>
      <Choice label="Its condition" value={thing.condition} onChange={(condition) => onChange({ condition })} options={optionsOf(CONDITIONS)} />
      <Choice label="How you have it" value={thing.held} onChange={(held) => onChange({ held })} options={optionsOf(HELD)} />
      <Measure
        label="Not used on the last tours"
        value={thing.unused_tours}
        quantity="count"
        range={BOUNDS.Thing.unused_tours}
        onChange={(n) => onChange({ unused_tours: Math.round(n) })}
      />
      <Measure
        label="Bought in (0: not known)"
        value={thing.year ?? 0}
        quantity="count"
        range={[0, BOUNDS.Thing.year[1]]}
        onChange={(n) => onChange({ year: n < BOUNDS.Thing.year[0] ? null : Math.round(n) })}
      />
    </Row>
  ),
  price: ({ sheet, thing, onChange }) => (
    <Measure
      label={`Price of one${sheet.money ? `, ${sheet.money}` : ''}`}
      value={thing.price ?? 0}
      quantity="count"
      range={BOUNDS.Thing.price}
      onChange={(v) => onChange({ price: v || null })}
    />
  ),
  last_time: ({ thing, onChange }) => <Field label="Last time" value={thing.last_time} onChange={(last_time) => onChange({ last_time })} />,
}

interface Props {
  id: AspectId
  thing: Thing
  onChange: (part: Partial<Thing>, mark?: Guessable) => void
}

export function AspectPanel({ id, thing, onChange }: Props) {
  const { sheet } = useDesk()
  const box = useRef<HTMLElement>(null)
  useEffect(() => focusFirstField(box.current), [])
  const { mark } = aspect(id)
  const marks: Guessable[] = id === 'room' ? ['mass', 'volume'] : mark ? [mark] : []
  return (
    <Box ref={box} id="aspect">
      {FIELDS[id]({ sheet, thing, onChange: (part) => onChange(part, mark) })}
      {marks.length > 0 && (
        <Picks
          label="Guessed"
          options={marks.map((m) => ({ id: m, text: GUESSED[m] }))}
          chosen={marks.filter((m) => thing.guessed.includes(m))}
          onChange={(chosen) => onChange({ guessed: [...thing.guessed.filter((g) => !marks.includes(g)), ...chosen] })}
        />
      )}
    </Box>
  )
}
