/** What helps against a finding: each can be tried, and is then kept or put back. */
import { useState } from 'react'
import styled from 'styled-components'
import { api, type Finding, type Mend, Problem } from '../api/client'
import { useTrial, useWork } from '../api/tour'
import { useWorkedOut } from '../api/workedOut'
import { Button, Muted } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { Outcome } from './Outcome'

const List = styled.ul`
  > li {
    border-top: 1px solid var(--hair);
    padding: 5px 0;
  }
  > li > .offer {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 8px;
    align-items: center;
    min-height: 44px;
  }
  b {
    display: block;
    font-weight: 620;
    font-size: var(--size-small);
    line-height: 17px;
    font-stretch: var(--width-text);
  }
  small {
    font-size: var(--size-note);
    line-height: 16px;
    color: var(--ink2);
    font-stretch: var(--width-narrow);
    display: block;
  }
`
/** Whether a mend changes the tour; else it only says what to do. */
const changes = (mend: Mend): boolean =>
  Object.entries(mend).some(
    ([part, value]) => part !== 'name' && part !== 'consequence' && (Array.isArray(value) ? value.length > 0 : value !== null),
  )

/** `asked`: the rider opened this finding. What stands open by itself is worked out when it is asked for: each mend is tried, which takes seconds. */
export function Mends({ finding, asked = true }: { finding: Finding; asked?: boolean }) {
  const { trial, attempt } = useTrial()
  const { busy } = useWork()
  const units = useUnits()
  const [wanted, want] = useState(false)
  const enabled = asked || wanted
  const { data, error, isPending } = useWorkedOut('mends', (id, signal) => api.mends(id, finding.id, signal), {
    about: [finding.id],
    wanted: enabled,
  })
  if (!enabled && !data)
    return (
      <Button $small onPress={() => want(true)}>
        What helps
      </Button>
    )
  const mends = data?.mends ?? []
  return (
    <>
      <List>
        {mends.map((mend, i) => {
          const name = units.say(mend.name)
          const trying = trial?.name === name
          return (
            <li key={`${i} ${name}`}>
              <div className="offer">
                <span>
                  <b>{name}</b>
                  <small>{units.say(mend.consequence)}</small>
                </span>
                {changes(mend) && !trying && (
                  <Button $small isDisabled={busy !== '' || isPending} onPress={() => void attempt(mend, name)}>
                    Try
                  </Button>
                )}
              </div>
              {trying && <Outcome trial={trial} ends={finding.id} />}
            </li>
          )
        })}
      </List>
      {isPending && <Muted role="status">Looking for what helps …</Muted>}
      {error && <Muted role="alert">What helps could not be worked out: {error instanceof Problem ? error.body.detail : 'no answer'}.</Muted>}
    </>
  )
}
