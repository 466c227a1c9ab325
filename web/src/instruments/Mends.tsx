/** What helps against a finding: each can be tried, and is then kept or put back. */
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { api, type Finding, type Mend, Problem, type Text } from '../api/client'
import { type Trial, useDesk, useTrial, useWork } from '../api/tour'
import { Button, Muted } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { useVoice } from './moment'

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
const Tried = styled.div`
  background: var(--tag);
  border: 2px solid var(--ink);
  border-radius: 3px;
  padding: 6px 8px;
  margin: 4px 0;
  font-size: var(--size-note);
  line-height: 16px;
  h4 {
    font-size: var(--size-note);
    font-weight: 680;
    margin-top: 4px;
  }
  li {
    padding-left: 8px;
  }
  > div {
    display: flex;
    gap: 6px;
    justify-content: flex-end;
  }
`
/** Findings told by their sentences after a change, the rest as a number. */
const TOLD = 3

/** Whether a mend changes the tour; else it only says what to do. */
const changes = (mend: Mend): boolean =>
  Object.entries(mend).some(
    ([part, value]) => part !== 'name' && part !== 'consequence' && (Array.isArray(value) ? value.length > 0 : value !== null),
  )

export function Mends({ finding }: { finding: Finding }) {
  const { tour } = useDesk()
  const { trial, attempt } = useTrial()
  const { busy } = useWork()
  const units = useUnits()
  const { data, error, isPending } = useQuery({
    queryKey: ['mends', tour.id, tour.revision, finding.id],
    queryFn: () => api.mends(tour.id, finding.id),
    staleTime: Infinity,
  })
  const mends = data?.mends ?? finding.mends
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
              {trying && <Outcome trial={trial} finding={finding} />}
            </li>
          )
        })}
      </List>
      {isPending && <Muted role="status">Looking for what helps …</Muted>}
      {error && <Muted role="alert">What helps could not be worked out: {error instanceof Problem ? error.body.detail : 'no answer'}.</Muted>}
    </>
  )
}

/** What a mend that is tried makes better and worse; the drawing and the ribbon show it meanwhile. */
function Outcome({ trial, finding }: { trial: Trial; finding: Finding }) {
  const { keep, putBack } = useTrial()
  const { sheet } = useDesk()
  const { busy } = useWork()
  const speak = useVoice()
  const units = useUnits()
  const ended = !trial.assessment.findings.some((f) => f.id === finding.id)
  const things = sheet.kit.reduce((sum, thing) => sum + thing.count, 0)
  const listed = (title: string, texts: Text[]) =>
    texts.length > 0 && (
      <>
        <h4>{title}</h4>
        <ul>
          {texts.slice(0, TOLD).map((text, i) => (
            <li key={i}>{units.say(text)}</li>
          ))}
          {texts.length > TOLD && <li>and {texts.length - TOLD} more</li>}
        </ul>
      </>
    )
  return (
    <Tried role="status">
      <b>{ended ? 'This ends it.' : 'This does not end it.'} Drawing and ribbon show it.</b>
      {listed('New', trial.come)}
      {listed('Worse', trial.worse)}
      {trial.come.length + trial.worse.length === 0 && <p>Nothing gets worse.</p>}
      {trial.gone.length > 1 && <p>{trial.gone.length} findings are gone.</p>}
      <ul>
        {trial.figures.map((figure) => (
          <li key={figure.name}>
            {units.show(figure.before, figure.quantity)} → <strong>{units.show(figure.after, figure.quantity)}</strong> {figure.name}
            {figure.name === 'things stay out' && `, of ${things}`}
          </li>
        ))}
      </ul>
      <div>
        <Button
          $small
          onPress={() => {
            putBack()
            speak(`${trial.name}: put back.`)
          }}
        >
          Put back
        </Button>
        <Button $small $wanted isDisabled={busy !== ''} onPress={() => void keep().then((done) => done && speak(`${trial.name}: kept.`))}>
          Keep
        </Button>
      </div>
    </Tried>
  )
}
