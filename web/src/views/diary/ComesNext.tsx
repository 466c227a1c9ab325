/** What is taken on next of each supply, kept as planned with one touch. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Entry, Now } from '../../api/client'
import type { Draft } from '../../offline/queue'
import { Button, Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { sign } from '../../ui/theme'
import type { OpenVerb } from './Panels'
import type { Shown } from './useDiary'
import { HERE_KM } from './Where'

type Planned = Now['planned'][number]
export const Lines = styled.ul`
  border-top: 3px solid var(--ink);
  margin: 8px 0;
  li {
    display: grid;
    grid-template-columns: 62px 1fr 78px;
    gap: 8px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    min-height: 46px;
    font-size: var(--size-small);
    line-height: 16px;
  }
  b {
    font-family: ${sign};
    font-stretch: 112%;
    font-weight: 750;
    font-size: var(--size-small);
  }
  small {
    display: block;
    color: var(--ink2);
    font-size: var(--size-note);
  }
  li > button:not(:last-child) {
    text-align: left;
    min-height: 44px;
    text-decoration: underline dotted 1px;
    text-underline-offset: 3px;
    span {
      display: block;
    }
  }
`
const FETCH: Record<Planned['verb'], { name: string; verb: OpenVerb }> = {
  fill: { name: 'Fill', verb: 'filled' },
  buy: { name: 'Buy', verb: 'bought' },
  refuel: { name: 'Refuel', verb: 'filled' },
  charge: { name: 'Charge', verb: 'charged' },
  restock: { name: 'Restock', verb: 'bought' },
}

interface Props {
  planned: Planned[]
  entries: Shown[]
  onDone: (draft: Draft) => void
  onOther: (verb: OpenVerb) => void
}

export function ComesNext({ planned, entries, onDone, onOther }: Props) {
  return (
    <Lines aria-label="What comes next">
      {planned.map((p) => (
        <Line
          key={`${p.verb} ${p.at_km}`}
          planned={p}
          noted={entries.some((one) => isOf(one.entry, p))}
          onDone={() => onDone({ verb: FETCH[p.verb].verb, about: p.supply, amount: p.amount, km: p.at_km })}
          onOther={() => onOther(FETCH[p.verb].verb)}
        />
      ))}
    </Lines>
  )
}

/** Whether an entry says that something planned was taken on: one deed, one entry, sent or not. */
const isOf = (entry: Entry, planned: Planned) =>
  entry.verb === FETCH[planned.verb].verb && entry.about === planned.supply && entry.km !== null && Math.abs(entry.km - planned.at_km) < HERE_KM

interface LineProps {
  planned: Planned
  noted: boolean
  onDone: () => void
  onOther: () => void
}

/** What is taken on next: one touch keeps what is planned, a touch on the words asks for another amount. */
function Line({ planned, noted, onDone, onOther }: LineProps) {
  const units = useUnits()
  const { name } = FETCH[planned.verb]
  const [pressed, press] = useState(false)
  const done = noted || pressed
  return (
    <li>
      <b>{name}</b>
      <button type="button" onClick={onOther}>
        <span className="unseen">{name}, another amount than </span>
        {units.say(planned.words)}
        <Muted as="span">{units.say(planned.where)}</Muted>
      </button>
      <Button
        isDisabled={done}
        onPress={() => {
          press(true)
          onDone()
        }}
        aria-label={done ? `${name}: noted` : `${name} as planned: done`}
      >
        {done ? 'Noted' : 'Done'}
      </Button>
    </li>
  )
}
