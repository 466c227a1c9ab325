/** Each night's cold against what each rider has in bed: a line for what it bears, a foot for the night. */
import { useState } from 'react'
import { useShown } from '../../api/tour'
import { aboutAir } from '../../instruments/air'
import type { Scale } from '../../instruments/ribbonScale'
import { useUnits } from '../../ui/preferences'
import { Level, Whose } from './parts'

const LABEL_PX = 74

export function Nights({ scale, width, open }: { scale: Scale; width: number; open: boolean }) {
  const { assessment, sheet } = useShown()
  const units = useUnits()
  const [chosen, choose] = useState<string | null>(null)
  const shortest = (s: (typeof assessment.sleepers)[number]) => Math.max(...s.nights.map((n) => n.short_k))
  const worstOff = [...assessment.sleepers].sort((a, b) => shortest(b) - shortest(a))[0]
  const sleeper = assessment.sleepers.find((s) => s.rider_id === chosen) ?? worstOff
  if (!sleeper) return <svg width={width} height={36} aria-hidden="true" />
  const height = open ? 150 : 42
  const nights = sleeper.nights
  const figures = nights.flatMap((n) => (n.bears_c === null ? [n.low_c] : [n.low_c, n.bears_c]))
  const [low, high] = [Math.min(...figures) - 2, Math.max(...figures) + 2]
  const [head, feet] = open ? [8, 12] : [3, 5]
  const y = (celsius: number) => head + ((high - celsius) / (high - low)) * (height - head - feet)
  const edge = (day: number) => scale.edges[Math.min(day, scale.edges.length) - 1] ?? 0
  const at = nights.map((n) => ({ ...n, x0: edge(n.day), x1: edge(n.day + 1) }))
  const line = at
    .filter((n) => n.bears_c !== null)
    .map(
      (n, i, all) => `${i === 0 || all[i - 1]?.day !== n.day - 1 ? 'M' : 'L'}${n.x0.toFixed(1)} ${y(n.bears_c ?? 0).toFixed(1)}H${n.x1.toFixed(1)}`,
    )
    .join('')
  const worst = at.reduce(
    (a, b) => (b.short_k > a.short_k ? b : a),
    at[0] ?? { short_k: 0, day: 0, x0: 0, x1: 0, low_c: 0, bears_c: null, indoors: false },
  )
  const name = sheet.riders.find((r) => r.id === sleeper.rider_id)?.name ?? ''
  const first = at.find((n) => n.bears_c !== null)
  const bears = first?.bears_c ?? null
  return (
    <>
      {open && <Whose ids={assessment.sleepers.map((s) => s.rider_id)} chosen={sleeper.rider_id} onChoose={choose} />}
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`${name}: ${worst.short_k > 0 ? `${units.show(worst.short_k, 'temperature_difference')} short in night ${worst.day}` : 'warm enough in every night'}`}
      >
        {(open ? [0, 10] : [0])
          .filter((c) => c > low && c < high)
          .map((c) => (
            <Level key={c} celsius={c} y={y(c)} width={width} />
          ))}
        {at
          .filter((n) => n.far_too_warm)
          .map((n) => (
            <rect
              key={n.day}
              x={n.x0}
              y={y(n.low_c)}
              width={n.x1 - n.x0}
              height={Math.max(y(n.bears_c ?? 0) - y(n.low_c), 0)}
              fill="url(#hatch)"
              opacity={0.35}
            />
          ))}
        {at.map((n) => (
          <g key={n.day}>
            {n.short_k > 0 && (
              <rect
                x={(n.x0 + n.x1) / 2 - 4}
                y={y(n.bears_c ?? 0)}
                width={8}
                height={Math.max(y(n.low_c) - y(n.bears_c ?? 0), 2)}
                fill="var(--ink)"
              />
            )}
            <path
              d={`M${n.x0 + 2} ${y(n.low_c)}H${n.x1 - 2}`}
              stroke="var(--ink)"
              strokeWidth={n.indoors ? 1.2 : 2.6}
              strokeDasharray={n.indoors ? '2 2' : undefined}
            >
              <title>
                Night {n.day}: {n.indoors ? '' : aboutAir(assessment)}
                {units.show(n.low_c, 'temperature')}
                {n.indoors ? ', in a room' : n.bears_c === null ? ', nothing to sleep in' : `, warm to ${units.show(n.bears_c, 'temperature')}`}
              </title>
            </path>
          </g>
        ))}
        <path d={line} fill="none" stroke="var(--now)" strokeWidth={4} />
        <path d={line} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
        {open && bears !== null && (
          <text x={4} y={Math.min(y(bears) + 14, height - 2)} fontSize="var(--size-fine)" fontWeight={650}>
            what {name} has on bears {units.show(bears, 'temperature')}
          </text>
        )}
        {worst.short_k > 0 && (
          <text
            x={Math.min(worst.x1 + 4, width - LABEL_PX)}
            y={Math.min(y(worst.low_c) + 4, height - 4)}
            fontSize="var(--size-fine)"
            fontWeight={700}
          >
            {aboutAir(assessment)}
            {units.show(worst.short_k, 'temperature_difference')} short
          </text>
        )}
      </svg>
    </>
  )
}
