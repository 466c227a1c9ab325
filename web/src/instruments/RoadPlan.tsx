/** The road from above: its line, stops and playhead, over an outline of the land (Natural Earth, public domain). */
import { memo, useEffect, useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import { useDesk } from '../api/tour'
import { useUnits } from '../ui/preferences'
import { usePlayhead } from './moment'
import { useSize } from './useSize'

type Ring = [number, number][]
const Frame = styled.div`
  position: relative; flex: 1; min-height: 180px; border: 1.5px solid var(--edge); border-radius: 3px; overflow: hidden; background: var(--hollow);
  svg { position: absolute; inset: 0; display: block; }
`
const MARGIN = 18

/** Fits longitudes and latitudes into a box, true to scale at the middle latitude; longitudes are unwrapped first. */
export function projection(lon: number[], lat: number[], width: number, height: number) {
  const flat = lon.reduce<number[]>((list, value) => {
    const before = list.at(-1) ?? value
    return [...list, value + 360 * Math.round((before - value) / 360)]
  }, [])
  const [west, east, south, north] = [Math.min(...flat), Math.max(...flat), Math.min(...lat), Math.max(...lat)]
  const narrow = Math.cos((((south + north) / 2) * Math.PI) / 180)
  const scale = Math.min((width - 2 * MARGIN) / Math.max((east - west) * narrow, 1e-3), (height - 2 * MARGIN) / Math.max(north - south, 1e-3))
  const [midX, midY] = [(west + east) / 2, (south + north) / 2]
  return {
    flat,
    scale,
    x: (value: number) => width / 2 + (value - midX) * narrow * scale,
    y: (value: number) => height / 2 - (value - midY) * scale,
    near: (value: number) => value + 360 * Math.round((midX - value) / 360),
  }
}

function useLand(): Ring[] {
  const [land, setLand] = useState<Ring[]>([])
  useEffect(() => {
    let there = true
    void Promise.all([import('world-atlas/land-50m.json'), import('topojson-client')]).then(([atlas, { feature }]) => {
      const world = atlas.default as never as Parameters<typeof feature>[0]
      const shapes = feature(world, world.objects.land as never) as unknown as { features: { geometry: { coordinates: Ring[][] } }[] }
      if (there) setLand(shapes.features.flatMap((f) => f.geometry.coordinates.map((polygon) => polygon[0] ?? [])))
    })
    return () => {
      there = false
    }
  }, [])
  return land
}

export function RoadPlan() {
  const { assessment, sheet } = useDesk()
  const { moment, goToKm } = usePlayhead()
  const units = useUnits()
  const frame = useRef<HTMLDivElement>(null)
  const { width, height } = useSize(frame)
  const line = assessment.profile
  const land = useLand()
  const map = useMemo(() => (line?.lat_deg && line.lon_deg && width > 0 ? projection(line.lon_deg, line.lat_deg, width, height) : null), [line, width, height])
  if (!line?.lat_deg || !line.lon_deg) return null
  const lat = line.lat_deg
  const at = (km: number) => {
    if (!map) return { x: 0, y: 0 }
    let i = line.km.findIndex((k) => k >= km)
    if (i <= 0) i = i === 0 ? 1 : line.km.length - 1
    const [a, b] = [line.km[i - 1] ?? 0, line.km[i] ?? 0]
    const share = b > a ? Math.max(0, Math.min(1, (km - a) / (b - a))) : 0
    const between = (values: number[]) => (values[i - 1] ?? 0) + share * ((values[i] ?? 0) - (values[i - 1] ?? 0))
    return { x: map.x(between(map.flat)), y: map.y(between(lat)) }
  }
  const now = at(assessment.moments?.km[moment] ?? 0)
  const far = map ? niceLength(80 / map.scale) : 0
  return (
    <Frame ref={frame}>
      {map && (
        <svg width={width} height={height} role="img" aria-label={`The road from above, ${units.show(assessment.road?.length_km ?? 0, 'distance')}`}
          onClick={(e) => {
            const box = e.currentTarget.getBoundingClientRect()
            const [x, y] = [e.clientX - box.left, e.clientY - box.top]
            let best = 0
            line.km.forEach((_, i) => {
              const off = (j: number) => (map.x(map.flat[j] ?? 0) - x) ** 2 + (map.y(lat[j] ?? 0) - y) ** 2
              if (off(i) < off(best)) best = i
            })
            goToKm(line.km[best] ?? 0)
          }}>
          <Outline land={land} map={map} width={width} height={height} />
          <path d={`M${map.flat.map((lon, i) => `${map.x(lon).toFixed(1)} ${map.y(lat[i] ?? 0).toFixed(1)}`).join('L')}`} fill="none" stroke="var(--tag)" strokeWidth={5} strokeLinejoin="round" />
          <path d={`M${map.flat.map((lon, i) => `${map.x(lon).toFixed(1)} ${map.y(lat[i] ?? 0).toFixed(1)}`).join('L')}`} fill="none" stroke="var(--ink)" strokeWidth={2.2} strokeLinejoin="round" />
          {assessment.days.slice(0, -1).filter((d) => !d.rest).map((d) => {
            const p = at(d.to_km)
            return <circle key={d.number} cx={p.x} cy={p.y} r={2.6} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.3} />
          })}
          {sheet.road.stops.filter((s) => s.shop === 'full').map((s) => {
            const p = at(s.at_km)
            return <rect key={s.id} x={p.x - 3} y={p.y - 3} width={6} height={6} fill="var(--ink)"><title>{s.name}</title></rect>
          })}
          <circle cx={now.x} cy={now.y} r={7} fill="var(--now)" stroke="var(--onnow)" strokeWidth={2} />
          <path d={`M10 ${height - 10}v4h${(far * map.scale).toFixed(1)}v-4`} transform="translate(0 -4)" fill="none" stroke="var(--ink)" strokeWidth={1.3} />
          <text x={12} y={height - 16} fontSize={12} style={{ fontStretch: '84%' }}>{units.show(far * 111.2, 'distance')}</text>
        </svg>
      )}
    </Frame>
  )
}

/** Degrees of latitude that make a round number of kilometres. */
function niceLength(degrees: number): number {
  const km = degrees * 111.2
  const step = 10 ** Math.floor(Math.log10(km))
  return ([5, 2, 1].find((f) => f * step <= km) ?? 1) * step / 111.2
}

const Outline = memo(function Outline({ land, map, width, height }: { land: Ring[]; map: ReturnType<typeof projection>; width: number; height: number }) {
  const paths = land.flatMap((ring) => {
    const points = ring.map(([lon, lat]) => [map.x(map.near(lon)), map.y(lat)] as const)
    const near = points.some(([x, y]) => x > -width && x < 2 * width && y > -height && y < 2 * height)
    return near && Math.max(...points.map(([x]) => x)) - Math.min(...points.map(([x]) => x)) < map.scale * 330 ? [`M${points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}Z`] : []
  })
  return <path d={paths.join('')} fill="var(--sky)" stroke="var(--edge)" strokeWidth={1} />
})
