/** Small marks of the ribbon's rows: drops, shops, number tabs. */
import { memo } from 'react'
import type { Finding, Stop } from '../api/client'

const DROP = (r: number) =>
  `M0 ${-r * 1.35}C${r * 0.5} ${-r * 0.55} ${r} ${-r * 0.1} ${r} ${r * 0.35}A${r} ${r} 0 1 1 ${-r} ${r * 0.35}C${-r} ${-r * 0.1} ${-r * 0.5} ${-r * 0.55} 0 ${-r * 1.35}Z`

/** Full: sure; a star: snow to melt; dashed with a stroke: may be dry. */
export const Drop = memo(function Drop({ x, y, water, r = 5 }: { x: number; y: number; water: Stop['water']; r?: number }) {
  if (water === 'none') return null
  return (
    <g transform={`translate(${x.toFixed(1)} ${y})`}>
      {water === 'reliable' ? (
        <path d={DROP(r)} fill="var(--lwater)" />
      ) : water === 'snow' ? (
        <path
          d={`M0 ${-r}V${r}M${-r * 0.87} ${-r / 2}L${r * 0.87} ${r / 2}M${-r * 0.87} ${r / 2}L${r * 0.87} ${-r / 2}`}
          stroke="var(--lwater)"
          strokeWidth={1.6}
        />
      ) : (
        <>
          <path d={DROP(r)} fill="none" stroke="var(--lwater)" strokeWidth={1.4} strokeDasharray="2.2 1.8" />
          <path d={`M${-r * 0.9} ${r * 1.5}L${r * 0.9} ${-r * 1.1}`} stroke="var(--lwater)" strokeWidth={1.4} />
        </>
      )}
    </g>
  )
})

/** Bars for how much a shop holds: three full, two basic, one snacks; struck through where it is shut on passing. */
export const Shop = memo(function Shop({ x, y, shop, shut = false }: { x: number; y: number; shop: Stop['shop']; shut?: boolean }) {
  if (shop === 'none') return null
  const filled = { full: 3, basic: 2, snacks: 1 }[shop]
  return (
    <g transform={`translate(${x.toFixed(1)} ${y})`}>
      {[0, 1, 2].map((i) => (
        <rect
          key={i}
          x={i * 4 - 5.5}
          y={-2 - i * 2.2}
          width={3}
          height={6 + i * 2.2}
          fill={i < filled ? 'var(--onland)' : 'none'}
          stroke="var(--onland)"
          strokeWidth={0.9}
          opacity={i < filled ? 1 : 0.55}
        />
      ))}
      {shut && <path d="M-8 6L8 -9" stroke="var(--land)" strokeWidth={4} />}
      {shut && <path d="M-8 6L8 -9" stroke="var(--onland)" strokeWidth={1.8} />}
    </g>
  )
})

/** The number of a finding with its slope, as it stands on the ribbon and on the rig. */
export function NumberTab({ finding, x, y }: { finding: Finding; x: number; y: number }) {
  const rise = { stops_you: 10, slows_you: 7, worth_knowing: 4 }[finding.grade]
  const fill = { stops_you: 'var(--ink)', slows_you: 'url(#hatch)', worth_knowing: 'none' }[finding.grade]
  return (
    <g transform={`translate(${(x - 15).toFixed(1)} ${y.toFixed(1)})`}>
      <rect
        width={finding.rank > 9 ? 34 : 30}
        height={20}
        rx={2}
        fill="var(--tag)"
        stroke="var(--ink)"
        strokeWidth={finding.grade === 'stops_you' ? 2 : 1.3}
      />
      <path d={`M4 15H15V${15 - rise}Z`} fill={fill} stroke="var(--ink)" strokeWidth={1.4} strokeLinejoin="round" />
      <text x={finding.rank > 9 ? 25 : 23} y={14.5} fontSize="var(--size-fine)" fontWeight={700} textAnchor="middle">
        {finding.rank}
      </text>
    </g>
  )
}
