/** When places are reached over all plays, against the plan, and what is then on board; one play, where it is opened. */
import type { PlayTold, Rehearsal } from '../../api/client'
import { useDesk } from '../../api/tour'
import { dayOfKm, type Scale } from '../../instruments/ribbonScale'
import { useUnits } from '../../ui/preferences'
import { QuestionRow } from './parts'

const HEIGHT = 84
const [HEAD, FOOT] = [12, 6]
const DAY_GRID = [1, 2, 5, 10, 20]
const MOST_LINES = 3

interface Props {
  told: Rehearsal
  play: PlayTold | null
  scale: Scale
  width: number
}

export function Fan({ told, play, scale, width }: Props) {
  const { assessment } = useDesk()
  const units = useUnits()
  if (width <= 100) return null
  const x = (km: number) => scale.x(km, dayOfKm(assessment.days, km))
  const late = told.fan.map((point) => ({
    x: x(point.km),
    low: point.low - point.planned,
    middle: point.middle - point.planned,
    high: point.high - point.planned,
  }))
  const last = late.at(-1)
  const behind = play ? play.behind : []
  const most = Math.max(1, ...late.map((p) => p.high), ...behind)
  const least = Math.min(-0.3, ...late.map((p) => p.low))
  const step = DAY_GRID.find((days) => most / days <= MOST_LINES) ?? 50
  const y = (days: number) => HEAD + ((most - days) / (most - least)) * (HEIGHT - HEAD - FOOT)
  const band = [
    ...late.map((p) => `${p.x.toFixed(1)} ${y(p.high).toFixed(1)}`),
    ...[...late].reverse().map((p) => `${p.x.toFixed(1)} ${y(p.low).toFixed(1)}`),
  ]
  const line = (points: { x: number; y: number }[]) => points.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('')
  return (
    <>
      <QuestionRow aria-label="When you get there">
        <h3>When you get there</h3>
        <div>
          <svg
            width={width}
            height={HEIGHT}
            viewBox={`0 0 ${width} ${HEIGHT}`}
            role="img"
            aria-label={`Days behind the plan along the road; at the end half of the plays are ${(last?.middle ?? 0).toFixed(1)} days late, one in ten ${(last?.high ?? 0).toFixed(1)}`}
          >
            {[0, ...Array.from({ length: MOST_LINES }, (_, i) => (i + 1) * step)]
              .filter((days) => days <= most)
              .map((days) => (
                <g key={days}>
                  <path d={`M0 ${y(days)}H${width}`} stroke="var(--hair)" />
                  <text x={4} y={y(days) - 3} fontSize="var(--size-fine)" style={{ fill: 'var(--ink2)' }}>
                    {days === 0 ? 'as planned' : `${days} ${days === 1 ? 'day' : 'days'} late`}
                  </text>
                </g>
              ))}
            <path d={`M${band.join('L')}Z`} fill="var(--kit-t)" opacity={0.8} />
            <path d={line(late.map((p) => ({ x: p.x, y: y(p.middle) })))} fill="none" stroke="var(--ink)" strokeWidth={2} />
            {play && (
              <path
                d={line(play.km.map((km, i) => ({ x: x(km), y: y(behind[i] ?? 0) })))}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={1.4}
                strokeDasharray="5 3"
              />
            )}
          </svg>
          <p style={{ fontSize: 'var(--size-small)', paddingBottom: 4 }}>
            The band holds eight of ten plays, the line is the middle{play ? `, dashed is play ${play.told.number}` : ''}.
          </p>
        </div>
      </QuestionRow>
      <OnBoard {...{ told, play, scale, width, units }} />
    </>
  )
}

/** Supplies on board on leaving each place. */
function OnBoard({ told, play, scale, width, units }: Props & { units: ReturnType<typeof useUnits> }) {
  const { assessment } = useDesk()
  const x = (km: number) => scale.x(km, dayOfKm(assessment.days, km))
  const most = Math.max(...told.fan.map((p) => p.heavy_high_kg), 1)
  const y = (kg: number) => HEAD + ((most - kg) / most) * (HEIGHT - HEAD - FOOT)
  const kg = play?.km.map((_, i) => (play.water_l[i] ?? 0) + (play.food_kg[i] ?? 0) + (play.fuel_kg[i] ?? 0)) ?? []
  return (
    <QuestionRow aria-label="Supplies on board">
      <h3>Supplies on board</h3>
      <div>
        <svg
          width={width}
          height={HEIGHT}
          viewBox={`0 0 ${width} ${HEIGHT}`}
          role="img"
          aria-label={`Water, food and fuel on leaving each place, at most ${units.show(most, 'mass')}`}
        >
          <path d={`M0 ${y(0)}H${width}M0 ${y(most)}H${width}`} stroke="var(--hair)" />
          <text x={4} y={y(most) - 2} fontSize="var(--size-fine)" style={{ fill: 'var(--ink2)' }}>
            {units.show(most, 'mass')}
          </text>
          {told.fan.map((p) => (
            <g key={p.km}>
              <path
                d={`M${x(p.km).toFixed(1)} ${y(p.heavy_low_kg).toFixed(1)}V${(y(p.heavy_high_kg) - 1).toFixed(1)}`}
                stroke="var(--kit)"
                strokeWidth={4}
                opacity={0.55}
              />
              <path d={`M${(x(p.km) - 3).toFixed(1)} ${y(p.heavy_kg).toFixed(1)}h6`} stroke="var(--ink)" strokeWidth={2} />
            </g>
          ))}
          {play && (
            <path
              d={play.km.map((km, i) => `${i ? 'L' : 'M'}${x(km).toFixed(1)} ${y(kg[i] ?? 0).toFixed(1)}`).join('')}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={1.2}
              strokeDasharray="5 3"
            />
          )}
        </svg>
      </div>
    </QuestionRow>
  )
}
