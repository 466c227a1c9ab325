/** What the names of a list leave open and much hangs on, one line each, the usual answer there already: Enter takes it and goes on. */
import { useRef } from 'react'
import * as Aria from 'react-aria-components'
import styled from 'styled-components'
import type { KitPreview, KitText } from '../../api/client'
import { Muted, RailLine } from '../../ui/controls'
import { Measure } from '../../ui/fields'
import { usePreferences } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { unitOf } from '../../ui/units'

export type Question = KitPreview['questions'][number]
export type Answers = NonNullable<KitText['answers']>

const Lines = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 2px 24px;
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`
const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 10px;
  min-height: 44px;
  border-bottom: 1px solid var(--hair);
  > :last-child:not(.choices) {
    width: 130px;
  }
  .of {
    min-width: 0;
  }
  .of b {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .choices {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
  }
  label.choice {
    display: inline-flex;
    align-items: center;
    gap: 4px;
    min-height: 32px;
    cursor: pointer;
  }
  label.choice::before {
    content: '';
    width: 12px;
    height: 12px;
    border: 1.5px solid var(--ink);
    border-radius: 50%;
  }
  label.choice[data-selected]::before {
    background: var(--ink);
    box-shadow: inset 0 0 0 2px var(--tag);
  }
  label.choice[data-focus-visible] {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
`
const WORDS: Record<Question['asks'], string> = {
  rider: 'whose it is',
  kind: 'what it is',
  comfort_c: 'comfort on its label',
  burns: 'what it burns',
  holds_l: 'water it holds',
  holds_kg: 'fuel it holds',
  holds_wh: 'by its label',
  r_value: 'R value on its label',
}
const SHORT: Record<Question['asks'], string> = {
  rider: 'Of',
  kind: 'Is',
  comfort_c: 'Comfort',
  burns: 'Burns',
  holds_l: 'Holds',
  holds_kg: 'Holds',
  holds_wh: 'Holds',
  r_value: 'R value',
}

const DECIMALS: Partial<Record<Question['asks'], number>> = { holds_l: 2, holds_kg: 2, r_value: 1 }

interface Props {
  questions: Question[]
  answers: Answers
  onAnswer: (answer: Answers[number]) => void
  /** After Enter on the last one. */
  onLast: () => void
}

export const keyOf = (q: { thing_id: string; asks: string }): string => `${q.asks} ${q.thing_id}`

export function Doubts({ questions, answers, onAnswer, onLast }: Props) {
  const { system } = usePreferences()
  const lines = useRef<HTMLDivElement>(null)
  if (!questions.length) return null
  const valueOf = (q: Question) => answers.find((a) => keyOf(a) === keyOf(q))?.value ?? q.value
  const next = (n: number) => {
    const fields = [...(lines.current?.children ?? [])].slice(n + 1)
    const field = fields[0]?.querySelector<HTMLElement>('input:checked, input')
    if (field) field.focus()
    else onLast()
  }
  return (
    <>
      <RailLine>
        In doubt
        <em>Enter takes what stands there and goes on</em>
      </RailLine>
      <Lines ref={lines} role="group" aria-label="In doubt">
        {questions.map((q, n) => {
          const answer = (value: number | string) => onAnswer({ thing_id: q.thing_id, asks: q.asks, value })
          return (
            <Line
              key={keyOf(q)}
              onKeyUp={(e) => {
                const chosen = q.choices[Number(e.key) - 1]
                if (chosen) answer(chosen.id)
                if (e.key !== 'Enter') return
                if (!answers.some((a) => keyOf(a) === keyOf(q))) answer(q.value)
                next(n)
              }}
            >
              <span className="of">
                <b>{q.name}</b>
                <Muted as="span">
                  {WORDS[q.asks]}
                  {q.unit && unitOf(q.unit, system) && `, ${unitOf(q.unit, system)}`}
                </Muted>
              </span>
              {q.choices.length ? (
                <Aria.RadioGroup aria-label={`${q.name}: ${WORDS[q.asks]}`} value={String(valueOf(q))} onChange={answer} className="choices">
                  {q.choices.map((choice, k) => (
                    <Aria.Radio key={choice.id} value={choice.id} className="choice">
                      <Muted as="span">{k + 1}</Muted> {choice.words}
                    </Aria.Radio>
                  ))}
                </Aria.RadioGroup>
              ) : (
                <Measure
                  label={`${SHORT[q.asks]}: ${q.name}`}
                  hidden
                  value={Number(valueOf(q))}
                  quantity={q.unit ?? 'count'}
                  range={q.asks === 'comfort_c' ? [-40, 30] : [0, Infinity]}
                  decimals={DECIMALS[q.asks]}
                  onChange={answer}
                />
              )}
            </Line>
          )
        })}
      </Lines>
    </>
  )
}
