/** The road from above: its line, stops and playhead, over an outline of the land (Natural Earth, public domain). */
import { memo, useMemo } from 'react'
import styled from 'styled-components'
import type { Day, Stop } from '../api/client'
import { useDesk } from '../api/tour'
import { useUnits } from '../ui/preferences'
import { useGoToKm, useMoment } from './moment'
import { niceKm, pathOf, roadMap, type RoadMapped, useShapes } from './roadMap'
import { useSize } from './useSize'

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
  const shapes = useShapes()
  const map = useMemo(
    () =>
      line?.lat_deg && line.lon_deg && width > 0 ? roadMap({ km: line.km, lon: line.lon_deg, lat: line.lat_deg }, width, height, MARGIN, 0) : null,
    [line, width, height],
  )
  const land = useMemo(() => (map && shapes ? map.path(shapes.land) : ''), [map, shapes])
  if (!line?.lat_deg) return null
  const now = map?.at(assessment.moments?.km[moment] ?? 0)
  const far = map ? niceKm(80 * map.perPixel) : 0
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
          <path d={land} fill="var(--sky)" stroke="var(--edge)" strokeWidth={1} />
          <Way map={map} days={assessment.days} stops={sheet.road.stops} />
          <path
            d={`M10 ${height - 10}v4h${(far / map.perPixel).toFixed(1)}v-4`}
            transform="translate(0 -4)"
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.3}
          />
          <text x={12} y={height - 16} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)' }}>
            {units.show(far, 'distance')}
          </text>
        </svg>
      )}
      {now && <Here style={{ transform: `translate(${now.x.toFixed(1)}px, ${now.y.toFixed(1)}px)` }} />}
    </Frame>
  )
}

/** The road with its nights and larger shops: all that does not move with the playhead. */
const Way = memo(function Way({ map, days, stops }: { map: RoadMapped; days: Day[]; stops: Stop[] }) {
  const path = pathOf(map.points)
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
