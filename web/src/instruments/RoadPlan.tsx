/** The road from above: its line, stops and playhead, over an outline of the land (Natural Earth, public domain). */
import { memo, useEffect, useMemo, useState } from 'react'
import styled from 'styled-components'
import type { Day, Stop } from '../api/client'
import { useDesk } from '../api/tour'
import { useUnits } from '../ui/preferences'
import { useGoToKm, useMoment } from './moment'
import { useSize } from './useSize'

type Ring = [number, number][]
const Frame = styled.div`
  position: relative;
  flex: 1;
  min-height: 180px;
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  overflow: hidden;
  background: var(--hollow);
  svg {
    position: absolute;
    inset: 0;
    display: block;
  }
`
const MARGIN = 18
const KM_PER_DEGREE = 111.2

/** A road fitted into a box, true to scale at the middle latitude; longitudes are unwrapped first. */
export function planOf(line: { km: number[]; lon: number[]; lat: number[] }, width: number, height: number) {
  const { km, lat } = line
  const lon: number[] = []
  for (const value of line.lon) {
    const before = lon.at(-1) ?? value
    lon.push(value + 360 * Math.round((before - value) / 360))
  }
  const [west, east, south, north] = [Math.min(...lon), Math.max(...lon), Math.min(...lat), Math.max(...lat)]
  const narrow = Math.cos((((south + north) / 2) * Math.PI) / 180)
  const scale = Math.min((width - 2 * MARGIN) / Math.max((east - west) * narrow, 1e-3), (height - 2 * MARGIN) / Math.max(north - south, 1e-3))
  const [midX, midY] = [(west + east) / 2, (south + north) / 2]
  const x = (value: number) => width / 2 + (value - midX) * narrow * scale
  const y = (value: number) => height / 2 - (value - midY) * scale
  const points = lon.map((value, i) => ({ km: km[i] ?? 0, x: x(value), y: y(lat[i] ?? 0) }))
  return {
    scale,
    points,
    x: (value: number) => x(value + 360 * Math.round((midX - value) / 360)),
    y,
    at: (wanted: number) => {
      const after = Math.max(
        1,
        points.findIndex((p) => p.km >= wanted),
      )
      const [a, b] = [points[after - 1], points[after]]
      if (!a || !b) return points.at(-1) ?? { x: 0, y: 0 }
      const share = b.km > a.km ? Math.max(0, Math.min(1, (wanted - a.km) / (b.km - a.km))) : 0
      return { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) }
    },
  }
}
type RoadOnPlan = ReturnType<typeof planOf>

function useLand(): Ring[] {
  const [land, setLand] = useState<Ring[]>([])
  useEffect(() => {
    let there = true
    void Promise.all([import('world-atlas/land-50m.json'), import('topojson-client')]).then(([atlas, { feature }]) => {
      const world = atlas.default as never as Parameters<typeof feature>[0]
      const shapes = feature(world, world.objects.land as never) as unknown as {
        features: { geometry: { coordinates: Ring[][] } }[]
      }
      if (there) setLand(shapes.features.flatMap((f) => f.geometry.coordinates.map((polygon) => polygon[0] ?? [])))
    })
    return () => {
      there = false
    }
  }, [])
  return land
}

/** The playhead from above: moved as it is, so that the road under it is not painted anew. */
const Here = styled.i`
  position: absolute;
  left: -8px;
  top: -8px;
  width: 16px;
  height: 16px;
  border-radius: 50%;
  background: var(--now);
  border: 2px solid var(--onnow);
  pointer-events: none;
  will-change: transform;
`

export function RoadPlan() {
  const { assessment, sheet } = useDesk()
  const { moment } = useMoment()
  const goToKm = useGoToKm()
  const units = useUnits()
  const [frame, { width, height }] = useSize<HTMLDivElement>()
  const line = assessment.profile
  const land = useLand()
  const map = useMemo(
    () => (line?.lat_deg && line.lon_deg && width > 0 ? planOf({ km: line.km, lon: line.lon_deg, lat: line.lat_deg }, width, height) : null),
    [line, width, height],
  )
  if (!line?.lat_deg) return null
  const now = map?.at(assessment.moments?.km[moment] ?? 0)
  const far = map ? niceLength(80 / map.scale) : 0
  return (
    <Frame ref={frame}>
      {map && now && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`The road from above, ${units.show(assessment.road?.length_km ?? 0, 'distance')}`}
          onClick={(e) => {
            const box = e.currentTarget.getBoundingClientRect()
            const off = (p: { x: number; y: number }) => (p.x - e.clientX + box.left) ** 2 + (p.y - e.clientY + box.top) ** 2
            goToKm(map.points.reduce((best, p) => (off(p) < off(best) ? p : best)).km)
          }}
        >
          <Outline land={land} map={map} width={width} height={height} />
          <Way map={map} days={assessment.days} stops={sheet.road.stops} />
          <path
            d={`M10 ${height - 10}v4h${(far * map.scale).toFixed(1)}v-4`}
            transform="translate(0 -4)"
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.3}
          />
          <text x={12} y={height - 16} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)' }}>
            {units.show(far * KM_PER_DEGREE, 'distance')}
          </text>
        </svg>
      )}
      {now && <Here style={{ transform: `translate(${now.x.toFixed(1)}px, ${now.y.toFixed(1)}px)` }} />}
    </Frame>
  )
}

/** The road with its nights and larger shops: all that does not move with the playhead. */
const Way = memo(function Way({ map, days, stops }: { map: RoadOnPlan; days: Day[]; stops: Stop[] }) {
  const path = `M${map.points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}`
  return (
    <>
      <path d={path} fill="none" stroke="var(--tag)" strokeWidth={5} strokeLinejoin="round" />
      <path d={path} fill="none" stroke="var(--ink)" strokeWidth={2.2} strokeLinejoin="round" />
      {days
        .slice(0, -1)
        .filter((d) => !d.rest)
        .map((d) => {
          const p = map.at(d.to_km)
          return <circle key={d.number} cx={p.x} cy={p.y} r={2.6} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.3} />
        })}
      {stops
        .filter((s) => s.shop === 'full')
        .map((s) => {
          const p = map.at(s.at_km)
          return (
            <rect key={s.id} x={p.x - 3} y={p.y - 3} width={6} height={6} fill="var(--ink)">
              <title>{s.name}</title>
            </rect>
          )
        })}
    </>
  )
})

/** Degrees of latitude that make a round number of kilometres. */
function niceLength(degrees: number): number {
  const km = degrees * KM_PER_DEGREE
  const step = 10 ** Math.floor(Math.log10(km))
  return (([5, 2, 1].find((f) => f * step <= km) ?? 1) * step) / KM_PER_DEGREE
}

const Outline = memo(function Outline({ land, map, width, height }: { land: Ring[]; map: RoadOnPlan; width: number; height: number }) {
  const paths = land.flatMap((ring) => {
    const points = ring.map(([lon, lat]) => [map.x(lon), map.y(lat)] as const)
    const near = points.some(([x, y]) => x > -width && x < 2 * width && y > -height && y < 2 * height)
    return near && Math.max(...points.map(([x]) => x)) - Math.min(...points.map(([x]) => x)) < map.scale * 330
      ? [`M${points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`]
      : []
  })
  return <path d={paths.join('')} fill="var(--sky)" stroke="var(--edge)" strokeWidth={1} />
})
