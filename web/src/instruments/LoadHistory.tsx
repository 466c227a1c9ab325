/** Mass on the bikes over the days: planned dashed, ridden filled, weighings as diamonds, and what made each step. */
import type { LoadHistory as History } from '../api/client'
import { useUnits } from '../ui/preferences'
import { stepsByDay, weighedTogether } from './loadSteps'
import { useSize } from './useSize'

const FOOT = 18
const [NARROW, FEW_STEPS] = [520, 3]

export function LoadHistory({
  history,
  days,
  today,
  height = 150,
  gutter = 44,
}: {
  history: History
  days: number
  today: number
  height?: number
  gutter?: number
}) {
  const units = useUnits()
  const [box, { width }] = useSize<HTMLDivElement>()
  const all = [...history.planned_kg, ...history.ridden_kg]
  const low = Math.floor(Math.min(...all) / 5) * 5
  const high = Math.max(...all) + 1
  const right = width - 10
  const x = (day: number) => gutter + (day / Math.max(days, 1)) * (right - gutter)
  const y = (kg: number) => height - FOOT - ((kg - low) / (high - low || 1)) * (height - FOOT - 46)
  const line = (at: number[], kg: number[]) => at.map((d, i) => `${x(d).toFixed(1)} ${y(kg[i] ?? 0).toFixed(1)}`).join('L')
  const ridden = line(history.ridden_day, history.ridden_kg)
  // A narrow drawing has room for the largest steps only.
  const largest = stepsByDay(history).slice(0, width < NARROW ? FEW_STEPS : undefined)
  const told = largest.toSorted((a, b) => a.day - b.day)
  const near = (day: number) =>
    history.ridden_kg[history.ridden_day.findIndex((d) => d >= day - 0.5)] ?? history.ridden_kg.at(-1) ?? history.planned_kg[0] ?? low
  return (
    <div ref={box} style={{ height }}>
      {width > 0 && all.length > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`Load history: ${units.show(history.start_kg, 'mass')} at the start, ${units.show(history.now_kg, 'mass')} on day ${today}`}
        >
          {[low, low + 10, low + 20, low + 30]
            .filter((kg) => kg < high)
            .map((kg) => (
              <g key={kg}>
                <path d={`M${gutter} ${y(kg)}H${right}`} stroke="var(--hair)" />
                <text x={gutter - 6} y={y(kg) + 4} fontSize="var(--size-fine)" textAnchor="end" style={{ fill: 'var(--ink2)' }}>
                  {units.show(kg, 'mass', 0)}
                </text>
              </g>
            ))}
          {history.ridden_day.length > 1 && (
            <path
              d={`M${x(history.ridden_day[0] ?? 0)} ${height - FOOT}L${ridden}L${x(history.ridden_day.at(-1) ?? 0)} ${height - FOOT}Z`}
              fill="var(--kit-t)"
            />
          )}
          <path d={`M${line(history.day, history.planned_kg)}`} fill="none" stroke="var(--ink)" strokeWidth={1.1} strokeDasharray="4 3" />
          {ridden && <path d={`M${ridden}`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />}
          {told.map(({ day, kg, steps }, i) => {
            const at = x(day - 0.5)
            const words = `${kg < 0 ? '−' : '+'}${units.show(Math.abs(kg), 'mass')}, day ${day}`
            const end = at > right - 110
            return (
              <g key={day}>
                <title>{steps.map((s) => units.say(s.words)).join(', ')}</title>
                <path d={`M${at} ${14 + (i % 3) * 13}V${y(near(day))}`} stroke="var(--ink)" />
                <circle cx={at} cy={y(near(day))} r={3} fill="var(--ink)" />
                <text
                  x={end ? at - 4 : at + 4}
                  y={12 + (i % 3) * 13}
                  textAnchor={end ? 'end' : 'start'}
                  fontSize="var(--size-fine)"
                  fontWeight={620}
                  style={{ fontStretch: 'var(--width-narrow)' }}
                >
                  {words}
                </text>
              </g>
            )
          })}
          {weighedTogether(history).map((w) => {
            const [cx, cy] = [x(w.day - 0.5), y(w.kg)]
            return (
              <path
                key={`${w.day}`}
                d={`M${cx} ${cy - 6}L${cx + 6} ${cy}L${cx} ${cy + 6}L${cx - 6} ${cy}Z`}
                fill="var(--tag)"
                stroke="var(--ink)"
                strokeWidth={1.8}
              >
                <title>{`${units.show(w.kg, 'mass')} on the scale, day ${w.day}`}</title>
              </path>
            )
          })}
          {Array.from({ length: Math.floor(days / 7) + 1 }, (_, w) => w * 7 + 1)
            .filter((d) => d <= days)
            .map((d) => (
              <text key={d} x={x(d - 0.5)} y={height - 4} fontSize="var(--size-fine)" textAnchor="middle" style={{ fill: 'var(--ink2)' }}>
                {d === 1 ? 'day 1' : d}
              </text>
            ))}
          <path d={`M${gutter} ${height - FOOT}H${right}`} stroke="var(--ink)" strokeWidth={1.5} />
        </svg>
      )}
    </div>
  )
}
