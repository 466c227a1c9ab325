/** How often the tour goes wrong, where, and what makes it rare: drawn over its days, a row for each thing that can go wrong. */
import { useState } from 'react'
import styled from 'styled-components'
import type { PlayTold, Rehearsal, RehearsedOutcome } from '../../api/client'
import { useDesk } from '../../api/tour'
import type { Scale } from '../../instruments/ribbonScale'
import { Button, Muted, RailLine } from '../../ui/controls'
import { Fold } from '../../ui/Fold'
import { HowFar } from '../../ui/notices'
import { phone } from '../../ui/theme'
import { Fan } from './Fan'
import { OnePlay } from './OnePlay'
import { OutcomeRow } from './OutcomeRow'
import { countedWords } from './plays'
import { TwoPlans } from './TwoPlans'
import { useRehearsal } from './useRehearsal'
import { YearTable } from './YearTable'

const Top = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 8px 20px;
  border-bottom: 1px solid var(--edge);
  p {
    flex: 1 1 420px;
    line-height: 19px;
  }
  ${phone} {
    padding: 8px 14px;
  }
`
const Below = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 380px), 1fr));
  gap: 14px 28px;
  padding: 12px 20px;
  ${phone} {
    padding: 12px 14px;
  }
`

export function Rehearsed({ scale, width }: { scale: Scale; width: number }) {
  const { assessment } = useDesk()
  const { data, error, playing, surer } = useRehearsal()
  const [open, setOpen] = useState<RehearsedOutcome['id'] | null>(null)
  const [play, setPlay] = useState<PlayTold | null>(null)
  if (error) return <Muted style={{ padding: 20 }}>{error.message}</Muted>
  if (!assessment.days.length)
    return (
      <Top>
        <p>
          Say where you ride and who rides: then the tour is played some hundred times, with weather, thirst, springs and faults as chance has them.
        </p>
      </Top>
    )
  if (!data)
    return (
      <Top>
        <p role="status">Playing the tour, with weather, thirst, springs and faults as chance has them …</p>
      </Top>
    )
  const { told, wanted, more } = data
  return (
    <>
      <Top>
        <p>{firstWords(told)} A share is of this model: it knows neither you nor that year. What stays sure is to carry more and to turn back.</p>
        {playing && told.plays < wanted ? (
          <HowFar what={`${told.plays} of ${wanted} played`} share={told.plays / wanted} />
        ) : (
          told.plays < more && (
            <Button $small className="no-print" onPress={surer}>
              Play {more}
            </Button>
          )
        )}
      </Top>
      {told.outcomes.map((outcome) => (
        <OutcomeRow
          key={outcome.id}
          {...{ outcome, told, scale, width }}
          open={open === outcome.id}
          onOpen={() => setOpen(open === outcome.id ? null : outcome.id)}
        />
      ))}
      <Fan {...{ told, play, scale, width }} />
      <Below>
        <div>
          <RailLine>What the year may do</RailLine>
          <YearTable year={told.year} />
        </div>
        <div>
          <RailLine>One play</RailLine>
          <OnePlay told={told} play={play} onPlay={setPlay} />
        </div>
        <div className="no-print">
          <RailLine>Held against another plan</RailLine>
          <TwoPlans />
        </div>
      </Below>
      <div style={{ padding: '0 20px 14px' }}>
        <Fold summary="What is left to chance">
          <ul>
            {told.drawn.map((row) => (
              <li key={row.words} style={{ fontSize: 'var(--size-small)', padding: '3px 0' }}>
                <b>{row.words[0]?.toUpperCase() + row.words.slice(1)}</b>: {row.how}.{' '}
                <span style={{ color: 'var(--ink2)' }}>{row.widths.map((one) => `${one}.`).join(' ')}</span>
              </li>
            ))}
          </ul>
        </Fold>
        <Muted>Not played: {told.leaves_out.join('; ')}. Widths and chances can be changed under Road, among what is assumed.</Muted>
      </div>
    </>
  )
}

function firstWords(told: Rehearsal) {
  const planned = told.outcomes.filter((outcome) => outcome.planned)
  const fine = told.fine.count === 0 ? `Something went wrong in all ${told.plays} plays.` : `In ${countedWords(told.fine)} plays nothing went wrong.`
  if (!planned.length) return fine
  const names = planned.map((outcome) => outcome.name.toLowerCase()).join(', ')
  return `${fine} The plan itself, with nothing left to chance, already has: ${names}. Mend that first.`
}
