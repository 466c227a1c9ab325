/** Nine days of land around today, the ridden load filled over it and the planned one dashed, the moment as a yellow line. */
import type { Now } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useSize } from '../../instruments/useSize'
import { useUnits } from '../../ui/preferences'

const DAYS = 9
const BEFORE = 2
const HEIGHT = 154
const LOAD = { top: 20, foot: 64 }
const LAND = { top: 70, foot: 110 }

export function DiaryLand({ now, km }: { now: Now; km: number }) {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const [box, { width }] = useSize<HTMLDivElement>()
  const last = now.days.length
  const first = Math.max(1, Math.min(now.day - BEFORE, last - DAYS + 1))
  const days = now.days.slice(first - 1, first - 1 + DAYS)
  const each = width / Math.max(days.length, 1)
  const onAxis = (day: number) => (day - first + 1) * each
  const dayAt = (at: number) => {
    const day = days.find((d) => at <= d.to_km && d.to_km > d.from_km) ?? days.at(-1)
    if (!day) return 0
    return day.number - 1 + (day.to_km > day.from_km ? Math.max(0, Math.min((at - day.from_km) / (day.to_km - day.from_km), 1)) : 0.5)
  }
  const xAt = (at: number) => onAxis(dayAt(at))
  const profile = assessment.profile
  const from = days[0]?.from_km ?? 0
  const to = days.at(-1)?.to_km ?? 0
  const heights = profile ? profile.km.map((k, i) => ({ k, h: profile.elevation_m[i] ?? 0 })).filter((p) => p.k >= from && p.k <= to) : []
  const low = Math.min(...heights.map((p) => p.h), Infinity) - 60
  const high = Math.max(...heights.map((p) => p.h), low + 200)
  const land = heights.map((p) => `${xAt(p.k).toFixed(1)} ${(LAND.foot - ((p.h - low) / (high - low)) * (LAND.foot - LAND.top)).toFixed(1)}`)
  const { history } = now
  const inside = (day: number) => day >= first - 1 && day <= first - 1 + DAYS
  const all = [
    ...history.planned_kg.filter((_, i) => inside(history.day[i] ?? 0)),
    ...history.ridden_kg.filter((_, i) => inside(history.ridden_day[i] ?? 0)),
  ]
  const [least, most] = [Math.min(...all, Infinity) - 1, Math.max(...all, 0) + 1]
  const y = (kg: number) => LOAD.foot - ((kg - least) / (most - least || 1)) * (LOAD.foot - LOAD.top)
  const path = (at: number[], kg: number[]) =>
    at.flatMap((d, i) => (inside(d) ? [`${onAxis(d).toFixed(1)} ${y(kg[i] ?? 0).toFixed(1)}`] : [])).join('L')
  const planned = path(history.day, history.planned_kg)
  const riddenTo = history.ridden_day.findLast(inside)
  const ridden = path(history.ridden_day, history.ridden_kg)
  const riddenFrom = history.ridden_day.find(inside)
  const x = Math.max(3, Math.min(xAt(km), width - 3))
  const stops = sheet.road.stops.filter((s) => s.at_km >= from && s.at_km <= to)
  return (
    <div ref={box} style={{ height: HEIGHT, background: 'var(--sky)' }}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Days ${first} to ${days.at(-1)?.number}; today is day ${now.day}, ${units.show(km, 'distance')}`}
        >
          {ridden && riddenFrom !== undefined && riddenTo !== undefined && (
            <path d={`M${onAxis(riddenFrom)} ${LOAD.foot}L${ridden}L${onAxis(riddenTo)} ${LOAD.foot}Z`} fill="var(--kit-t)" />
          )}
          {ridden && <path d={`M${ridden}`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />}
          {planned && <path d={`M${planned}`} fill="none" stroke="var(--ink)" strokeWidth={1.2} strokeDasharray="4 3" />}
          <text x={6} y={14} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)' }}>
            {now.begun ? `${units.show(history.now_kg, 'mass')} ridden` : `${units.show(history.planned_kg[0] ?? 0, 'mass')} at the start`}
          </text>
          <text x={width - 6} y={14} fontSize="var(--size-fine)" textAnchor="end" style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}>
            planned, dashed
          </text>
          {land.length > 1 && <path d={`M0 ${HEIGHT}L0 ${land[0]?.split(' ')[1]}L${land.join('L')}L${width} ${HEIGHT}Z`} fill="var(--land)" />}
          {land.length < 2 && <rect y={LAND.foot - 14} width={width} height={HEIGHT} fill="var(--land)" />}
          {stops.map((s) => (
            <g key={s.id} transform={`translate(${xAt(s.at_km).toFixed(1)} ${LAND.foot + 8})`}>
              {s.water !== 'none' && (
                <path
                  d="M0 -6C3 -2 4.4 0 4.4 2.4A4.4 4.4 0 0 1 -4.4 2.4C-4.4 0 -3 -2 0 -6Z"
                  fill={s.water === 'reliable' ? 'var(--lwater)' : 'none'}
                  stroke="var(--lwater)"
                  strokeDasharray={s.water === 'reliable' ? undefined : '2 2'}
                />
              )}
              {s.shop !== 'none' &&
                [0, 1, 2].map((n) => (
                  <rect
                    key={n}
                    x={-6 + n * 4.4}
                    y={16 - n * 2.5}
                    width={3.2}
                    height={4 + n * 2.5}
                    fill={n < { full: 3, basic: 2, snacks: 1, none: 0 }[s.shop] ? 'var(--onland)' : 'none'}
                    stroke="var(--onland)"
                    strokeWidth={0.7}
                  />
                ))}
            </g>
          ))}
          {days.map((d, i) => (
            <g key={d.number}>
              <path d={`M${i * each} ${HEIGHT - 20}V${HEIGHT}`} stroke="var(--landline)" />
              {d.number === now.day && <rect x={i * each + 3} y={HEIGHT - 20} width={each - 6} height={18} fill="var(--now)" />}
              <text
                x={(i + 0.5) * each}
                y={HEIGHT - 6}
                textAnchor="middle"
                fontSize="var(--size-small)"
                fontWeight={d.number === now.day ? 750 : 550}
                style={{ fill: d.number === now.day ? 'var(--onnow)' : 'var(--onland)' }}
              >
                {d.number}
              </text>
            </g>
          ))}
          <path d={`M${x} 0V${HEIGHT - 20}`} stroke="var(--onnow)" strokeWidth={4.5} />
          <path d={`M${x} 0V${HEIGHT - 20}`} stroke="var(--now)" strokeWidth={2.5} />
        </svg>
      )}
    </div>
  )
}
