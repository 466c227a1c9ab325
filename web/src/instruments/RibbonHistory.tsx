/** Over the weight as it was ridden: the planned line, dashed; what changed the load for good; weighings; and what is to come. */
import type { LoadHistory, Moments } from '../api/client'
import type { useUnits } from '../ui/preferences'
import { stepsByDay, weighedTogether } from './loadSteps'
import type { Scale } from './ribbonScale'

export interface Told {
  planned: Moments
  history: LoadHistory
  /** Up to here it is ridden. */
  at_km: number
}
/** Where the weight begins: below the sign and two lines of words. */
export const HISTORY_TOP = 76
const [FIRST_LINE, LINE, LINES] = [50, 14, 2]
const WORD_PX = 6.2

interface Props {
  told: Told
  scale: Scale
  xOf: (km: number) => number
  yOf: (kg: number) => number
  foot: number
  units: ReturnType<typeof useUnits>
}

/** What is not ridden yet stands back. */
export function ToCome({ told, scale, xOf, foot }: Pick<Props, 'told' | 'scale' | 'xOf' | 'foot'>) {
  const [left, right] = [scale.edges[0] ?? 0, scale.edges.at(-1) ?? 0]
  const here = Math.max(left, Math.min(xOf(told.at_km), right))
  if (here >= right) return null
  return <rect x={here} y={HISTORY_TOP - 8} width={right - here} height={foot - HISTORY_TOP + 8} fill="var(--sky)" opacity={0.55} />
}

export function RibbonHistory({ told: { planned, history, at_km }, scale, xOf, yOf, foot, units }: Props) {
  const [left, right] = [scale.edges[0] ?? 0, scale.edges.at(-1) ?? 0]
  const inside = (x: number) => x >= left && x <= right
  const line = planned.km.flatMap((km, i) => (inside(xOf(km)) ? [`${xOf(km).toFixed(1)} ${yOf(planned.total_kg[i] ?? 0).toFixed(1)}`] : []))
  const here = Math.max(left, Math.min(xOf(at_km), right))
  const taken: { line: number; from: number; to: number }[] = []
  const shown = stepsByDay(history).flatMap((step) => {
    const x = scale.x(step.km, step.day)
    if (!inside(x)) return []
    const words = `${step.kg < 0 ? '−' : '+'}${units.show(Math.abs(step.kg), 'mass')}, day ${step.day}`
    const wide = words.length * WORD_PX
    const from = x + wide + 4 > right ? x - wide - 4 : x + 4
    const free = Array.from({ length: LINES }, (_, k) => k).find((k) => !taken.some((t) => t.line === k && t.from < from + wide && t.to > from))
    if (free !== undefined) taken.push({ line: free, from, to: from + wide + 6 })
    return [{ ...step, x, words, from, line: free }]
  })
  return (
    <g>
      {right - here > 60 && (
        <text x={right} y={HISTORY_TOP - 10} textAnchor="end" fontSize="var(--size-fine)" style={{ fill: 'var(--ink2)' }}>
          to come
        </text>
      )}
      <path d={`M${line.join('L')}`} fill="none" stroke="var(--ink)" strokeWidth={1.2} strokeDasharray="4 3" />
      {shown.map((step) => (
        <g key={step.day}>
          <title>{step.steps.map((s) => units.say(s.words)).join(', ')}</title>
          <path
            d={`M${step.x} ${step.line === undefined ? HISTORY_TOP - 6 : FIRST_LINE + step.line * LINE - 8}V${foot}`}
            stroke="var(--ink)"
            strokeDasharray="1.5 2.5"
          />
          {step.line !== undefined && (
            <text
              x={step.from}
              y={FIRST_LINE + step.line * LINE}
              fontSize="var(--size-fine)"
              fontWeight={640}
              style={{ fontStretch: 'var(--width-narrow)', paintOrder: 'stroke', stroke: 'var(--sky)', strokeWidth: 4 }}
            >
              {step.words}
            </text>
          )}
        </g>
      ))}
      {weighedTogether(history).map((w) => {
        const [x, y] = [scale.x(w.km, w.day), yOf(w.kg)]
        return (
          inside(x) && (
            <path key={w.day} d={`M${x} ${y - 6}L${x + 6} ${y}L${x} ${y + 6}L${x - 6} ${y}Z`} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.8}>
              <title>{`${units.show(w.kg, 'mass')} on the scale, day ${w.day}`}</title>
            </path>
          )
        )
      })}
    </g>
  )
}
