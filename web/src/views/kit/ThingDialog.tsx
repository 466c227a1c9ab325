/** One thing: what it is, its mass, how many, whose; below in words what follows, each word opening its own control. */
import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useRef, useState } from 'react'
import styled from 'styled-components'
import { BLANK, BOUNDS } from '../../api/bounds'
import { api, type Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useKinds } from '../../api/useKinds'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Row } from '../../ui/controls'
import { Combo } from '../../ui/Combo'
import { Choice, Field, Measure } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { usePhone } from '../../ui/usePhone'
import { ALL_ASPECTS, aspect, type AspectId, type Guessable } from './aspects'
import { AspectPanel } from './AspectPanel'
import { PriceLine } from './PriceLine'
import { useServices, wordsOf } from './ServesFields'

const ALL_MARKS: Guessable[] = ['mass', 'volume', 'reach', 'dry', 'natures', 'serves', 'role']
/** A thing that is not kept yet is asked about under this name. */
const NEW = 'new'

const Sentences = styled.div`
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  border-top: 3px solid var(--ink);
  .lead,
  .words {
    min-height: 32px;
    padding-top: 7px;
    border-bottom: 1px solid var(--hair);
  }
  .lead {
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
  }
  .words {
    display: flex;
    flex-wrap: wrap;
    padding: 0;
    gap: 0 14px;
  }
  .words > button {
    min-height: 32px;
    padding: 3px 1px;
    line-height: 20px;
    border: 0;
    background: none;
    color: var(--ink);
    font-size: var(--size-text);
    text-align: left;
    text-decoration: underline;
    text-decoration-color: var(--edge);
    text-underline-offset: 4px;
    cursor: pointer;
  }
  .words > button[aria-expanded='true'] {
    font-weight: 720;
    text-decoration-color: var(--ink);
    text-decoration-thickness: 2px;
  }
  .also > button {
    font-size: var(--size-small);
    color: var(--ink2);
  }
  > section {
    margin: 6px 0 8px;
  }
  ${phone} {
    grid-template-columns: 52px minmax(0, 1fr);
    .words > button {
      min-height: 44px;
    }
    .lead {
      padding-top: 13px;
    }
  }
`
const LINES = ['Takes', 'Wanted', 'Kept', 'It', 'Comes'] as const

interface Props {
  thing: Thing | null
  /** Of the library: nothing of one tour is asked. */
  owned?: boolean
  more?: ReactNode
  onClose: () => void
  onKeep: (thing: Thing) => void
  onRemove: (thing: Thing) => void
}

interface Trouble {
  words: string
  of: (thing: Thing) => boolean
  said?: AspectId
}
/** What keeps a thing from being kept, and where it is said: the one met on keeping is shown for as long as it is so. */
const TROUBLES: Trouble[] = [
  { words: 'Give the thing a name.', of: (t) => !t.name.trim() },
  {
    words: 'Say its packed volume: what it takes in a bag.',
    of: (t) => t.volume_l === 0 && (!t.where.length || t.where.some((w) => w.how === 'packed')),
    said: 'room',
  },
  { words: 'Pressed it cannot take more than packed.', of: (t) => t.pressed_l > t.volume_l, said: 'room' },
]

export function ThingDialog({ thing, onClose, onKeep, onRemove, owned = false, more }: Props) {
  const { sheet } = useDesk()
  const units = useUnits()
  const services = useServices()
  const { draft, kind, likeliest, set, named, is, settled } = useDraft(thing)
  const [met, setMet] = useState<Trouble | null>(null)
  /** What is open, and under which line it was opened: it stays there, whatever is told of the thing meanwhile. */
  const [open, setOpen] = useState<{ id: AspectId; under: (typeof LINES)[number] | 'Add' } | null>(null)
  const small = usePhone()
  const [adding, setAdding] = useState(false)
  const saying = { sheet, show: units.show, service: (id: string) => wordsOf(services, id).replace(/^(an?|the) /, '') }
  const unfold = (id: AspectId) => setOpen({ id, under: aspect(id).words(draft, saying) ? aspect(id).line : 'Add' })
  const trouble = met?.of(draft) && met.words
  const keep = async () => {
    const told = await settled()
    const wrong = TROUBLES.find((one) => one.of(told))
    setMet(wrong ?? null)
    if (wrong) return wrong.said && unfold(wrong.said)
    const stem =
      told.name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .slice(0, 30) || 'thing'
    let id = told.id || stem
    for (let n = 2; !told.id && sheet.kit.some((t) => t.id === id); n += 1) id = `${stem}-${n}`
    onKeep({ ...told, id, name: told.name.trim(), where: told.inside === null ? told.where : [] })
  }
  const shown = ALL_ASPECTS.filter((id) => !(owned && aspect(id).ofTour) && !(id === 'where' && draft.inside !== null))
  const said = shown.map((id) => ({ id, words: aspect(id).words(draft, saying) }))
  const also = said.filter(({ id, words }) => !words && aspect(id).add)
  const word = (id: AspectId, words: string) => (
    <button
      key={id}
      type="button"
      aria-expanded={open?.id === id}
      aria-controls={open?.id === id ? 'aspect' : undefined}
      onClick={() => (open?.id === id ? setOpen(null) : unfold(id))}
    >
      {words}
    </button>
  )
  const panel = (line: string) => open?.under === line && <AspectPanel key={open.id} id={open.id} thing={draft} onChange={set} />
  const holds = draft.role?.does === 'fuel_vessel' || draft.role?.does === 'used_up' || draft.holds_water_l > 0
  return (
    <Dialog draft title={thing ? thing.name : 'Add a thing'} open onClose={onClose} wide>
      <Row $min={220}>
        <Field label="Name" value={draft.name} onChange={(name) => set({ name })} onBlur={named} />
        <KindField kind={kind} likeliest={likeliest} onChoose={is} />
      </Row>
      <Row $min={110}>
        <Measure
          label={`Mass of one${holds ? ', empty' : ''}${draft.guessed.includes('mass') ? ', a guess' : ''}`}
          value={draft.mass_kg}
          quantity="mass"
          decimals={3}
          range={BOUNDS.Thing.mass_kg}
          onChange={(mass_kg) => set({ mass_kg }, 'mass')}
        />
        <Measure label="How many" value={draft.count} quantity="count" range={BOUNDS.Thing.count} onChange={(n) => set({ count: Math.round(n) })} />
        {!owned && (
          <Choice
            label="Whose"
            value={draft.rider_id ?? 'shared'}
            onChange={(v) => set({ rider_id: v === 'shared' ? null : v })}
            options={[{ id: 'shared', text: 'Shared' }, ...sheet.riders.map((r) => ({ id: r.id, text: r.name }))]}
          />
        )}
      </Row>
      <Sentences>
        {LINES.map((line) => {
          const here = said.filter(({ id, words }) => words && aspect(id).line === line)
          return here.length === 0 && open?.under !== line ? null : (
            <Sentence key={line} line={line} panel={panel(line)}>
              {here.map(({ id, words }) => {
                const { mark } = aspect(id)
                return word(id, `${mark && draft.guessed.includes(mark) ? '~ ' : ''}${words}`)
              })}
            </Sentence>
          )
        })}
        <Sentence line="Add" also panel={panel('Add')}>
          {small && !adding ? (
            <button type="button" onClick={() => setAdding(true)}>
              more of it …
            </button>
          ) : (
            also.map(({ id }) => word(id, aspect(id).add))
          )}
        </Sentence>
      </Sentences>
      {more}
      {thing && !owned && <PriceLine thing={thing} />}
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      <Actions>
        {thing && <Button onPress={() => onRemove(thing)}>{owned ? 'Remove from the library' : 'Remove from the kit'}</Button>}
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted onPress={() => void keep()}>
          Keep
        </Button>
      </Actions>
    </Dialog>
  )
}

function Sentence({ line, also, panel, children }: { line: string; also?: boolean; panel: ReactNode; children: ReactNode }) {
  return (
    <>
      <span className="lead" aria-hidden="true">
        {line}
      </span>
      <div role="group" aria-label={line} className={also ? 'words also' : 'words'}>
        {children}
      </div>
      {panel}
    </>
  )
}

function KindField({ kind, likeliest, onChoose }: { kind: string | null; likeliest: string[]; onChoose: (id: string) => void }) {
  const { kinds } = useKinds()
  const entries = kinds.map((k) => ({ id: k.id, text: k.name, also: k.called, note: k.domain, icon: k.reach }))
  const first = kind === null ? likeliest : []
  const sorted = [...first.flatMap((id) => entries.filter((e) => e.id === id)), ...entries.filter((e) => !first.includes(e.id))]
  return <Combo label="What it is" value={kind} entries={sorted} onChange={onChoose} placeholder="not known yet: type or choose" />
}

/** A thing while it is changed: what nobody said of it is told by its name, or by what it is. */
function useDraft(thing: Thing | null) {
  const { sheet } = useDesk()
  const [draft, setDraft] = useState<Thing>(thing ?? BLANK.Thing)
  const [told, setTold] = useState<{ kind: string | null; likeliest: string[] } | null>(null)
  const { data: found } = useQuery({
    queryKey: ['told', thing],
    queryFn: () => api.thingTold({ thing: thing ?? BLANK.Thing, kind: null, about: [], riders: [] }),
    enabled: thing !== null,
  })
  const { kind, likeliest } = told ?? found ?? { kind: null, likeliest: [] }
  const now = useRef(draft)
  /** What nobody said of it. */
  const silent = useRef<Guessable[]>(thing ? [] : ALL_MARKS)
  const pending = useRef<Promise<void>>(Promise.resolve())
  const put = (next: Thing) => {
    now.current = next
    setDraft(next)
  }
  /** One question after the other, each about the thing as it is when its turn comes; what is changed until its answer stands. */
  const ask = (kind: string | null, about: () => Guessable[]) => {
    pending.current = pending.current
      .then(async () => {
        const asked = now.current
        const named = { ...asked, id: asked.id || NEW, name: asked.name.trim() || '?' }
        const answer = await api.thingTold({ thing: named, kind, about: about(), riders: sheet.riders.map((r) => r.id) })
        setTold(answer)
        const meanwhile = Object.fromEntries(Object.entries(now.current).filter(([key, v]) => v !== asked[key as keyof Thing]))
        put({ ...answer.thing, id: asked.id, ...(asked.name.trim() ? {} : { name: asked.name }), ...meanwhile })
      })
      // Where it cannot be asked nothing is told, and everything can be said by hand.
      .catch(() => undefined)
  }
  /** What a field is set to is said, not told. */
  const set = (part: Partial<Thing>, mark?: Guessable) => {
    put({ ...now.current, ...part, guessed: (part.guessed ?? now.current.guessed).filter((g) => g !== mark) })
    silent.current = silent.current.filter((m) => m !== mark)
    // Another thing done is another kind, as far as that can be told.
    if (mark === 'role' || mark === 'serves') ask(null, () => [])
    if (mark === 'mass' && silent.current.includes('volume')) ask(kind, () => silent.current)
  }
  const named = () => {
    if (thing === null && now.current.name.trim()) ask(kind, () => silent.current)
  }
  /** All but what was measured follows from what it is. */
  const is = (kind: string) => {
    const { guessed, mass_kg, volume_l } = now.current
    const said = { mass: mass_kg > 0, volume: volume_l > 0 }
    const measured = (m: Guessable) => (m === 'mass' || m === 'volume') && said[m] && !guessed.includes(m) && !silent.current.includes(m)
    silent.current = ALL_MARKS.filter((m) => !measured(m))
    setTold({ kind, likeliest: [] })
    ask(kind, () => silent.current)
  }
  const settled = () => pending.current.then(() => now.current)
  return { draft, kind, likeliest, set, named, is, settled }
}
