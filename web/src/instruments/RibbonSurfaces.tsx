/** What the road is made of, along the skyline: each surface a dash of its own, a ferry or train a double line. */
import { useId } from 'react'
import type { Road } from '../api/client'

export type Surface = Road['surfaces'][number]['surface']

const DASHES: Record<Surface, { dash?: string; wide: number }> = {
  asphalt: { wide: 1.6 },
  rough_asphalt: { dash: '9 4', wide: 3.5 },
  gravel: { dash: '2.5 2.5', wide: 4 },
  soft: { dash: '1 2', wide: 7 },
  push: { dash: '3 8', wide: 8 },
}

/** The mark of a surface, as it stands on the ribbon. */
export function SurfaceMark({ d, surface }: { d: string; surface: Surface }) {
  const { dash, wide } = DASHES[surface]
  return (
    <>
      <path d={d} fill="none" stroke="var(--sky)" strokeWidth={8} />
      <path d={d} fill="none" stroke="var(--ink)" strokeWidth={wide} strokeDasharray={dash} />
    </>
  )
}

export function RibbonSurfaces({ road, ridge, height, xOf }: { road: Road; ridge: string; height: number; xOf: (km: number) => number }) {
  const name = useId()
  const stretches = [...road.surfaces.map((s) => ({ ...s, by: null })), ...road.transfers.map((t) => ({ ...t, surface: 'asphalt' as const }))]
  return (
    <g transform="translate(0 -3)">
      {stretches.map(({ from_km, to_km, surface, by }, i) => (
        <g key={i} clipPath={`url(#${name}${i})`}>
          <clipPath id={`${name}${i}`}>
            <rect x={xOf(from_km)} width={Math.max(xOf(to_km) - xOf(from_km), 0)} height={height} />
          </clipPath>
          <SurfaceMark d={ridge} surface={surface} />
          {by && <path d={ridge} fill="none" stroke="var(--ink)" strokeWidth={6} />}
          {by && <path d={ridge} fill="none" stroke="var(--sky)" strokeWidth={3} />}
        </g>
      ))}
    </g>
  )
}
