/** The vessels of one supply to scale, as they leave a stop; the empty ones too. */
import type { Deed } from '../../api/client'

const TALL = 26
const MOST = 9
const MATERIAL: Partial<Record<string, string>> = { water: 'water', food: 'food', fuel: 'fuel', power: 'power' }

export function Vessels({ deed }: { deed: Deed }) {
  const each = deed.vessels.flatMap((v) => Array.from({ length: v.count }, () => v))
  const material = MATERIAL[deed.lane] ?? 'kit'
  if (!each.length) {
    if (deed.lane !== 'power' || deed.asked <= 0) return null
    const share = Math.min(deed.leaves / deed.asked, 1)
    return (
      <svg width={46} height={TALL} aria-hidden="true">
        <rect x={1} y={6} width={40} height={18} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.5} rx={2} />
        <rect x={2} y={7} width={38 * share} height={16} fill="url(#power)" />
        <path d="M42.5 12v6" stroke="var(--ink)" strokeWidth={2.5} />
      </svg>
    )
  }
  const largest = Math.max(...each.map((v) => v.holds))
  const wide = (holds: number) => 7 + 13 * Math.sqrt(holds / largest)
  const high = (holds: number) => 10 + (TALL - 12) * Math.cbrt(holds / largest)
  const drawn = each.slice(0, MOST)
  const xs = drawn.map((_, i) => drawn.slice(0, i).reduce((sum, v) => sum + wide(v.holds) + 3, 1))
  return (
    <svg width={drawn.reduce((sum, v) => sum + wide(v.holds) + 3, 2)} height={TALL} aria-hidden="true">
      {drawn.map((v, i) => {
        const [w, h, x] = [wide(v.holds), high(v.holds), xs[i] ?? 0]
        const level = Math.min(v.filled / v.holds, 1) * h
        return (
          <g key={i}>
            <rect x={x} y={TALL - 1 - h} width={w} height={h} fill="var(--tag)" rx={v.soft ? 3 : 1} />
            <rect x={x} y={TALL - 1 - level} width={w} height={level} fill={`url(#${material})`} />
            <rect
              x={x}
              y={TALL - 1 - h}
              width={w}
              height={h}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={1.3}
              rx={v.soft ? 3 : 1}
              strokeDasharray={v.soft && level === 0 ? '3 2' : undefined}
            />
          </g>
        )
      })}
    </svg>
  )
}
