/** How seldom a supply may run out, what that carries, and the plan for it. */
import { useState } from 'react'
import styled from 'styled-components'
import { api, type Progress, type RiskPlan } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { Button, Muted } from '../../ui/controls'
import { HowFar } from '../../ui/notices'
import { useUnits } from '../../ui/preferences'
import { OnceIn } from './OnceIn'
import { countedWords } from './plays'

const [WIDE, HIGH, LEFT, FOOT] = [340, 150, 34, 22]

const Curve = styled.svg`
  width: 100%;
  max-width: 460px;
  height: auto;
  display: block;
  .fine {
    font-size: 11px;
    font-stretch: var(--width-narrow);
    fill: var(--ink2);
  }
`

export function RiskPanel({ supply }: { supply: 'water' | 'food' | 'fuel' }) {
  const { sheet, change } = useDesk()
  const { busy } = useWork()
  const [once, setOnce] = useState<number | null>(null)
  const [progress, setProgress] = useState<Progress | null>(null)
  const { data, error, isFetching } = useWorkedOut<RiskPlan | null>(
    'risk',
    (id, signal) => api.riskPlan(id, { supply, risk: 1 / (once ?? 1) }, setProgress, signal),
    { about: [supply, String(once)], wanted: once !== null },
  )
  const take = (plan: RiskPlan) => {
    const others = sheet.stores.steps.filter((step) => step.supply !== supply)
    void change(`Carry ${supply} for once in ${once}`, { stores: { ...sheet.stores, steps: [...others, ...plan.steps] } })
  }
  return (
    <div className="no-print">
      <OnceIn what={`${supply[0]?.toUpperCase()}${supply.slice(1)} may run out`} once={once} onChoose={setOnce} />
      {once === null && <Muted>Choose, and the risk is shared out over all stretches so that the least is carried.</Muted>}
      {isFetching && <HowFar what="Playing plans" share={progress?.share ?? 0} />}
      {error && <p role="alert">{error.message}</p>}
      {data && once !== null && (
        <>
          <Against plan={data} risk={1 / once} />
          <Words plan={data} once={once} />
          {data.steps.length > 0 && (
            <Button $small $wanted isDisabled={busy !== ''} onPress={() => take(data)}>
              Take this plan
            </Button>
          )}
        </>
      )}
    </div>
  )
}

function Words({ plan, once }: { plan: RiskPlan; once: number }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const length = assessment.road?.length_km ?? 1
  const more = (plan.figures.kg_km - plan.stands.kg_km) / length
  const missed = plan.reached.count / plan.plays > 1 / once
  return (
    <p style={{ paddingBottom: 4 }}>
      Now {countedWords(plan.now)}, with this plan <b>{countedWords(plan.reached)}</b>, for{' '}
      {units.show(Math.abs(more), 'mass', Math.abs(more) < 0.1 ? 2 : 1)} {more >= 0 ? 'more' : 'less'} on average.
      {missed && ` Once in ${once} cannot be had by carrying: shut shops, late days and what the day asks take the rest.`}
      {plan.cannot.length > 0 && ` Not counted: ${plan.cannot.length} stretches on which it runs out whatever you carry.`}
      {plan.steps.length === 0 && ' The plan that stands is this one.'}
    </p>
  )
}

/** What is carried against how often it runs out: dots are plans by rule. */
function Against({ plan, risk }: { plan: RiskPlan; risk: number }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const length = assessment.road?.length_km ?? 1
  const all = [...plan.curve, ...plan.plans]
  const share = (point: (typeof all)[number]) => point.counted.count / point.counted.of
  const most = Math.max(...all.map((point) => point.kg_km))
  const often = Math.max(...all.map(share), risk)
  const x = (kgKm: number) => LEFT + (kgKm / most) * (WIDE - LEFT - 8)
  const y = (of: number) => 10 + ((often - of) / often) * (HIGH - 10 - FOOT)
  const curve = [...plan.curve].sort((a, b) => a.kg_km - b.kg_km)
  return (
    <Curve
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label={`Of plans that carry ${units.show(most / length, 'mass')} and less on average, how often they run out`}
    >
      <path d={`M${LEFT} 4V${HIGH - FOOT}H${WIDE - 4}`} fill="none" stroke="var(--edge)" />
      <path d={`M${LEFT} ${y(risk)}H${WIDE - 4}`} stroke="var(--now)" strokeWidth={3} />
      <text x={LEFT - 4} y={14} textAnchor="end" className="fine">
        {Math.round(often * 100)} %
      </text>
      <text x={LEFT - 4} y={HIGH - FOOT} textAnchor="end" className="fine">
        0 %
      </text>
      <text x={WIDE - 6} y={HIGH - 6} textAnchor="end" className="fine">
        {units.show(most / length, 'mass')} carried on average
      </text>
      <path
        d={curve.map((p, i) => `${i ? 'L' : 'M'}${x(p.kg_km).toFixed(1)} ${y(share(p)).toFixed(1)}`).join('')}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      {plan.plans.map((p, i) => (
        <g key={p.name}>
          <circle cx={x(p.kg_km)} cy={y(share(p))} r={4} fill={i === 0 ? 'var(--ink)' : 'var(--tag)'} stroke="var(--ink)" strokeWidth={1.6} />
          <text
            x={x(p.kg_km) + (x(p.kg_km) > WIDE * 0.6 ? -7 : 7)}
            y={Math.min(y(share(p)) - 4, HIGH - FOOT - 4)}
            textAnchor={x(p.kg_km) > WIDE * 0.6 ? 'end' : 'start'}
            className="fine"
          >
            {p.name}
          </text>
        </g>
      ))}
    </Curve>
  )
}
