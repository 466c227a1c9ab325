/** The road in figures: how far, how high, how long, how cold, and what each kilogram costs on it. */
import styled from 'styled-components'
import { useDesk } from '../../api/tour'
import { airIsGuessed } from '../../instruments/air'
import { useUnits } from '../../ui/preferences'

const Big = styled.dl`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  dt {
    font-size: var(--size-note);
    color: var(--ink2);
    font-stretch: var(--width-narrow);
  }
  dd {
    margin: 0;
    font-size: var(--size-head);
    font-weight: 720;
    line-height: 24px;
    font-stretch: var(--width-text);
  }
`
/** What a kilogram costs, from the bike on which it costs least to the one on which it costs most. */
const kilogramWords = (minutes: number[]) =>
  `${[...new Set([Math.min(...minutes), Math.max(...minutes)].map((m) => m.toFixed(1)))].join('–')}\u00a0min a day`

export function RoadFigures() {
  const { assessment } = useDesk()
  const units = useUnits()
  const facts = assessment.road
  if (!facts) return <p>Say where you ride and how long, and the land takes shape.</p>
  // Nobody said what the weather is: the figure is a guess, with its width where that is known.
  const guessed = airIsGuessed(assessment)
  const give = Math.max(0, ...assessment.days.map((day) => day.night_around_k))
  return (
    <Big>
      <div>
        <dt>Distance</dt>
        <dd>{units.show(facts.length_km, 'distance')}</dd>
      </div>
      <div>
        <dt>Climb</dt>
        <dd>{facts.has_heights ? units.show(facts.ascent_m, 'elevation') : 'no heights yet'}</dd>
      </div>
      <div>
        <dt>Days</dt>
        <dd>{assessment.days.length}</dd>
      </div>
      <div>
        <dt>Highest</dt>
        <dd>
          {!facts.has_heights && '~ '}
          {units.show(facts.highest_m, 'elevation')}
        </dd>
      </div>
      <div>
        <dt>Coldest night{guessed && ', a guess'}</dt>
        <dd>
          {guessed && '~ '}
          {units.show(facts.coldest_night_c, 'temperature')}
          {guessed && give > 0 && ` ± ${units.figure(give, 'temperature_difference', 0)}`}
        </dd>
      </div>
      <div>
        <dt>Riding</dt>
        <dd>{units.show(facts.riding_hours, 'hours', 0)}</dd>
      </div>
      {assessment.bikes.length > 0 && (
        <div>
          <dt>Each extra kilogram costs</dt>
          <dd>{kilogramWords(assessment.bikes.map((b) => b.minutes_per_kg))}</dd>
        </div>
      )}
    </Big>
  )
}
