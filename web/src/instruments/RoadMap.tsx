/** The road as a map to move in: dragged, turned by the wheel, pinched, or by keys; nights, gaps, places and findings on it. */
import { select } from 'd3-selection'
import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom'
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import type { Assessment, Stop } from '../api/client'
import { useDesk } from '../api/tour'
import { Button } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { phone } from '../ui/theme'
import { useGoToKm, useMoment } from './moment'
import { NumberTab } from './ribbonMarks'
import { niceKm, pathOf, type Point, roadMap, type RoadMapped, useShapes, withRoom } from './roadMap'
import { useSize } from './useSize'

const MARGIN = 40
/** So many frames of land are drawn around the road. */
const AROUND = 2
const CLOSEST = 400
const STEP_PX = 80
const STEP_ZOOM = 1.6
/** From so close on every stop is drawn, and not the shops only. */
const ALL_STOPS = 3
const LETTER_PX = 6.4
/** Of each supply so many of the longest gaps are marked. */
const GAPS = 4
const TOOLS = { wide: 190, high: 66 }
const GAP_STYLE = { water: { stroke: 'var(--water)', dash: '1 5' }, food: { stroke: 'var(--food)', dash: '7 5' } } as const

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
const Legend = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin: 8px 0 0;
  font-size: var(--size-small);
  font-stretch: var(--width-text);
  color: var(--ink2);
  span {
    display: inline-flex;
    align-items: center;
    gap: 6px;
  }
  ${phone} {
    gap: 4px 10px;
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

/** The longest stretches without water or food, beside the road's line. */
function GapBands({ map, gaps }: { map: RoadMapped; gaps: Assessment['gaps'] }) {
  return (['water', 'food'] as const).map((supply) =>
    gaps
      .filter((gap) => gap.supply === supply)
      .sort((a, b) => b.to_km - b.from_km - (a.to_km - a.from_km))
      .slice(0, GAPS)
      .map((gap) => (
        <path
          key={`${supply}${gap.from_km}`}
          d={map.between(gap.from_km, gap.to_km)}
          stroke={GAP_STYLE[supply].stroke}
          strokeWidth={supply === 'water' ? 15 : 11}
          strokeDasharray={GAP_STYLE[supply].dash}
          vectorEffect="non-scaling-stroke"
        />
      )),
  )
}

interface MarksProps {
  assessment: Assessment
  onMap: (km: number) => Point
  width: number
  height: number
  near: number
}

const IMPORTANCE: Record<Stop['shop'], number> = { full: 0, basic: 1, snacks: 2, none: 3 }

/** Nights, places with their names where there is room, and the findings. */
function Marks({ assessment, onMap, width, height, near }: MarksProps) {
  const { sheet } = useDesk()
  const goToKm = useGoToKm()
  // Nothing lies under the buttons.
  const inView = ({ x, y }: Point) => x > -20 && x < width + 20 && y > -20 && y < height + 20 && !(x > width - TOOLS.wide && y < TOOLS.high)
  const stops = sheet.road.stops
    .filter((stop) => near >= ALL_STOPS || stop.shop === 'full')
    .map((stop) => ({ stop, ...onMap(stop.at_km) }))
    .filter(inView)
    .sort((a, b) => IMPORTANCE[a.stop.shop] - IMPORTANCE[b.stop.shop])
  const names = withRoom(
    stops.map(({ stop, x, y }) => ({ name: stop.name, left: x + 7, top: y - 8, width: stop.name.length * LETTER_PX + 6, height: 15 })),
  )
  const nights = assessment.days
    .slice(0, -1)
    .filter((day) => !day.rest)
    .map((day) => ({ day, ...onMap(day.to_km) }))
    .filter(inView)
  const findings = withRoom(
    assessment.findings.flatMap((finding) => {
      if (finding.at_km === null) return []
      const p = onMap(finding.at_km)
      return inView(p) ? [{ finding, ...p, left: p.x - 17, top: p.y - 32, width: 36, height: 22 }] : []
    }),
  )
  return (
    <>
      {nights.map(({ day, x, y }) => (
        <circle key={day.number} cx={x} cy={y} r={4.5} fill={day.night_at ? 'var(--ink)' : 'var(--tag)'} stroke="var(--ink)" strokeWidth={1.6}>
          <title>{`Night ${day.number}, ${day.night_at || 'wild camp'}`}</title>
        </circle>
      ))}
      {stops.map(({ stop, x, y }) => (
        <rect
          key={stop.id}
          x={x - 3.5}
          y={y - 3.5}
          width={7}
          height={7}
          fill={stop.shop === 'none' ? 'var(--tag)' : 'var(--ink)'}
          stroke="var(--ink)"
          strokeWidth={1.2}
        >
          <title>{stop.name}</title>
        </rect>
      ))}
      {names.map(({ name, left, top }) => (
        <text key={`${name}${left}`} x={left} y={top + 12}>
          {name}
        </text>
      ))}
      {findings.map(({ finding, x, y }) => (
        <g
          key={finding.id}
          className="mark"
          onClick={(e) => {
            e.stopPropagation()
            goToKm(finding.at_km ?? 0)
          }}
        >
          <path d={`M${x} ${y - 10}V${y}`} stroke="var(--ink)" strokeDasharray="2 2" />
          <NumberTab finding={finding} x={x} y={y - 31} />
        </g>
      ))}
    </>
  )
}

/** What the marks mean. */
const Keys = () => (
  <Legend>
    <span>
      <svg width={12} height={12} aria-hidden="true">
        <circle cx={6} cy={6} r={4.2} fill="var(--ink)" />
      </svg>
      night at a place
    </span>
    <span>
      <svg width={12} height={12} aria-hidden="true">
        <circle cx={6} cy={6} r={4.2} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.6} />
      </svg>
      wild camp
    </span>
    <span>
      <svg width={12} height={12} aria-hidden="true">
        <rect x={2.5} y={2.5} width={7} height={7} fill="var(--ink)" />
      </svg>
      shop
    </span>
    {(['water', 'food'] as const).map((supply) => (
      <span key={supply}>
        <svg width={40} height={12} aria-hidden="true">
          <path d="M0 6H40" stroke={GAP_STYLE[supply].stroke} strokeWidth={supply === 'water' ? 12 : 9} strokeDasharray={GAP_STYLE[supply].dash} />
        </svg>
        longest without {supply}
      </span>
    ))}
    <span>numbers: findings. Land and borders: Natural Earth.</span>
  </Legend>
)
