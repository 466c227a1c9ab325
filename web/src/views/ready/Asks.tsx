/** What a question asks for, answered or not; each can be answered otherwise than by a thing, with its reason. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Assessment, TourSheet } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Button } from '../../ui/controls'
import { Choice, Field } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'

type Ask = Assessment['asks'][number]
type How = TourSheet['answers'][number]['how']
const HOW: Record<How, string> = { by_choice: 'done otherwise', not_for_me: 'not for me' }

const List = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 1px 24px;
  padding: 4px 20px 10px 0;
  font-size: var(--size-note);
  line-height: 16px;
  li {
    display: grid;
    grid-template-columns: 18px 1fr auto;
    align-items: start;
    gap: 4px;
    padding: 2px 0;
  }
  small {
    color: var(--ink2);
    font-size: inherit;
  }
`
const Form = styled.form`
  display: grid;
  grid-template-columns: 150px 1fr;
  gap: 6px;
  grid-column: 1 / -1;
  > div {
    grid-column: 1 / -1;
    display: flex;
    justify-content: flex-end;
    gap: 6px;
  }
`

export function Asks({ asks }: { asks: Ask[] }) {
  const { sheet } = useDesk()
  if (!asks.length) return null
  const names = new Map([...sheet.riders.map((r) => [r.id, r.name] as const), ...sheet.rig.bikes.map((b) => [b.id, b.name] as const)])
  return (
    <List aria-label="What is asked for">
      {asks.map((ask) => (
        <Line key={ask.id} ask={ask} whose={names.get(ask.rider_id ?? ask.bike_id ?? '') ?? ''} />
      ))}
    </List>
  )
}

function Line({ ask, whose }: { ask: Ask; whose: string }) {
  const { sheet, change } = useDesk()
  const units = useUnits()
  const [how, setHow] = useState<How | null>(null)
  const [reason, setReason] = useState('')
  const others = sheet.answers.filter((a) => a.ask_id !== ask.id)
  const things = sheet.kit.filter((t) => ask.thing_ids.includes(t.id)).map((t) => t.name)
  const own = ask.state === 'by_choice' || ask.state === 'not_for_me'
  const keep = () =>
    how &&
    void change(`Answer: ${ask.words}`.slice(0, 200), { answers: [...others, { ask_id: ask.id, how, reason: reason.trim() }] }).then(
      (done) => done && setHow(null),
    )
  return (
    <li title={units.say(ask.because)}>
      <span aria-hidden="true">{ask.state === 'answered' ? '☑' : own ? '☒' : '☐'}</span>
      <span>
        {whose && `${whose}: `}
        {ask.words}{' '}
        <small>
          {ask.state === 'answered'
            ? things.join(', ')
            : own
              ? `${HOW[ask.state as How]}: ${ask.reason}`
              : ask.state === 'too_deep'
                ? `${things.join(', ')}, out of reach`
                : things.length
                  ? `${ask.lacks} of ${ask.days} days without`
                  : 'nobody has it'}
        </small>
      </span>
      {own ? (
        <Button $small onPress={() => void change('Ask again', { answers: others })}>
          Ask again
        </Button>
      ) : (
        ask.state !== 'answered' &&
        how === null && (
          <Button $small onPress={() => setHow('by_choice')}>
            Not needed because …
          </Button>
        )
      )}
      {how !== null && (
        <Form
          onSubmit={(e) => {
            e.preventDefault()
            if (reason.trim()) keep()
          }}
        >
          <Choice label="Not needed" value={how} onChange={setHow} options={(Object.keys(HOW) as How[]).map((id) => ({ id, text: HOW[id] }))} />
          <Field label="Because" value={reason} onChange={setReason} maxLength={200} />
          <div>
            <Button $small onPress={() => setHow(null)}>
              Cancel
            </Button>
            <Button $small $wanted type="submit" isDisabled={!reason.trim()}>
              Keep
            </Button>
          </div>
        </Form>
      )}
    </li>
  )
}
