/** Each day's cold against what is worn: a foot for the coldest hour, a bar for how long the evening is borne. */
import { useState } from 'react'
import type { Assessment } from '../../api/client'
import { useShown } from '../../api/tour'
import type { Scale } from '../../instruments/ribbonScale'
import { useUnits } from '../../ui/preferences'
import { Level, Whose } from './parts'

const CLOSED_PX = 32
const OPEN_PX = 128

export function Layers({ scale, width, open }: { scale: Scale; width: number; open: boolean }) {
  const { assessment, sheet } = useShown()
  const units = useUnits()
  const [chosen, choose] = useState<string | null>(null)
  const shortest = (l: (typeof assessment.layers)[number]) => Math.min(...l.days.map((d) => d.bears_h))
  const layers = assessment.layers.find((l) => l.rider_id === chosen) ?? [...assessment.layers].sort((a, b) => shortest(a) - shortest(b))[0]
  if (!layers) return <svg width={width} height={36} aria-hidden="true" />
  const height = open ? OPEN_PX : CLOSED_PX
  const felt = layers.days.map((d) => d.felt_c)
  const [low, high] = [Math.min(...felt, 4) - 2, Math.max(...felt, 21) + 1]
  const y = (celsius: number) => 4 + ((high - celsius) / (high - low)) * (height - 10)
  const name = sheet.riders.find((r) => r.id === layers.rider_id)?.name ?? ''
  const coldest = Math.min(...felt)
  const coldest_level = layers.levels_c[0] ?? -Infinity
  return (
    <>
      {open && <Whose ids={assessment.layers.map((s) => s.rider_id)} chosen={layers.rider_id} onChoose={choose} />}
      <svg width={width} height={height} role="img" aria-label={`${name}: felt ${units.show(coldest, 'temperature')} in the coldest hour`}>
        {layers.days.map((d) => {
          const [x0, x1] = [scale.edges[d.day - 1] ?? 0, scale.edges[d.day] ?? 0]
          const cold = d.felt_c < coldest_level
          return (
            <g key={d.day}>
              <rect
                x={x0 + 2}
                y={y(d.felt_c)}
                width={Math.max(x1 - x0 - 4, 1)}
                height={Math.max(height - 4 - y(d.felt_c), 1)}
                fill={cold ? 'url(#hatch)' : 'var(--kit-t)'}
                opacity={cold ? 0.9 : 1}
              />
              <path d={`M${x0 + 2} ${y(d.felt_c)}H${x1 - 2}`} stroke="var(--ink)" strokeWidth={2.4}>
                <title>
                  Day {d.day}: felt {units.show(d.felt_c, 'temperature')} riding, {units.show(d.evening_c, 'temperature')} in the evening, borne{' '}
                  {d.bears_h >= layers.longest_h ? 'all evening' : units.show(d.bears_h, 'hours')} in {d.worn_clo} clo
                </title>
              </path>
            </g>
          )
        })}
        {layers.levels_c
          .filter((c) => c > low && c < high && (open || c === coldest_level))
          .map((c) => (
            <Level key={c} celsius={c} y={y(c)} width={width} />
          ))}
        {open && (
          <text x={4} y={height - 6} fontSize="var(--size-fine)" stroke="var(--sky)" strokeWidth={3} style={{ paintOrder: 'stroke' }}>
            felt in the coldest hour of riding; in the evening {name} bears {evening(layers, units)}
          </text>
        )}
      </svg>
    </>
  )
}

function evening({ days, longest_h }: Assessment['layers'][number], units: ReturnType<typeof useUnits>): string {
  const worst = days.reduce((a, b) => (b.bears_h < a.bears_h ? b : a))
  return worst.bears_h >= longest_h ? 'the cold all evening' : `the cold for ${units.show(worst.bears_h, 'hours')}, day ${worst.day}`
}
