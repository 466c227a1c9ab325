/** The stores over the land: a lane a supply, small things as threads, all on the ribbon's scale. */
import { memo } from 'react'
import { type AtStop, type Lane, type Moments, pick, type StoresTold } from '../api/client'
import type { useUnits } from '../ui/preferences'
import { isQuantity } from '../ui/units'
import type { Scale } from './ribbonScale'

type Units = ReturnType<typeof useUnits>

/** A lane with the room it is drawn in. */
export interface LaneRow {
  lane: Lane
  top: number
  foot: number
  /** What its full height stands for. */
  most: number
}

const SHARES: Partial<Record<Lane['group'], number>> = { water: 3, food: 1.5, fuel: 1, power: 1.5 }
/** What the figures beside a lane need of height; the rest goes by share. */
const FIGURES = 60
const THREAD = 19
const HEAD = 18
const BAND = 18
const DEEP = 40

/** How the lanes share the height: the large ones by their weight, small things a thread each. */
export function laneRows(told: StoresTold, top: number, foot: number): LaneRow[] {
  const large = told.lanes.filter((lane) => SHARES[lane.group] !== undefined)
  const threads = told.lanes.filter((lane) => SHARES[lane.group] === undefined && Math.max(...lane.stock, ...lane.short) > 0)
  const small = threads.length ? threads.length * THREAD + HEAD : 0
  const parts = large.reduce((sum, lane) => sum + (SHARES[lane.group] ?? 0), 0) || 1
  const room = Math.max(foot - top - small, 120)
  const least = Math.min(FIGURES, room / Math.max(large.length, 1))
  const rest = room - least * large.length
  let at = top
  const rows = large.map((lane) => {
    const high = least + (rest * (SHARES[lane.group] ?? 0)) / parts
    at += high
    return { lane, top: at - high + 14, foot: at - 2, most: mostOf(lane) }
  })
  at += HEAD
  return [
    ...rows,
    ...threads.map((lane) => {
      at += THREAD
      return { lane, top: at - THREAD + 4, foot: at, most: mostOf(lane) }
    }),
  ]
}

const mostOf = (lane: Lane) => Math.max(...lane.stock.map((s, i) => s + pick(lane.short, i)), ...(lane.capacity ?? []), 1e-6)
export const isThread = (lane: Lane) => SHARES[lane.group] === undefined

/** An amount in the unit of its lane. */
export const amount = (units: Units, unit: string, value: number, decimals?: number): string =>
  isQuantity(unit) ? units.show(value, unit, decimals ?? (unit === 'mass' && value < 1 ? 2 : undefined)) : `${Math.round(value)}\u00a0${unit}`

export const yOf = (row: LaneRow, value: number) => row.foot - (value / row.most) * (row.foot - row.top)

interface Props {
  told: StoresTold
  moments: Moments
  scale: Scale
  top: number
  foot: number
  gutter: number
  width: number
  small: boolean
  units: Units
}

export const StoreLanes = memo(function StoreLanes({ told, moments, scale, top, foot, gutter, width, small, units }: Props) {
  const rows = laneRows(told, top, foot)
  const right = scale.edges.at(-1) ?? width
  const head = rows.find((row) => isThread(row.lane))
  return (
    <g>
      {rows.map((row) =>
        isThread(row.lane) ? (
          <Thread key={row.lane.key} row={row} moments={moments} scale={scale} gutter={gutter} small={small} units={units} />
        ) : (
          <g key={row.lane.key}>
            <Area row={row} moments={moments} scale={scale} />
            <Bounds row={row} moments={moments} scale={scale} gutter={gutter} right={right} units={units} />
            <Short row={row} moments={moments} scale={scale} units={units} right={right} />
            <Marks row={row} scale={scale} units={units} right={right} plugs={row.lane.group === 'power' ? told.stops : []} small={small} />
            <path d={`M0 ${row.foot + 2}H${width}`} stroke="var(--ink)" strokeWidth={1.5} />
          </g>
        ),
      )}
      {head && !small && (
        <text
          x={20}
          y={head.top - 6}
          fontSize="var(--size-text)"
          fontWeight={750}
          style={{ fontFamily: 'Archivo Variable', fontStretch: 'var(--width-sign)' }}
        >
          Small things
        </text>
      )}
    </g>
  )
})

interface RowProps {
  row: LaneRow
  moments: Moments
  scale: Scale
}

const shown = (moments: Moments, scale: Scale) =>
  moments.km.map((_, i) => i).filter((i) => (moments.day[i] ?? 0) >= scale.from && (moments.day[i] ?? 0) <= scale.to)
const xAt = (moments: Moments, scale: Scale, i: number) => scale.x(moments.km[i] ?? 0, moments.day[i] ?? 1)

function outline({ row, moments, scale }: RowProps): { line: string; area: string } {
  const index = shown(moments, scale)
  const line = index
    .map((i, k) => {
      const [x, y] = [xAt(moments, scale, i).toFixed(1), yOf(row, pick(row.lane.stock, i)).toFixed(1)]
      // Over a rest day what is on board stays until it is left again.
      const rested = k > 0 && moments.km[i] === moments.km[i - 1] && moments.day[i] !== moments.day[i - 1]
      return rested ? `${x} ${yOf(row, pick(row.lane.stock, i - 1)).toFixed(1)}L${x} ${y}` : `${x} ${y}`
    })
    .join('L')
  const [first, last] = [index[0] ?? 0, index.at(-1) ?? 0]
  return {
    line: `M${line}`,
    area: `M${xAt(moments, scale, first).toFixed(1)} ${row.foot}L${line}L${xAt(moments, scale, last).toFixed(1)} ${row.foot}Z`,
  }
}

/** What is on board: its texture all through, or under its upper edge only where the lane is deep. */
function Area(props: RowProps) {
  const { row } = props
  const { line, area } = outline(props)
  const group = row.lane.group
  const deep = group !== 'water' && row.foot - row.top > DEEP
  const clip = `lane-${row.lane.key}`
  return (
    <g>
      <clipPath id={clip}>
        <path d={area} />
      </clipPath>
      <path d={area} fill={deep ? `var(--${group}-t)` : `url(#${group})`} />
      {deep && <path d={line} clipPath={`url(#${clip})`} fill="none" stroke={`url(#${group})`} strokeWidth={2 * BAND} />}
      <path d={line} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
    </g>
  )
}

const NAME_PX = 150
/** At the right end it is said what the vessels hold. */
const HOLDS_PX = 86

const label = { fontStretch: 'var(--width-narrow)', paintOrder: 'stroke', stroke: 'var(--sky)', strokeWidth: 5 } as const

/** What the vessels hold, and the reserve. */
function Bounds({ row, moments, scale, gutter, right, units }: RowProps & { gutter: number; right: number; units: Units }) {
  const { lane } = row
  const index = shown(moments, scale)
  const steps = (column: number[]) => `M${index.map((i) => `${xAt(moments, scale, i).toFixed(1)} ${yOf(row, pick(column, i)).toFixed(1)}`).join('L')}`
  const at = index.at(-1) ?? 0
  return (
    <g>
      {lane.capacity && <path d={steps(lane.capacity)} fill="none" stroke="var(--ink)" strokeWidth={1.8} />}
      {lane.capacity && (
        <text x={right} y={yOf(row, pick(lane.capacity, at)) - 4} fontSize="var(--size-fine)" textAnchor="end" style={label}>
          {lane.group === 'power' ? 'full at' : 'holds'} {amount(units, lane.unit, pick(lane.capacity, at))}
        </text>
      )}
      {lane.group !== 'water' && Math.max(...lane.reserve) > 0 && (
        <path d={steps(lane.reserve)} fill="none" stroke="var(--ink)" strokeWidth={1} strokeDasharray="6 3">
          <title>{`reserve: ${amount(units, lane.unit, Math.max(...lane.reserve))}`}</title>
        </path>
      )}
      <path d={`M${gutter} ${row.foot}H${right}`} stroke="var(--hair)" strokeWidth={1} />
    </g>
  )
}

/** What is missing stands empty and dashed above what is there. */
function Short({ row, moments, scale, units, right }: RowProps & { units: Units; right: number }) {
  const { lane } = row
  const index = shown(moments, scale).filter((i) => pick(lane.short, i) > row.most / 200)
  const runs: number[][] = []
  for (const i of index) {
    const run = runs.at(-1)
    if (run && run.at(-1) === i - 1 && pick(lane.short, i) === pick(lane.short, i - 1)) run.push(i)
    else runs.push([i])
  }
  let written = -Infinity
  /** Where words of so many letters stand that begin at a place; undefined where others stand already. */
  const spaced = (from: number, letters: number) => {
    const x = Math.min(from, right - HOLDS_PX - letters * 6.2)
    if (x < written) return undefined
    written = x + letters * 6.2
    return x
  }
  return (
    <g>
      {runs.map((run) => {
        const missing = pick(lane.short, run[0] ?? 0)
        const x = (i: number) => xAt(moments, scale, i).toFixed(1)
        const end = Number(x(run.at(-1) ?? 0))
        const words = `${amount(units, lane.unit, missing)} short`
        const at = spaced(end + 5, words.length)
        const upper = run.map((i) => `${x(i)} ${yOf(row, pick(lane.stock, i) + missing).toFixed(1)}`)
        const lower = [...run].reverse().map((i) => `${x(i)} ${yOf(row, pick(lane.stock, i)).toFixed(1)}`)
        return (
          <g key={run[0]}>
            <path d={`M${[...upper, ...lower].join('L')}Z`} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.3} strokeDasharray="3 2.5" />
            {at !== undefined && (
              <text x={at} y={row.top + 9} fontSize="var(--size-fine)" fontWeight={680} style={label}>
                {words}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}

/** What is gone, what is to be known, and plugs; words only where they have room. */
function Marks({
  row,
  scale,
  units,
  right,
  plugs,
  small,
}: Omit<RowProps, 'moments'> & { units: Units; right: number; plugs: AtStop[]; small: boolean }) {
  // On a phone the lane's name stands where its notes begin.
  const taken: [number, number][] = small ? [[0, NAME_PX]] : []
  const free = (x: number, words: string) => {
    const [a, b] = [x - words.length * 3 - 3, x + words.length * 3 + 3]
    if (b > right + 4 || taken.some(([c, d]) => a < d && b > c)) return false
    taken.push([a, b])
    return true
  }
  const inside = (day: number) => day >= scale.from && day <= scale.to
  const gone = row.lane.gone.filter((g) => inside(g.from_day) || inside(g.to_day))
  const once = gone.filter((g, i) => gone.findIndex((other) => units.say(other.words) === units.say(g.words)) === i)
  return (
    <g>
      {plugs
        .filter((stop) => inside(stop.day) && stop.deeds.some((d) => d.verb === 'charge'))
        .map((stop) => {
          const x = scale.x(stop.at_km, stop.day)
          return (
            <g key={stop.at_km}>
              <rect x={x - 6} y={row.foot - 13} width={12} height={11} rx={1.5} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.2} />
              <path d={`M${x - 2} ${row.foot - 9}v3M${x + 2} ${row.foot - 9}v3`} stroke="var(--ink)" strokeWidth={1.3} />
            </g>
          )
        })}
      {once.map((g) => {
        const [a, b] = [scale.x(g.from_km, g.from_day), scale.x(g.to_km, g.to_day)]
        const words = units.say(g.words)
        const wide = Math.max(b - a, words.length * 5.6 + 10)
        const x = Math.min(a, right - wide)
        if (!free(x + wide / 2, words)) return null
        return (
          <g key={`${g.from_km}${words}`}>
            <rect x={x} y={row.foot - 20} width={wide} height={17} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.2} strokeDasharray="3 2" />
            <text
              x={x + wide / 2}
              y={row.foot - 7}
              fontSize="var(--size-fine)"
              fontWeight={650}
              textAnchor="middle"
              style={{ fontStretch: 'var(--width-narrow)' }}
            >
              {words}
            </text>
          </g>
        )
      })}
      {row.lane.notes
        .filter((note) => inside(note.day))
        .map((note) => {
          const words = units.say(note.words)
          const x = Math.max(scale.x(note.km, note.day), (scale.edges[0] ?? 0) + words.length * 3)
          return (
            free(x, words) && (
              <text key={words} x={x} y={row.top - 2} fontSize="var(--size-fine)" textAnchor="middle" style={label}>
                {words}
              </text>
            )
          )
        })}
    </g>
  )
}

/** A small thing: as thick as what is left; a step is a shop that sells it. */
function Thread({ row, moments, scale, gutter, small, units }: RowProps & { gutter: number; small: boolean; units: Units }) {
  const { lane } = row
  const { area } = outline({ row, moments, scale })
  const inside = (day: number) => day >= scale.from && day <= scale.to
  const right = scale.edges.at(-1) ?? 0
  return (
    <g>
      <title>{`${lane.name}: ${amount(units, lane.unit, lane.a_day, lane.unit === 'mass' ? 2 : undefined)} a day`}</title>
      <path d={area} fill="url(#kit)" stroke="var(--ink)" strokeWidth={1} />
      {!small && (
        <text x={gutter - 8} y={row.foot - 2} fontSize="var(--size-fine)" textAnchor="end" style={{ fontStretch: 'var(--width-narrow)' }}>
          {lane.name.length > 22 ? `${lane.name.slice(0, 21)}…` : lane.name}
        </text>
      )}
      {lane.gone
        .filter((g) => inside(g.from_day) || inside(g.to_day))
        .map((g) => {
          const [a, b] = [scale.x(g.from_km, g.from_day), scale.x(g.to_km, g.to_day)]
          const words = units.say(g.words)
          const fits = b - a > words.length * 5.6
          return (
            <g key={g.from_km}>
              <rect
                x={a}
                y={row.top}
                width={Math.max(b - a, 4)}
                height={row.foot - row.top}
                fill="var(--tag)"
                stroke="var(--ink)"
                strokeDasharray="3 2"
              />
              <text
                x={fits ? (a + b) / 2 : Math.min(b + 4, right - words.length * 5.6)}
                y={row.foot - 2}
                fontSize="var(--size-fine)"
                textAnchor={fits ? 'middle' : 'start'}
                style={fits ? { fontStretch: 'var(--width-narrow)' } : label}
              >
                {words}
              </text>
            </g>
          )
        })}
    </g>
  )
}
