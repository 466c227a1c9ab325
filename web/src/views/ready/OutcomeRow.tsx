/** One thing that can go wrong: how often, drawn where it does; opened, what decides it and what makes it rarer. */
import styled from 'styled-components'
import type { Rehearsal, RehearsedOutcome } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useGoToKm } from '../../instruments/moment'
import { dayOfKm, type Scale } from '../../instruments/ribbonScale'
import { Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { QuestionRow } from './parts'
import { badWords, countedWords } from './plays'
import { RiskPanel } from './RiskPanel'
import { SparesPanel } from './SparesPanel'

const HEIGHT = 30
const LEAST_PX = 3
const GREAT = 'var(--ink)'

const Words = styled.p`
  font-size: var(--size-small);
  line-height: 17px;
  padding-bottom: 3px;
  b {
    font-weight: 680;
  }
`
const Opened = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 330px), 1fr));
  gap: 6px 24px;
  padding: 2px 20px 12px 0;
  font-size: var(--size-small);
  line-height: 18px;
  li button {
    text-align: left;
    text-decoration: underline;
    text-underline-offset: 2px;
    min-height: 24px;
  }
`

interface Props {
  outcome: RehearsedOutcome
  told: Rehearsal
  scale: Scale
  width: number
  open: boolean
  onOpen: () => void
}

export function OutcomeRow({ outcome, told, scale, width, open, onOpen }: Props) {
  const units = useUnits()
  const { count } = outcome.counted
  return (
    <QuestionRow aria-label={outcome.name}>
      <button type="button" aria-expanded={open} onClick={onOpen}>
        <h3>{outcome.name}</h3>
      </button>
      <div>
        {width > 100 && <Marks {...{ outcome, told, scale, width }} />}
        <Words>
          <b>{countedWords(outcome.counted)}</b> {units.say(outcome.words).toLowerCase()}
          {count > 0 && `: ${badWords(outcome.middle, outcome, units)} in the middle of them, ${badWords(outcome.worst, outcome, units)} at worst`}.
          {outcome.planned && ' The plan itself has it.'}
        </Words>
        {open && <Answers outcome={outcome} />}
      </div>
    </QuestionRow>
  )
}

/** Where it happens: a bar over each stretch, as high as the share of plays. */
function Marks({ outcome, told, scale, width }: Omit<Props, 'open' | 'onOpen'>) {
  const { assessment } = useDesk()
  const { supply } = outcome
  const where = supply
    ? told.gaps.filter((gap) => gap.supply === supply).map((gap) => gap.place)
    : outcome.where.filter((place) => place.to_name === '')
  const x = (km: number) => scale.x(km, dayOfKm(assessment.days, km))
  const whole = outcome.id === 'stuck' || outcome.id === 'dark'
  return (
    <svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden="true">
      <path d={`M0 ${HEIGHT - 4}H${width}`} stroke="var(--hair)" />
      {!whole &&
        where
          .filter((place) => place.counted.count > 0)
          .map((place) => {
            const share = place.counted.count / place.counted.of
            const from = x(place.from_km)
            const wide = Math.max(x(place.to_km) - from - 1, LEAST_PX)
            const high = Math.max(share * (HEIGHT - 6), 1.5)
            return (
              <rect key={place.from_km} x={from} y={HEIGHT - 4 - high} width={wide} height={high} fill={share < 0.05 ? 'url(#hatch)' : GREAT}>
                <title>{`${place.from_name}${place.to_name ? ` to ${place.to_name}` : ''}: ${countedWords(place.counted)}`}</title>
              </rect>
            )
          })}
    </svg>
  )
}

function Answers({ outcome }: { outcome: RehearsedOutcome }) {
  const units = useUnits()
  const goToKm = useGoToKm()
  const { supply } = outcome
  return (
    <Opened>
      <div>
        {outcome.where.length > 0 && (
          <ul>
            {outcome.where.map((place) => (
              <li key={`${place.from_name}${place.from_km}`}>
                <button type="button" onClick={() => goToKm(place.from_km)}>
                  {place.from_name}
                  {place.to_name && ` to ${place.to_name}`}
                </button>
                : {countedWords(place.counted)}, {badWords(place.middle, outcome, units)} in the middle
              </li>
            ))}
          </ul>
        )}
        {outcome.more && <More more={outcome.more} />}
        {outcome.decides.length > 0 ? (
          <p>Mostly {outcome.decides.map((one) => `${one.words} (${Math.round(one.share * 100)} % of it)`).join(', ')} decides how bad it gets.</p>
        ) : (
          <Muted>{outcome.counted.count === 0 ? 'It did not happen.' : 'No single draw decides it: too few plays, or a little of everything.'}</Muted>
        )}
      </div>
      {supply && <RiskPanel supply={supply} />}
      {outcome.id === 'stuck' && <SparesPanel />}
    </Opened>
  )
}

/** A little more from where it runs out most often. */
function More({ more }: { more: NonNullable<RehearsedOutcome['more']> }) {
  const units = useUnits()
  if (more.amount === 0) return <p>Leaving {more.name} every vessel is full already.</p>
  return (
    <p>
      With {units.show(more.amount, more.quantity)} more from {more.name}: {countedWords(more.counted)} there.
    </p>
  )
}
