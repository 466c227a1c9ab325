/** All of the ribbon that does not move with the playhead: weight or weather, the land, its stops, nights and days. */
import { memo } from 'react'
import { type Assessment, type Day, type Finding, type Moments, type Stop, supplyOf, type TourSheet } from '../api/client'
import type { useUnits } from '../ui/preferences'
import { aboutAir, airIsGuessed } from './air'
import { Drop, NumberTab, Shop } from './ribbonMarks'
import { RibbonHazards } from './RibbonHazards'
import { HISTORY_TOP, RibbonHistory, ToCome, type Told } from './RibbonHistory'
import { RibbonSurfaces } from './RibbonSurfaces'
import { dayOfKm, type Scale } from './ribbonScale'
import { StoreLanes } from './StoreLanes'
import { WeatherLane } from './WeatherLane'

export type OnSupply = (stop: Stop, supply: 'water' | 'shop') => void

interface LandProps {
  assessment: Assessment
  sheet: TourSheet
  scale: Scale
  width: number
  height: number
  gutter: number
  small: boolean
  skylineHeight: number
  dayNow: number
  onSupply?: OnSupply
  onKm: (km: number) => void
  units: ReturnType<typeof useUnits>
  lane: 'weight' | 'weather' | 'stores' | 'land'
  told?: Told
}

/** Where the lanes of the stores begin, under the sign. */
export const LANES_TOP = 46

export const RibbonLand = memo(function RibbonLand(props: LandProps) {
  const { assessment, sheet, scale, width, height, gutter, small, skylineHeight, dayNow, onSupply, onKm, units, lane } = props
  const { days, moments, profile, findings } = assessment
  if (!moments || !profile) return null
  const rows = { days: height - 8, nights: height - 26, shops: height - 43, water: height - 57, names: height - 68 }
  const horizon = height - 81
  const foot = horizon - skylineHeight - 3
  const shown = (km: number) => {
    const day = dayOfKm(days, km)
    return day >= scale.from && day <= scale.to
  }
  const inWindow = sheet.road.stops.filter((s) => shown(s.at_km))
  const xOf = (km: number) => scale.x(km, dayOfKm(days, km))
  const high = Math.max(...profile.elevation_m, 1)
  const low = small ? Math.min(...profile.elevation_m) - 100 : Math.min(0, ...profile.elevation_m)
  const yOf = (m: number) => horizon - ((m - low) / (high - low)) * skylineHeight
  const ridge = ridgePoints(profile.km.flatMap((km, i) => (shown(km) ? [[xOf(km), yOf(profile.elevation_m[i] ?? 0)] as const] : [])))
  const line = `M0 ${ridge.split('L')[0]?.split(' ')[1] ?? horizon}L${ridge}L${width} ${ridge.split('L').at(-1)?.split(' ')[1] ?? horizon}`
  return (
    <svg width={width} height={height} role="img" aria-label="Weight on board above the land, with water, shops, nights and days">
      <Above {...props} moments={moments} foot={foot} xOf={xOf} />
      <path d={`${line}V${height}H0Z`} fill="var(--land)" />
      <path d={line} fill="none" stroke="var(--skyline)" strokeWidth={1.6} />
      <RibbonSurfaces road={sheet.road} ridge={line} height={height} xOf={xOf} />
      <RibbonHazards road={sheet.road} y={horizon + 1} xOf={xOf} />
      {scale.edges.slice(1, -1).map((x) => (
        <path key={x} d={`M${x.toFixed(1)} ${rows.nights - 12}V${height}`} stroke="var(--landline)" strokeWidth={1} />
      ))}
      {!small &&
        [
          ['Water', rows.water + 3],
          ['Shops', rows.shops + 3],
          [aboutAir(assessment) + 'Night, ' + (units.system === 'metric' ? '°C' : '°F'), rows.nights],
          ['Day', rows.days],
        ].map(([word, y]) => (
          <text key={word} x={20} y={y} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--onland2)' }}>
            {word}
          </text>
        ))}
      <Names stops={inWindow} xOf={xOf} y={rows.names} right={width - 14} left={gutter} />
      <Supplies stops={inWindow} {...{ assessment, xOf, rows, onSupply, onKm }} />
      <Nights {...{ assessment, scale, dayNow, units, rows }} />
      {(lane === 'weight' || lane === 'weather') && (
        <Flags findings={findings} xOf={xOf} shown={shown} top={small ? 62 : 46} foot={foot} left={gutter} right={width - 22} />
      )}
    </svg>
  )
})

/** Heights of the lines of the land [px]. */
interface Rows {
  days: number
  nights: number
  shops: number
  water: number
}

/** What stands above the land: weights, stores or the weather. */
function Above({
  assessment,
  scale,
  width,
  gutter,
  small,
  units,
  lane,
  told,
  moments,
  foot,
  xOf,
}: LandProps & { moments: Moments; foot: number; xOf: (km: number) => number }) {
  const { days } = assessment
  return (
    <>
      {lane === 'weight' ? (
        <Stack
          moments={moments}
          scale={scale}
          foot={foot}
          top={told ? HISTORY_TOP : small ? 60 : 44}
          gutter={gutter}
          units={units}
          small={small}
          told={told}
          xOf={xOf}
        />
      ) : lane === 'stores' ? (
        assessment.stores && (
          <StoreLanes
            told={assessment.stores}
            moments={moments}
            scale={scale}
            top={LANES_TOP}
            foot={foot}
            gutter={gutter}
            width={width}
            small={small}
            units={units}
          />
        )
      ) : (
        lane === 'weather' && (
          <WeatherLane
            days={days}
            scale={scale}
            foot={foot - 8}
            top={52}
            gutter={gutter}
            units={units}
            small={small}
            guessed={airIsGuessed(assessment)}
          />
        )
      )}
    </>
  )
}

/** Water and shops, to look at or to set. */
function Supplies({
  stops,
  assessment,
  xOf,
  rows,
  onSupply,
  onKm,
}: Pick<LandProps, 'assessment' | 'onSupply' | 'onKm'> & { stops: Stop[]; xOf: (km: number) => number; rows: Rows }) {
  const shut = new Set(assessment.passings.filter((p) => p.shop_shut).map((p) => p.stop_id))
  return (
    <>
      {stops.map((stop) => (
        <g key={stop.id}>
          <Drop x={xOf(stop.at_km)} y={rows.water} water={stop.water} />
          <Shop x={xOf(stop.at_km)} y={rows.shops} shop={stop.shop} shut={shut.has(stop.id)} />
          {onSupply ? (
            <>
              <SupplyMark stop={stop} supply="water" x={xOf(stop.at_km)} y={rows.water} onPress={onSupply} />
              <SupplyMark stop={stop} supply="shop" x={xOf(stop.at_km)} y={rows.shops} onPress={onSupply} />
            </>
          ) : (
            <rect data-mark x={xOf(stop.at_km) - 6} y={rows.water - 8} width={12} height={28} fill="transparent" onClick={() => onKm(stop.at_km)}>
              <title>{stop.name}</title>
            </rect>
          )}
        </g>
      ))}
    </>
  )
}

/** How cold each night is, and the numbers of the days. */
function Nights({ assessment, scale, dayNow, units, rows }: Pick<LandProps, 'assessment' | 'scale' | 'dayNow' | 'units'> & { rows: Rows }) {
  const days = assessment.days.slice(scale.from - 1, scale.to)
  const nights = withRoom(days.map(nightWish(scale)).filter(({ day }) => !day.rest))
  const numbers = withRoom(days.map(numberWish(scale, dayNow)))
  return (
    <>
      {days.map((day, i) => {
        const a = scale.edges[i] ?? 0
        const b = scale.edges[i + 1] ?? 0
        const night = units.figure(day.night_low_c, 'temperature')
        const cold = day.night_low_c < 0
        return (
          <g key={day.number}>
            {nights.has(day.number) && (
              <>
                {cold && (
                  <rect
                    x={b - 13}
                    y={rows.nights - 12}
                    width={26}
                    height={15}
                    rx={2}
                    fill="var(--land)"
                    stroke="var(--onland)"
                    strokeWidth={1.3}
                    strokeDasharray={airIsGuessed(assessment) ? '3 2' : undefined}
                  />
                )}
                <text
                  x={b}
                  y={rows.nights}
                  fontSize="var(--size-fine)"
                  textAnchor="middle"
                  style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--onland)' }}
                >
                  {night}
                </text>
              </>
            )}
            {day.number === dayNow && <rect x={a + 1} y={rows.days - 12} width={Math.max(b - a - 2, 18)} height={16} fill="var(--now)" />}
            {numbers.has(day.number) && (
              <text
                x={(a + b) / 2}
                y={rows.days}
                fontSize="var(--size-fine)"
                textAnchor="middle"
                fontWeight={day.number === dayNow ? 750 : 500}
                style={{ fontStretch: 'var(--width-narrow)', fill: day.number === dayNow ? 'var(--onnow)' : 'var(--onland)' }}
              >
                {day.number}
              </text>
            )}
          </g>
        )
      })}
    </>
  )
}

/** A figure that wants a place: around where, how wide to each side, and the lower its rank, the sooner it gets it. */
interface Wish {
  day: Day
  x: number
  half: number
  rank: number
}

/** The days whose figures have room beside each other. */
function withRoom(wishes: Wish[]): Set<number> {
  const taken: Wish[] = []
  for (const wish of wishes.sort((a, b) => a.rank - b.rank)) if (!taken.some((t) => Math.abs(t.x - wish.x) < t.half + wish.half)) taken.push(wish)
  return new Set(taken.map(({ day }) => day.number))
}

/** How cold nights are; frost needs more room, for its frame, and goes first. */
const nightWish = (scale: Scale) => (day: Day, i: number) => ({
  ...{ day, x: scale.edges[i + 1] ?? 0, rank: day.night_low_c },
  half: day.night_low_c < 0 ? 13.5 : 8.5,
})

/** Numbers of days: today first, then each fifth. */
const numberWish = (scale: Scale, dayNow: number) => (day: Day, i: number) => ({
  ...{ day, x: ((scale.edges[i] ?? 0) + (scale.edges[i + 1] ?? 0)) / 2, half: day.number > 9 ? 8.5 : 5.5 },
  rank: day.number === dayNow ? 0 : day.number % 5 === 0 ? 1 : 2,
})

/** Averages what falls on the same two pixels: hills narrower than that are noise at this scale. */
function ridgePoints(points: (readonly [number, number])[]): string {
  const bins = new Map<number, [number, number]>()
  for (const [x, y] of points) {
    const bin = bins.get(Math.round(x / 2)) ?? [0, 0]
    bins.set(Math.round(x / 2), [bin[0] + y, bin[1] + 1])
  }
  return [...bins].map(([bin, [sum, count]]) => `${bin * 2} ${(sum / count).toFixed(1)}`).join('L')
}

function Stack({
  moments,
  scale,
  foot,
  top,
  gutter,
  units,
  small,
  told,
  xOf,
}: {
  moments: Moments
  scale: Scale
  foot: number
  top: number
  gutter: number
  units: LandProps['units']
  small: boolean
  told?: Told
  xOf: (km: number) => number
}) {
  const supplies = [...moments.supplies].reverse()
  const layers = [moments.gear_kg, moments.fuel_kg, ...supplies.map((s) => s.mass_kg)]
  // What was lacking on a road that is ridden, nobody lacks any more.
  const lacking = supplyOf(moments, 'water').short.map((l, i) => ((moments.km[i] ?? 0) < (told?.at_km ?? 0) ? 0 : l))
  const base = Math.min(...moments.gear_kg) - 3
  const peak = Math.max(...moments.total_kg.map((t, i) => t + (lacking[i] ?? 0)), ...(told?.planned.total_kg ?? []))
  const perKg = (foot - top) / (peak - base)
  const index = moments.km.map((_, i) => i).filter((i) => (moments.day[i] ?? 0) >= scale.from && (moments.day[i] ?? 0) <= scale.to)
  const x = (i: number) => scale.x(moments.km[i] ?? 0, moments.day[i] ?? 1).toFixed(1)
  const y = (kg: number) => (foot - (kg - base) * perKg).toFixed(1)
  const sums = layers.map((_, n) => index.map((i) => layers.slice(0, n + 1).reduce((sum, layer) => sum + (layer[i] ?? 0), 0)))
  const names = ['kit', 'fuel', ...supplies.map((s) => s.supply)]
  const edge = (sum: number[]) => index.map((i, k) => `${x(i)} ${y(sum[k] ?? base)}`).join('L')
  const short = index.filter((i) => (lacking[i] ?? 0) > 0.05)
  const ticks = niceTicks(base, peak)
  const teeth = Array.from(
    { length: Math.max(2, Math.round((Number(x(index.at(-1) ?? 0)) - gutter) / 7)) },
    (_, i) => `${gutter + i * 7} ${foot + (i % 2 ? -3.5 : 0.5)}`,
  )
  return (
    <g>
      {!small &&
        ticks.map((kg) => (
          <g key={kg}>
            <path d={`M${gutter} ${y(kg)}H${x(index.at(-1) ?? 0)}`} stroke="var(--hair)" strokeWidth={1} />
            <text
              x={gutter - 5}
              y={Number(y(kg)) + 4}
              fontSize="var(--size-fine)"
              textAnchor="end"
              style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink3)' }}
            >
              {units.figure(kg, 'mass', 0)}
            </text>
          </g>
        ))}
      {sums.map((sum, n) => {
        const lower = n === 0 ? index.map(() => base) : (sums[n - 1] ?? [])
        const back = index
          .map((i, k) => `${x(i)} ${y(lower[k] ?? base)}`)
          .reverse()
          .join('L')
        return <path key={names[n]} d={`M${edge(sum)}L${back}Z`} fill={`url(#${names[n]})`} />
      })}
      {sums.map((sum, n) => (
        <path
          key={names[n]}
          d={`M${edge(sum)}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={n === sums.length - 1 ? 1.6 : 0.9}
          strokeLinejoin="round"
        />
      ))}
      {told && <ToCome told={told} scale={scale} xOf={xOf} foot={foot} />}
      {short.length > 0 &&
        (() => {
          const worst = short.reduce((a, b) => ((lacking[b] ?? 0) > (lacking[a] ?? 0) ? b : a))
          const value = lacking[worst] ?? 0
          return (
            <text
              x={Number(x(worst)) + 20}
              y={top + 44} /* below the tabs of findings */
              fontSize="var(--size-fine)"
              fontWeight={650}
              style={{ fontStretch: 'var(--width-narrow)', paintOrder: 'stroke', stroke: 'var(--sky)', strokeWidth: 5 }}
            >
              {units.show(value, 'volume')} short
            </text>
          )
        })()}
      {short.map((i) => {
        const total = moments.total_kg[i] ?? 0
        return <path key={i} d={`M${x(i)} ${y(total + (lacking[i] ?? 0))}h3`} stroke="var(--ink)" strokeWidth={1.6} />
      })}
      <path d={`M${teeth.join('L')}V${foot + 3}H${gutter}Z`} fill="var(--sky)" />
      {told && <RibbonHistory told={told} scale={scale} xOf={xOf} yOf={(kg) => Number(y(kg))} foot={foot} units={units} />}
    </g>
  )
}

function niceTicks(low: number, high: number): number[] {
  const step = [2, 5, 10, 20, 50].find((s) => (high - low) / s <= 4) ?? 100
  const ticks = []
  for (let t = Math.ceil(low / step) * step; t < high; t += step) ticks.push(t)
  return ticks
}

const RANK = (stop: Stop) => (stop.shop === 'full' ? 2 : stop.shop === 'basic' ? 1 : 0)

/** Names where there is room, the larger places first; the first and the last always. */
function Names({ stops, xOf, y, left, right }: { stops: Stop[]; xOf: (km: number) => number; y: number; left: number; right: number }) {
  const taken: [number, number][] = []
  const ends = new Set([stops[0]?.id, stops.at(-1)?.id])
  const order = [...stops].sort((a, b) => Number(ends.has(b.id)) - Number(ends.has(a.id)) || RANK(b) - RANK(a))
  return (
    <>
      {order.map((stop) => {
        const half = stop.name.length * 3.1 + 4
        const x = Math.max(left + half - 4, Math.min(xOf(stop.at_km), right - half + 4))
        if (taken.some(([a, b]) => x - half < b && x + half > a)) return null
        taken.push([x - half, x + half])
        return (
          <text
            key={stop.id}
            x={x}
            y={y}
            fontSize="var(--size-fine)"
            textAnchor="middle"
            style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--onland)' }}
          >
            {stop.name}
          </text>
        )
      })}
    </>
  )
}

function Flags({
  findings,
  xOf,
  shown,
  top,
  foot,
  left,
  right,
}: {
  findings: Finding[]
  xOf: (km: number) => number
  shown: (km: number) => boolean
  top: number
  foot: number
  left: number
  right: number
}) {
  const taken: [number, number][] = []
  return (
    <>
      {findings
        .filter((f) => f.at_km !== null && f.day !== null && shown(f.at_km))
        .slice(0, 9)
        .map((finding) => {
          const at = xOf(finding.at_km ?? 0)
          const x = Math.max(left + 16, Math.min(at, right - 16))
          const row = [0, 1].find((r) => !taken.some(([tx, tr]) => tr === r && Math.abs(tx - x) < 33))
          if (row === undefined) return null
          taken.push([x, row])
          return (
            <g key={finding.id}>
              <path d={`M${x} ${top + row * 22 + 18}V${foot}`} stroke="var(--ink)" strokeWidth={1} strokeDasharray="2 2" />
              <NumberTab finding={finding} x={x} y={top + row * 22 - 8} />
            </g>
          )
        })}
    </>
  )
}

const NEXT_WORD = { water: 'water', shop: 'food shop' } as const

function SupplyMark({ stop, supply, x, y, onPress }: { stop: Stop; supply: 'water' | 'shop'; x: number; y: number; onPress: OnSupply }) {
  return (
    <g data-mark onClick={() => onPress(stop, supply)} style={{ cursor: 'pointer' }}>
      <title>{`${stop.name}: ${NEXT_WORD[supply]} ${stop[supply]}. Press to change.`}</title>
      <rect
        x={x - 7}
        y={y - 8}
        width={14}
        height={14}
        fill="transparent"
        stroke={stop[supply] === 'none' ? 'var(--landline)' : 'none'}
        strokeDasharray="1.5 2.5"
        rx={7}
      />
    </g>
  )
}
