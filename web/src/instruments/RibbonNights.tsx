import { type PointerEvent, useState } from 'react'
import type { Day } from '../api/client'
import type { Scale } from './ribbonScale'

/** Handles at the ends of days; dragging one sets that night. */
export function RibbonNights({
  days,
  scale,
  height,
  onNight,
  width,
}: {
  days: Day[]
  scale: Scale
  height: number
  onNight: (day: Day, km: number) => void
  width: number
}) {
  const [held, setHeld] = useState<{ day: Day; x: number } | null>(null)
  const inside = (event: PointerEvent<SVGElement>) => event.clientX - (event.currentTarget.ownerSVGElement?.getBoundingClientRect().left ?? 0)
  return (
    <svg width={width} height={height} style={{ pointerEvents: 'none' }} aria-hidden="true">
      {days.slice(scale.from - 1, scale.to).map((day, i) => {
        if (day.rest || day.number >= days.length) return null
        const x = held?.day.number === day.number ? held.x : (scale.edges[i + 1] ?? 0)
        return (
          <g
            key={day.number}
            data-mark
            style={{ pointerEvents: 'auto', cursor: 'ew-resize' }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId)
              setHeld({ day, x: inside(e) })
            }}
            onPointerMove={(e) => held?.day.number === day.number && setHeld({ day, x: inside(e) })}
            onPointerUp={(e) => {
              if (held && Math.abs(inside(e) - (scale.edges[i + 1] ?? 0)) > 2) onNight(day, scale.km(inside(e)).km)
              setHeld(null)
            }}
            onPointerCancel={() => setHeld(null)}
          >
            <title>{`End of day ${day.number}. Drag to move it.`}</title>
            <rect x={x - 6} y={height - 24} width={12} height={24} fill="transparent" />
            <path
              d={`M${x} ${height - 20}V${height}`}
              stroke={day.night_set_km !== null || held?.day.number === day.number ? 'var(--now)' : 'var(--landline)'}
              strokeWidth={day.night_set_km !== null ? 3 : 2}
            />
            {held?.day.number === day.number && <path d={`M${x} 40V${height}`} stroke="var(--now)" strokeWidth={2} strokeDasharray="4 3" />}
          </g>
        )
      })}
    </svg>
  )
}
