/** Each day's arrival against the end of its light. */
import { useShown } from '../../api/tour'
import type { Scale } from '../../instruments/ribbonScale'
import { useUnits } from '../../ui/preferences'

const OPEN_PX = 64
const CLOSED_PX = 32
/** Clock hours at the foot and the head of the drawing. */
const FROM_H = 10
const TO_H = 22

export function Arrivals({ scale, width, open }: { scale: Scale; width: number; open: boolean }) {
  const HEIGHT = open ? OPEN_PX : CLOSED_PX
  const { assessment } = useShown()
  const units = useUnits()
  const y = (hour: number) => HEIGHT - 6 - ((Math.min(Math.max(hour, FROM_H), TO_H) - FROM_H) / (TO_H - FROM_H)) * (HEIGHT - 14)
  const riding = assessment.days.filter((day) => !day.rest)
  const dark = riding.filter((day) => day.dark || day.starts_dark).length
  const dusk = assessment.days
    .filter((day) => day.dusk_h !== null)
    .map(
      (day, i) =>
        `${i ? 'L' : 'M'}${(scale.edges[day.number - 1] ?? 0).toFixed(1)} ${y(day.dusk_h ?? 0).toFixed(1)}H${(scale.edges[day.number] ?? 0).toFixed(1)}`,
    )
    .join('')
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={`${dark} of ${riding.length} days of riding begin or end in the dark`}>
      {riding.map((day) => {
        const [x0, x1] = [scale.edges[day.number - 1] ?? 0, scale.edges[day.number] ?? 0]
        return (
          <rect
            key={day.number}
            x={x0 + 2}
            y={y(day.arrive_h)}
            width={Math.max(x1 - x0 - 4, 1)}
            height={Math.max(HEIGHT - 6 - y(day.arrive_h), 1)}
            fill={day.dark ? 'var(--ink)' : 'var(--kit-t)'}
          >
            <title>
              Day {day.number}: {units.show(day.riding_hours, 'hours')} of riding
            </title>
          </rect>
        )
      })}
      <path d={dusk} fill="none" stroke="var(--ink)" strokeWidth={1.4} strokeDasharray="4 3" />
      {open && (
        <text x={4} y={y(TO_H) + 4} fontSize="var(--size-fine)">
          dashed: end of light; bars: arrival
        </text>
      )}
    </svg>
  )
}
