/** What a change that is tried makes better and worse; the drawing and the ribbon show it meanwhile. */
import styled from 'styled-components'
import type { Text } from '../api/client'
import { type Trial, useDesk, useTrial, useWork } from '../api/tour'
import { Button } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { useVoice } from './moment'

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

/** `ends`: the finding that it is tried against. */
export function Outcome({ trial, ends }: { trial: Trial; ends?: string }) {
  const { keep, putBack } = useTrial()
  const { sheet } = useDesk()
  const { busy } = useWork()
  const speak = useVoice()
  const units = useUnits()
  const ended = !trial.assessment.findings.some((f) => f.id === ends)
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
      <b>
        {ends !== undefined && (ended ? 'This ends it. ' : 'This does not end it. ')}
        Drawing and ribbon show it.
      </b>
      {listed('New', trial.come)}
      {listed('Worse', trial.worse)}
      {trial.come.length + trial.worse.length === 0 && <p>Nothing gets worse.</p>}
      {ends !== undefined ? trial.gone.length > 1 && <p>{trial.gone.length} findings are gone.</p> : listed('Gone', trial.gone)}
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
