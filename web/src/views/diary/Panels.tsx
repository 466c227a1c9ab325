/** What a pressed verb opens in place: planned amounts with steppers, things to tap, and one Keep. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Entry, Now } from '../../api/client'
import { useDesk } from '../../api/tour'
import type { Draft } from '../../offline/queue'
import { Button, FileButton, Muted, Section } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { ACHES, CHANGED } from '../../api/bounds'
import { Dot } from '../../ui/icons'
import { VerbIcon } from './VerbIcon'
import { amountOf, VERBS } from './words'

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  border-top: 3px solid var(--ink);
  padding-top: 8px;
  p {
    margin-left: auto;
  }
`
const Amount = styled.li`
  display: grid;
  grid-template-columns: 1fr 72px 84px 72px;
  gap: 8px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--hair);
  button {
    height: 58px;
    border: 1.5px solid var(--ink);
    border-radius: 3px;
    background: var(--tag);
    font-size: 24px;
    font-weight: 700;
    text-align: center;
  }
  strong {
    text-align: center;
    font-size: 19px;
    font-weight: 720;
  }
`
const Things = styled.ul`
  max-height: 320px;
  overflow-y: auto;
  button {
    width: 100%;
    min-height: 56px;
    padding: 6px 8px;
    border-bottom: 1px solid var(--hair);
    font-weight: 620;
    display: flex;
    justify-content: space-between;
    gap: 12px;
    align-items: center;
  }
  button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--tag);
  }
`
const Keep = styled(Button)`
  width: 100%;
  min-height: 64px;
  font-size: 17px;
  margin-top: 10px;
`
const Three = styled.div`
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  padding: 8px 0;
  button {
    min-height: 72px;
    font-size: 16px;
  }
`
export type OpenVerb = Exclude<Entry['verb'], 'undo' | 'weighed' | 'checked' | 'verdict'>
interface PanelProps {
  verb: OpenVerb
  now: Now
  gone: Set<string>
  onKeep: (drafts: Draft[], picture?: Blob) => void
  onClose: () => void
}

/** Supplies that a verb is about, where it is about any. */
const OF_SUPPLIES: Partial<Record<OpenVerb, (about: string) => boolean>> = {
  used: (about) => about !== 'water' && about !== 'food',
  ate: (about) => about === 'food',
  drank: (about) => about === 'water',
  filled: (about) => about === 'water' || about === 'fuel',
  left: () => true,
}
const OF_THINGS: OpenVerb[] = ['sent_home', 'broke', 'ran_out', 'lost', 'given_away', 'swapped', 'used', 'wet_through']
const FIGURES: Partial<Record<OpenVerb, { label: string; unit: string; about: string; first: number; step: number }>> = {
  packed_in: { label: 'Packed in', unit: 'min', about: '', first: 30, step: 1 },
  charged: { label: 'Charged', unit: 'Wh', about: 'power', first: 40, step: 5 },
  wore: { label: 'Pads worn by', unit: 'mm', about: 'pads', first: 0.5, step: 0.1 },
  pressure: { label: 'Pumped to', unit: 'bar', about: '', first: 3.5, step: 0.1 },
}

export function VerbPanel(props: PanelProps) {
  const { verb, onClose } = props
  return (
    <section aria-label={VERBS[verb]}>
      <Head>
        <VerbIcon verb={verb} size={34} />
        <Section>{VERBS[verb]}</Section>
        <p>
          <Button onPress={onClose}>Close</Button>
        </p>
      </Head>
      {OF_SUPPLIES[verb] && <Amounts {...props} />}
      {OF_THINGS.includes(verb) && <ThingList {...props} />}
      {verb === 'bought' && <Bought {...props} />}
      {verb === 'slept' && <Slept {...props} />}
      {verb === 'spent' && <Spent {...props} />}
      {verb === 'mended' && <Mended {...props} />}
      {FIGURES[verb] && <Figure {...props} />}
      {verb === 'hurt' && <Hurt {...props} />}
      {['note', 'hazard', 'oiled', 'washed'].includes(verb) && <Words {...props} />}
    </section>
  )
}

/** Planned amounts of supplies, changed by large buttons and kept at once. */
function Amounts({ verb, now, onKeep }: PanelProps) {
  const { sheet } = useDesk()
  const units = useUnits()
  const [amounts, setAmounts] = useState<Record<string, number>>({})
  const offered = now.defaults.filter((d) => OF_SUPPLIES[verb]?.(d.about))
  const of = (d: Now['defaults'][number]) => amounts[d.about] ?? d.amount
  const set = (d: Now['defaults'][number], by: number) =>
    setAmounts({ ...amounts, [d.about]: Math.max(0, Math.round((of(d) + by * d.step) * 1000) / 1000) })
  if (!offered.length) return <Muted>The plan has nothing of this kind.</Muted>
  const kept = offered.filter((d) => of(d) > 0 || verb === 'left')
  return (
    <>
      <Muted>Amounts as planned for a day.</Muted>
      <ul>
        {offered.map((d) => (
          <Amount key={d.about}>
            <b>{d.name}</b>
            <button type="button" aria-label={`Less ${d.name}`} onClick={() => set(d, -1)}>
              −
            </button>
            <strong>{amountOf(d.about, of(d), sheet, units)}</strong>
            <button type="button" aria-label={`More ${d.name}`} onClick={() => set(d, 1)}>
              +
            </button>
          </Amount>
        ))}
      </ul>
      <Keep $wanted isDisabled={!kept.length} onPress={() => onKeep(kept.map((d) => ({ verb, about: d.about, amount: of(d) })))}>
        {kept.length > 1 ? `Keep all ${kept.length}` : 'Keep it'}
      </Keep>
    </>
  )
}

/** Things to tap; what is tapped is kept. */
function ThingList({ verb, gone, onKeep, now }: PanelProps) {
  const { sheet } = useDesk()
  const units = useUnits()
  const [find, setFind] = useState('')
  const [chosen, setChosen] = useState<string | null>(null)
  const [words, setWords] = useState('')
  const [picture, setPicture] = useState<File | null>(null)
  const used = new Map(now.used.map((u) => [u.about, u.days.length]))
  const things = sheet.kit
    .filter((t) => !gone.has(t.id) && t.name.toLowerCase().includes(find.trim().toLowerCase()) && !(verb === 'used' && t.role?.does === 'used_up'))
    .sort((a, b) => (used.get(b.id) ?? 0) - (used.get(a.id) ?? 0) || a.name.localeCompare(b.name))
  return (
    <>
      <Field label="Which thing" value={find} onChange={setFind} />
      <Things>
        {things.map((t) => (
          <li key={t.id}>
            <button type="button" aria-pressed={chosen === t.id} onClick={() => setChosen(chosen === t.id ? null : t.id)}>
              <span>
                {t.count > 1 ? `${t.count} × ` : ''}
                {t.name}
              </span>
              <span>{units.show(t.mass_kg * t.count, 'mass', 2)}</span>
            </button>
          </li>
        ))}
        {!things.length && <Muted>No thing of this tour is called so.</Muted>}
      </Things>
      {chosen && (
        <>
          <Field label="Note" value={words} onChange={setWords} maxLength={400} />
          <PictureButton picture={picture} onPicture={setPicture} />
        </>
      )}
      <Keep $wanted isDisabled={!chosen} onPress={() => chosen && onKeep([{ verb, about: chosen, note: words }], picture ?? undefined)}>
        {chosen ? `Keep: ${VERBS[verb].toLowerCase()}, ${sheet.kit.find((t) => t.id === chosen)?.name}` : 'Tap a thing'}
      </Keep>
    </>
  )
}

function Bought({ now, onKeep }: PanelProps) {
  const { sheet } = useDesk()
  const food = now.defaults.find((d) => d.about === 'food')
  const [kg, setKg] = useState(food?.amount ?? 1)
  const [money, setMoney] = useState<number | null>(null)
  const [name, setName] = useState('')
  const thing = name.trim()
  return (
    <>
      <Field label="A thing, or leave it empty for food" value={name} onChange={setName} maxLength={120} />
      <Measure label={thing ? 'One weighs' : 'Food'} value={kg} quantity="mass" decimals={2} onChange={setKg} />
      <Measure
        label={`Paid, ${sheet.money || 'money'}`}
        value={money}
        quantity="count"
        decimals={2}
        onChange={setMoney}
        onClear={() => setMoney(null)}
      />
      <Keep
        $wanted
        onPress={() => onKeep([thing ? { verb: 'bought', name: thing, kg, amount: 1, money } : { verb: 'bought', about: 'food', amount: kg, money }])}
      >
        Keep it
      </Keep>
    </>
  )
}

function Slept({ onKeep }: PanelProps) {
  return (
    <Three>
      {(['cold', 'right', 'warm'] as const).map((word) => (
        <Button key={word} onPress={() => onKeep([{ verb: 'slept', word }])}>
          {{ cold: 'Cold', right: 'Just right', warm: 'Too warm' }[word]}
        </Button>
      ))}
    </Three>
  )
}

function Spent({ onKeep }: PanelProps) {
  const { sheet } = useDesk()
  const [money, setMoney] = useState<number | null>(null)
  const [word, setWord] = useState('food')
  return (
    <>
      <Choice
        label="For"
        value={word}
        options={Object.entries({
          food: 'Food',
          eaten_out: 'Eating out',
          parts: 'Parts',
          night: 'A night',
          travel: 'Travel',
          other: 'Something else',
        }).map(([id, text]) => ({ id, text }))}
        onChange={setWord}
      />
      <Measure label={`Paid, ${sheet.money || 'money'}`} value={money} quantity="count" decimals={2} onChange={setMoney} />
      <Keep $wanted isDisabled={money === null} onPress={() => onKeep([{ verb: 'spent', word, money }])}>
        Keep it
      </Keep>
    </>
  )
}

function Mended({ onKeep }: PanelProps) {
  return (
    <Three>
      {Object.entries({ puncture: 'A puncture', spoke: 'A spoke', chain: 'The chain', bolt: 'A bolt', bag: 'A bag', other: 'Something else' }).map(
        ([about, words]) => (
          <Button key={about} onPress={() => onKeep([{ verb: 'mended', about }])}>
            {words}
          </Button>
        ),
      )}
    </Three>
  )
}

/** Where it hurts and after how long; or what was changed against it. */
function Hurt({ onKeep }: PanelProps) {
  const [where, setWhere] = useState('')
  return (
    <>
      <Three>
        {ACHES.map((about) => (
          <Button key={about} aria-pressed={where === about} onPress={() => setWhere(about)}>
            <Dot on={where === about} />
            {about}
          </Button>
        ))}
      </Three>
      {where && (
        <>
          <Muted>After so many hours of riding:</Muted>
          <Three>
            {[1, 2, 3, 4, 6, 8].map((hours) => (
              <Button key={hours} onPress={() => onKeep([{ verb: 'hurt', about: where, amount: hours }])}>
                {hours}&nbsp;h
              </Button>
            ))}
          </Three>
          <Muted>Or changed against it, to see whether it gets better:</Muted>
          <Three>
            {CHANGED.map((word) => (
              <Button key={word} onPress={() => onKeep([{ verb: 'hurt', about: where, word }])}>
                {word}
              </Button>
            ))}
          </Three>
        </>
      )}
      <Muted>Numb for more than a day, or pain that stays: change something, rest, and ask a doctor.</Muted>
    </>
  )
}

function Figure({ verb, onKeep }: PanelProps) {
  const figure = FIGURES[verb]
  const [amount, setAmount] = useState(figure?.first ?? 0)
  if (!figure) return null
  const set = (by: number) => setAmount(Math.max(0, Math.round((amount + by * figure.step) * 100) / 100))
  return (
    <>
      <ul>
        <Amount>
          <b>{figure.label}</b>
          <button type="button" aria-label="Less" onClick={() => set(-1)}>
            −
          </button>
          <strong>
            {amount}&nbsp;{figure.unit}
          </strong>
          <button type="button" aria-label="More" onClick={() => set(1)}>
            +
          </button>
        </Amount>
      </ul>
      <Keep $wanted onPress={() => onKeep([{ verb, about: figure.about, amount }])}>
        Keep it
      </Keep>
    </>
  )
}

function Words({ verb, onKeep }: PanelProps) {
  const [words, setWords] = useState('')
  const [picture, setPicture] = useState<File | null>(null)
  return (
    <>
      <Field label={verb === 'note' ? 'Note' : 'More of it, if you like'} value={words} onChange={setWords} maxLength={2000} />
      <PictureButton picture={picture} onPicture={setPicture} />
      <Keep $wanted isDisabled={verb === 'note' && !words.trim() && !picture} onPress={() => onKeep([{ verb, note: words }], picture ?? undefined)}>
        Keep it
      </Keep>
    </>
  )
}

function PictureButton({ picture, onPicture }: { picture: File | null; onPicture: (file: File) => void }) {
  return (
    <p style={{ marginTop: 8 }}>
      <FileButton accept={['image/*']} onFile={onPicture}>
        {picture ? `Picture: ${picture.name}` : 'Add a picture'}
      </FileButton>
      <Muted as="span"> Where it was taken is stripped.</Muted>
    </p>
  )
}
