/** The road as a map to move in: dragged, turned by the wheel, pinched, or by keys; nights, gaps, places and findings on it. */
import { select } from 'd3-selection'
import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom'
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import { useDesk } from '../api/tour'
import { Button } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { phone } from '../ui/theme'
import { useGoToKm, useMoment } from './moment'
import { niceKm, pathOf, type Point, roadMap, type RoadMapped, useShapes } from './roadMap'
import { GapBands, Keys, Marks } from './RoadMapMarks'
import { useSize } from './useSize'

const MARGIN = 40
/** So many frames of land are drawn around the road. */
const AROUND = 2
const CLOSEST = 400
const STEP_PX = 80
const STEP_ZOOM = 1.6

const Frame = styled.div`
  position: relative;
  height: clamp(320px, 52vh, 640px);
  ${phone} {
    /* Beside it the page can be scrolled. */
    height: 38vh;
  }
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  overflow: hidden;
  background: var(--hollow);
  svg {
    position: absolute;
    inset: 0;
    touch-action: none;
    cursor: grab;
  }
  svg:focus-visible {
    outline: 3px solid var(--ink);
    outline-offset: -4px;
  }
  text {
    font-size: var(--size-fine);
    font-stretch: var(--width-narrow);
    paint-order: stroke;
    stroke: var(--sky);
    stroke-width: 4px;
    pointer-events: none;
  }
  .tools {
    position: absolute;
    right: 8px;
    top: 8px;
    display: flex;
    gap: 6px;
  }
  .mark {
    cursor: pointer;
  }
`
/** What moves a map: gestures through d3-zoom, buttons and keys through the same. */
function useMoving(width: number, height: number) {
  const svg = useRef<SVGSVGElement | null>(null)
  const [view, setView] = useState<ZoomTransform>(zoomIdentity)
  const behaviour = useMemo(
    () =>
      zoom<SVGSVGElement, unknown>()
        .scaleExtent([0.5, CLOSEST])
        .extent([
          [0, 0],
          [width, height],
        ])
        .translateExtent([
          [-AROUND * width, -AROUND * height],
          [(1 + AROUND) * width, (1 + AROUND) * height],
        ])
        .on('zoom', (e: { transform: ZoomTransform }) => setView(e.transform)),
    [width, height],
  )
  useEffect(() => {
    const element = svg.current
    if (!element) return
    const chosen = select(element).call(behaviour)
    return () => {
      chosen.on('.zoom', null)
    }
  }, [behaviour])
  const moved = (act: (chosen: ReturnType<typeof select<SVGSVGElement, unknown>>) => void) => {
    if (svg.current) act(select<SVGSVGElement, unknown>(svg.current))
  }
  const closer = (by: number) => moved((chosen) => behaviour.scaleBy(chosen, by))
  const aside = (x: number, y: number) => moved((chosen) => behaviour.translateBy(chosen, x / view.k, y / view.k))
  const whole = () => moved((chosen) => behaviour.transform(chosen, zoomIdentity))
  const onKeyDown = (e: KeyboardEvent) => {
    const acts: Record<string, () => void> = {
      ArrowLeft: () => aside(STEP_PX, 0),
      ArrowRight: () => aside(-STEP_PX, 0),
      ArrowUp: () => aside(0, STEP_PX),
      ArrowDown: () => aside(0, -STEP_PX),
      '+': () => closer(STEP_ZOOM),
      '=': () => closer(STEP_ZOOM),
      '-': () => closer(1 / STEP_ZOOM),
      '0': whole,
    }
    const act = acts[e.key]
    if (!act || e.ctrlKey || e.metaKey || e.altKey) return
    e.preventDefault()
    e.stopPropagation()
    act()
  }
  return { svg, view, closer, whole, onKeyDown }
}

export function RoadMap() {
  const { assessment } = useDesk()
  const [frame, { width, height }] = useSize<HTMLDivElement>()
  const line = assessment.profile
  const map = useMemo(
    () =>
      line?.lat_deg && line.lon_deg && width > 0
        ? roadMap({ km: line.km, lon: line.lon_deg, lat: line.lat_deg }, width, height, MARGIN, AROUND)
        : null,
    [line, width, height],
  )
  return (
    <>
      <Frame ref={frame}>{map && <Moving map={map} width={width} height={height} />}</Frame>
      <Keys />
    </>
  )
}

function Moving({ map, width, height }: { map: RoadMapped; width: number; height: number }) {
  const { assessment } = useDesk()
  const { moment } = useMoment()
  const goToKm = useGoToKm()
  const units = useUnits()
  const { svg, view, closer, whole, onKeyDown } = useMoving(width, height)
  const shapes = useShapes()
  const land = useMemo(() => (shapes ? { land: map.path(shapes.land), borders: map.path(shapes.borders) } : null), [map, shapes])
  const road = useMemo(() => pathOf(map.points), [map])
  const seen = (p: Point): Point => ({ x: view.applyX(p.x), y: view.applyY(p.y) })
  const onMap = (km: number) => seen(map.at(km))
  const now = onMap(assessment.moments?.km[moment] ?? 0)
  const far = niceKm((90 * map.perPixel) / view.k)
  const nearest = (x: number, y: number) =>
    map.points.reduce((best, p) => ((p.x - x) ** 2 + (p.y - y) ** 2 < (best.x - x) ** 2 + (best.y - y) ** 2 ? p : best)).km
  return (
    <>
      <svg
        ref={svg}
        width={width}
        height={height}
        tabIndex={0}
        role="application"
        aria-label="Map of the road. Arrows move it, plus and minus bring it closer, 0 shows the whole road."
        onKeyDown={onKeyDown}
        onClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect()
          const [x, y] = view.invert([e.clientX - box.left, e.clientY - box.top])
          goToKm(nearest(x, y))
        }}
      >
        <g transform={view.toString()} fill="none">
          {land && <path d={land.land} fill="var(--sky)" stroke="var(--edge)" vectorEffect="non-scaling-stroke" />}
          {land && <path d={land.borders} stroke="var(--edge)" strokeDasharray="5 4" vectorEffect="non-scaling-stroke" />}
          <GapBands map={map} gaps={assessment.gaps} />
          <path d={road} stroke="var(--tag)" strokeWidth={5} strokeLinejoin="round" vectorEffect="non-scaling-stroke" />
          <path d={road} stroke="var(--ink)" strokeWidth={2.2} strokeLinejoin="round" vectorEffect="non-scaling-stroke" />
        </g>
        <Marks {...{ assessment, onMap, width, height, near: view.k }} />
        <circle cx={now.x} cy={now.y} r={8} fill="var(--now)" stroke="var(--onnow)" strokeWidth={2} />
        <path d={`M12 ${height - 14}v4h${((far * view.k) / map.perPixel).toFixed(1)}v-4`} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
        <text x={14} y={height - 18}>
          {units.show(far, 'distance', far < 1 ? 1 : 0)}
        </text>
      </svg>
      <div className="tools">
        <Button $small aria-label="Closer" onPress={() => closer(STEP_ZOOM)}>
          +
        </Button>
        <Button $small aria-label="Farther" onPress={() => closer(1 / STEP_ZOOM)}>
          −
        </Button>
        <Button $small onPress={whole}>
          Whole road
        </Button>
      </div>
    </>
  )
}
