/** How the loaded bike stands and rides at its worst moments, and what on it does not fit. */
import styled from 'styled-components'
import type { BikeTrace } from '../../api/client'
import { Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { show } from '../../ui/units'

const Facts = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 4px 14px;
  margin-top: 4px;
  dt {
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
    line-height: 15px;
  }
  dd {
    margin: 0;
    font-size: var(--size-lead);
    font-weight: 700;
    font-stretch: var(--width-text);
    line-height: 19px;
  }
  small {
    font-weight: 500;
    font-size: var(--size-note);
    color: var(--ink2);
  }
`
const Misfits = styled.ul`
  li {
    padding: 3px 0;
    font-size: var(--size-small);
    line-height: 17px;
    border-top: 1px solid var(--hair);
  }
  b {
    font-weight: 650;
  }
`

type Tyre = BikeTrace['stance']['front_tyre']

export function StancePanel({ trace }: { trace: BikeTrace }) {
  const units = useUnits()
  const s = trace.stance
  const slope = (v: number) => units.show(v, 'grade')
  const bars = (t: Tyre) => `${show(t.bar, 'pressure', 'metric')}, ${show(t.bar, 'pressure', 'imperial')}`
  const about = (t: Tyre) =>
    `${t.low_bar.toFixed(1)} to ${t.high_bar.toFixed(1)}; bears ${s.most_bar.toFixed(1)}\u00a0bar${t.note ? `. ${units.say(t.note)}` : ''}`
  const facts: [string, string, string][] = [
    ['Width with bags', units.show(s.width_mm, 'length'), ''],
    [
      'Front lifts uphill from',
      slope(s.lift_gradient),
      s.pushed_lift_gradient === null ? 'pushed at the bar it stays down' : `pushed ${slope(s.pushed_lift_gradient)}`,
    ],
    ['Rear lifts braking at', `${s.pitch_over_ms2.toFixed(1)}\u00a0m/s²`, 'on the flat'],
    [
      'Low gear holds up to',
      s.climb_gradient === null ? 'any slope' : slope(s.climb_gradient),
      s.steepest === null ? '' : `road has ${slope(s.steepest)}`,
    ],
    ['Front tyre, to begin with', bars(s.front_tyre), about(s.front_tyre)],
    ['Rear tyre, to begin with', bars(s.rear_tyre), about(s.rear_tyre)],
    ['Mass spread fore and aft', units.show(s.spread_mm, 'length'), 'less turns in quicker'],
    ['Swings with the pedals', units.show(s.swinging_kg, 'mass'), ''],
    ['To be checked', `${s.bolts} bolts, ${s.straps} straps`, s.tied_on ? `${s.tied_on} tied on, at every stop` : ''],
  ]
  if (s.unhitched_front_share !== null)
    facts.push([
      'Front share, trailer off',
      units.show(s.unhitched_front_share, 'share'),
      `steady ${units.figure(trace.steady_low, 'share')} to ${units.show(trace.steady_high, 'share')}`,
    ])
  return (
    <section aria-label="How it stands">
      <Facts>
        {facts.map(([name, value, note]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>
              {value} <small>{note}</small>
            </dd>
          </div>
        ))}
      </Facts>
      <Misfits>
        {trace.clashes.map((c) => (
          <li key={`${c.rule}${c.carrier_id ?? c.support_id}`}>
            <b>{units.say(c.sentence)}</b> {units.say(c.reason)}
          </li>
        ))}
      </Misfits>
      {!trace.clashes.length && (
        <Muted>
          Nothing touches tyres, knees, heels, bars or cables, as far as the figures tell. Turn the bar and pedal backwards before you believe it.
        </Muted>
      )}
      <Muted>Tyre pressures are a starting point, give or take a fifth; never above what tyre and rim say.</Muted>
    </section>
  )
}
