/** What lies on the map of the road: nights, places with their names, the longest gaps, findings; and what each mark means. */
import styled from 'styled-components'
import type { Assessment, Stop } from '../api/client'
import { useDesk } from '../api/tour'
import { phone } from '../ui/theme'
import { useGoToKm } from './moment'
import { NumberTab } from './ribbonMarks'
import { type Point, type RoadMapped, withRoom } from './roadMap'

/** From so close on every stop is drawn, and not the shops only. */
const ALL_STOPS = 3
const LETTER_PX = 6.4
/** Of each supply so many of the longest gaps are marked. */
const GAPS = 4
const TOOLS = { wide: 190, high: 66 }
const GAP_STYLE = { water: { stroke: 'var(--water)', dash: '1 5' }, food: { stroke: 'var(--food)', dash: '7 5' } } as const

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

/** The longest stretches without water or food, beside the road's line. */
export function GapBands({ map, gaps }: { map: RoadMapped; gaps: Assessment['gaps'] }) {
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
export function Marks({ assessment, onMap, width, height, near }: MarksProps) {
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
export const Keys = () => (
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
