import type { Day } from '../api/client'
import { airIsGuessed } from './air'
import type { LandProps, Rows } from './ribbonProps'
import type { Scale } from './ribbonScale'

/** How cold each night is, and the numbers of the days. */
export function RibbonDays({
  assessment,
  scale,
  dayNow,
  units,
  rows,
}: Pick<LandProps, 'assessment' | 'scale' | 'dayNow' | 'units'> & { rows: Rows }) {
  const days = assessment.days.slice(scale.from - 1, scale.to)
  const nights = withRoom(days.map(nightWish(scale)).filter(({ day }) => !day.rest))
  const numbers = withRoom(days.map(numberWish(scale, dayNow)))
  return (
    <>
      {days.map((day, i) => {
        const a = scale.edges[i] ?? 0
        const b = scale.edges[i + 1] ?? 0
        const night = units.figure(day.night_low_c, 'temperature')
        const cold = day.night_low_c < 0
        return (
          <g key={day.number}>
            {nights.has(day.number) && (
              <>
                {cold && (
                  <rect
                    x={b - 13}
                    y={rows.nights - 12}
                    width={26}
                    height={15}
                    rx={2}
                    fill="var(--land)"
                    stroke="var(--onland)"
                    strokeWidth={1.3}
                    strokeDasharray={airIsGuessed(assessment) ? '3 2' : undefined}
                  />
                )}
                <text
                  x={b}
                  y={rows.nights}
                  fontSize="var(--size-fine)"
                  textAnchor="middle"
                  style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--onland)' }}
                >
                  {night}
                </text>
              </>
            )}
            {day.number === dayNow && <rect x={a + 1} y={rows.days - 12} width={Math.max(b - a - 2, 18)} height={16} fill="var(--now)" />}
            {numbers.has(day.number) && (
              <text
                x={(a + b) / 2}
                y={rows.days}
                fontSize="var(--size-fine)"
                textAnchor="middle"
                fontWeight={day.number === dayNow ? 750 : 500}
                style={{ fontStretch: 'var(--width-narrow)', fill: day.number === dayNow ? 'var(--onnow)' : 'var(--onland)' }}
              >
                {day.number}
              </text>
            )}
          </g>
        )
      })}
    </>
  )
}

/** A figure that wants a place: around where, how wide to each side, and the lower its rank, the sooner it gets it. */
interface Wish {
  day: Day
  x: number
  half: number
  rank: number
}

/** The days whose figures have room beside each other. */
function withRoom(wishes: Wish[]): Set<number> {
  const taken: Wish[] = []
  for (const wish of wishes.sort((a, b) => a.rank - b.rank)) if (!taken.some((t) => Math.abs(t.x - wish.x) < t.half + wish.half)) taken.push(wish)
  return new Set(taken.map(({ day }) => day.number))
}

/** How cold nights are; frost needs more room, for its frame, and goes first. */
const nightWish = (scale: Scale) => (day: Day, i: number) => ({
  ...{ day, x: scale.edges[i + 1] ?? 0, rank: day.night_low_c },
  half: day.night_low_c < 0 ? 13.5 : 8.5,
})

/** Numbers of days: today first, then each fifth. */
const numberWish = (scale: Scale, dayNow: number) => (day: Day, i: number) => ({
  ...{ day, x: ((scale.edges[i] ?? 0) + (scale.edges[i + 1] ?? 0)) / 2, half: day.number > 9 ? 8.5 : 5.5 },
  rank: day.number === dayNow ? 0 : day.number % 5 === 0 ? 1 : 2,
})
