/** The tour as a strip: weight on board above, the land with water, shops, nights and days below, one playhead for all. */
import { memo, type PointerEvent, useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import type { Assessment, Day, Finding, Moments, Stop, TourSheet } from '../api/client'
import { useDesk } from '../api/tour'
import { IconButton } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { narrow } from '../ui/theme'
import { momentAt, usePlayhead } from './moment'
import { Drop, NumberTab, Shop } from './ribbonMarks'
import { dayOfKm, ribbonScale, type Scale } from './ribbonScale'
import { Sign } from './Sign'
import { useSize } from './useSize'
import { WEATHER_KEYS, WeatherLane } from './WeatherLane'

const Frame = styled.div<{ $tall: number }>`
  position: relative; height: ${(p) => p.$tall}px; flex: none; touch-action: none; user-select: none; overflow: hidden;
  > svg { display: block; position: absolute; inset: 0; }
`
const Thumb = styled.div`
  position: absolute; inset: 0; z-index: 1; pointer-events: none;
  &:focus-visible { outline: 3px solid var(--ink); outline-offset: -3px; }
`
const Legend = styled.div`
  position: absolute; left: 20px; top: 8px; width: 116px; pointer-events: none; z-index: 2;
  > span { width: 150px; }
  strong { width: 150px; font-size: 25px; font-weight: 720; line-height: 26px; display: block; }
  span { font-size: 12.5px; font-stretch: 84%; color: var(--ink2); line-height: 15px; display: block; }
  ul { display: grid; grid-template-columns: 16px 1fr auto; gap: 0 5px; font-size: 12.5px; font-stretch: 84%; line-height: 16px; margin-top: 2px; }
  li { display: contents; }
  b { font-weight: 720; text-align: right; }
  ${narrow} { display: none; }
`

export interface RibbonProps {
  height?: number
  skylineHeight?: number
  onSupply?: (stop: Stop, supply: 'water' | 'shop') => void
  /** Where given, the ends of days can be dragged. */
  onNight?: (day: Day, km: number) => void
  lane?: 'weight' | 'weather'
}

/** Number of days shown at once on a phone, and as near as one can look. */
const PHONE_DAYS = 9
const FEWEST_DAYS = 2
const Zoom = styled.div`
  position: absolute; right: 4px; top: 0; z-index: 3; display: flex;
  button { width: 32px; height: 32px; font-size: 18px; font-weight: 700; }
`

export function Ribbon({ height = 248, skylineHeight = 50, onSupply, onNight, lane = 'weight' }: RibbonProps) {
  const { assessment, sheet } = useDesk()
  const { moment, setMoment, goToKm } = usePlayhead()
  const units = useUnits()
  const box = useRef<HTMLDivElement>(null)
  const { width } = useSize(box)
  const [dragging, setDragging] = useState(false)
  const { moments, days } = assessment
  const small = width < 1000
  const gutter = small ? 14 : 168
  const dayNow = moments?.day[moment] ?? 1
  const [wanted, setWanted] = useState(Infinity)
  const span = Math.min(days.length, wanted, small ? PHONE_DAYS : Infinity)
  const from = Math.max(1, Math.min(dayNow - Math.floor(span / 2), days.length - span + 1))
  const to = from + span - 1
  const zoom = (times: number) => setWanted(span * times >= days.length ? Infinity : Math.max(FEWEST_DAYS, Math.round(span * times)))
  const scale = useMemo(() => ribbonScale(days, gutter, width - (small ? 14 : 22), from, to), [days, gutter, width, small, from, to])

  if (!moments || !days.length) return <EmptyLand ref_={box} height={height} />

  const xNow = scale.x(moments.km[moment] ?? 0, dayNow)
  const moveTo = (event: PointerEvent<HTMLDivElement>) => {
    const left = event.currentTarget.getBoundingClientRect().left
    const found = scale.km(event.clientX - left)
    setMoment(nearestByX(moments, scale, event.clientX - left, found.km))
  }
  const sureWater = sheet.road.stops.filter((s) => s.water === 'reliable').map((s) => s.at_km).sort((a, b) => a - b)
  const steps: Record<string, () => void> = {
    ArrowRight: () => setMoment(Math.min(moment + 1, moments.km.length - 1)),
    ArrowLeft: () => setMoment(Math.max(moment - 1, 0)),
    Home: () => setMoment(0),
    End: () => setMoment(moments.km.length - 1),
    '+': () => zoom(0.5),
    '-': () => zoom(2),
    PageUp: () => goToKm(sureWater.findLast((km) => km < (moments.km[moment] ?? 0) - 0.1) ?? 0),
    PageDown: () => goToKm(sureWater.find((km) => km > (moments.km[moment] ?? 0) + 0.1) ?? moments.km.at(-1) ?? 0),
  }
  const shifted: Record<string, () => void> = {
    ArrowRight: () => goToKm(days[dayNow]?.from_km ?? moments.km.at(-1) ?? 0),
    ArrowLeft: () => goToKm(days[dayNow - 2]?.from_km ?? 0),
  }
  const now = {
    total: moments.total_kg[moment] ?? 0,
    water: moments.water_l[moment] ?? 0,
    food: moments.food_kg[moment] ?? 0,
    fuel: moments.fuel_kg[moment] ?? 0,
    gear: moments.gear_kg[moment] ?? 0,
  }
  const place = placeOf(moments, moment)
  return (
    <Frame ref={box} $tall={height}
      onPointerDown={(e) => {
        if ((e.target as Element).closest('button, [data-mark]')) return
        e.currentTarget.setPointerCapture(e.pointerId)
        setDragging(true)
        moveTo(e)
      }}
      onPointerMove={(e) => dragging && moveTo(e)}
      onPointerUp={() => setDragging(false)}
      onPointerCancel={() => setDragging(false)}
      onWheel={(e) => e.ctrlKey && zoom(e.deltaY > 0 ? 1.5 : 1 / 1.5)}>
      <Thumb role="slider" tabIndex={0} aria-label="Moment of the tour" aria-valuemin={0}
        aria-valuemax={Math.round(moments.km.at(-1) ?? 0)} aria-valuenow={Math.round(moments.km[moment] ?? 0)}
        aria-valuetext={`Day ${dayNow}, ${units.show(moments.km[moment] ?? 0, 'distance')}, ${place}${units.show(now.total, 'mass')}`}
        onKeyDown={(e) => {
          const step = (e.shiftKey ? shifted : steps)[e.key]
          if (!step) return
          e.preventDefault()
          step()
        }} />
      <Legend>
        <strong>{units.show(now.total, 'mass')}</strong>
        <span>{sheet.rig.bikes.length > 1 ? 'all bikes as they stand' : 'the bike as it stands'}</span>
        {lane === 'weather' ? WEATHER_KEYS.map((words) => <span key={words}>{words}</span>) : <ul>
          {([['water', 'Water', now.water], ['food', 'Food', now.food], ['fuel', 'Fuel', now.fuel], ['kit', 'Rig and kit', now.gear]] as const).map(
            ([id, name, value]) => (
              <li key={id}>
                <svg width="14" height="14"><rect x=".75" y=".75" width="12.5" height="12.5" fill={`url(#${id})`} stroke="var(--ink)" strokeWidth="1.2" /></svg>
                {name}
                <b>{units.figure(value, 'mass', 1)}</b>
              </li>
            ),
          )}
        </ul>}
      </Legend>
      {width > 0 && (
        <>
          <Land assessment={assessment} sheet={sheet} scale={scale} width={width} height={height} gutter={gutter} small={small}
            skylineHeight={skylineHeight} dayNow={dayNow} onSupply={onSupply} onKm={goToKm} units={units} lane={lane} />
          {onNight && <Nights days={days} scale={scale} height={height} onNight={onNight} width={width} />}
          <svg width={width} height={height} aria-hidden="true" pointerEvents="none">
            <path d={`M${xNow} 30V${height}`} stroke="var(--onnow)" strokeWidth={4.5} />
            <path d={`M${xNow} 30V${height}`} stroke="var(--now)" strokeWidth={2.5} />
          </svg>
          <Sign x={xNow} width={width} phone={small} />
          {!small && days.length > FEWEST_DAYS && (
            <Zoom>
              <IconButton aria-label="Show fewer days" isDisabled={span <= FEWEST_DAYS} onPress={() => zoom(0.5)}>+</IconButton>
              <IconButton aria-label="Show more days" isDisabled={span >= days.length} onPress={() => zoom(2)}>−</IconButton>
            </Zoom>
          )}
        </>
      )}
    </Frame>
  )
}

function placeOf(moments: Moments, moment: number): string {
  const place = moments.place[moment]
  if (!place) return ''
  return `${moments.leaving[moment] ? 'leaving' : 'reaching'} ${place}, `
}

/** Of the moments near a kilometre the one whose mark is nearest to the pointer. */
function nearestByX(moments: Moments, scale: Scale, x: number, km: number): number {
  const start = momentAt(moments, km)
  let best = start
  for (let i = Math.max(0, start - 3); i <= Math.min(moments.km.length - 1, start + 3); i += 1) {
    const off = (j: number) => Math.abs(scale.x(moments.km[j] ?? 0, moments.day[j] ?? 1) - x) + (moments.leaving[j] ? 0 : 0.01)
    if (off(i) < off(best)) best = i
  }
  return best
}

function EmptyLand({ ref_, height }: { ref_: React.RefObject<HTMLDivElement | null>; height: number }) {
  return (
    <Frame ref={ref_} $tall={height} as="div">
      <svg width="100%" height={height} aria-hidden="true"><rect y={height - 80} width="100%" height={80} fill="var(--land)" /></svg>
      <LandWords>Say where you ride and how long, and the land takes shape.</LandWords>
    </Frame>
  )
}
const LandWords = styled.p`position: absolute; left: 20px; bottom: 30px; color: var(--onland); font-weight: 600;`

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
  onSupply?: RibbonProps['onSupply']
  onKm: (km: number) => void
  units: ReturnType<typeof useUnits>
  lane: 'weight' | 'weather'
}

/** All that does not move with the playhead. */
const Land = memo(function Land(props: LandProps) {
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
  const shut = new Set(assessment.passings.filter((p) => p.shop_shut).map((p) => p.stop_id))
  const nightsShown = withRoom(days.slice(scale.from - 1, scale.to), scale)
  const inWindow = sheet.road.stops.filter((s) => shown(s.at_km))
  const xOf = (km: number) => scale.x(km, dayOfKm(days, km))
  const high = Math.max(...profile.elevation_m, 1)
  const low = small ? Math.min(...profile.elevation_m) - 100 : Math.min(0, ...profile.elevation_m)
  const yOf = (m: number) => horizon - ((m - low) / (high - low)) * skylineHeight
  const ridge = ridgePoints(profile.km.flatMap((km, i) => (shown(km) ? [[xOf(km), yOf(profile.elevation_m[i] ?? 0)] as const] : [])))
  const line = `M0 ${ridge.split('L')[0]?.split(' ')[1] ?? horizon}L${ridge}L${width} ${ridge.split('L').at(-1)?.split(' ')[1] ?? horizon}`
  return (
    <svg width={width} height={height} role="img" aria-label="Weight on board above the land, with water, shops, nights and days">
      {lane === 'weight'
        ? <Stack moments={moments} scale={scale} foot={foot} top={44} gutter={gutter} units={units} small={small} />
        : <WeatherLane days={days} scale={scale} foot={foot - 8} top={52} gutter={gutter} units={units} small={small} />}
      <path d={`${line}V${height}H0Z`} fill="var(--land)" />
      <path d={line} fill="none" stroke="var(--skyline)" strokeWidth={1.6} />
      {scale.edges.slice(1, -1).map((x) => (
        <path key={x} d={`M${x.toFixed(1)} ${rows.nights - 12}V${height}`} stroke="var(--landline)" strokeWidth={1} />
      ))}
      {!small && [['Water', rows.water + 3], ['Shops', rows.shops + 3], ['Night, ' + (units.system === 'metric' ? '°C' : '°F'), rows.nights], ['Day', rows.days]].map(([word, y]) => (
        <text key={word} x={20} y={y} fontSize={12} style={{ fontStretch: '84%', fill: 'var(--onland2)' }}>{word}</text>
      ))}
      <Names stops={inWindow} xOf={xOf} y={rows.names} right={width - 14} left={gutter} />
      {inWindow.map((stop) => (
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
      {days.slice(scale.from - 1, scale.to).map((day, i) => {
        const a = scale.edges[i] ?? 0
        const b = scale.edges[i + 1] ?? 0
        const night = units.figure(day.night_low_c, 'temperature')
        const fits = b - a > 17
        const cold = day.night_low_c < 0
        return (
          <g key={day.number}>
            {nightsShown.has(day.number) && (
              <>
                {cold && <rect x={b - 13} y={rows.nights - 12} width={26} height={15} rx={2} fill="var(--land)" stroke="var(--onland)" strokeWidth={1.3} />}
                <text x={b} y={rows.nights} fontSize={12} textAnchor="middle" style={{ fontStretch: '84%', fill: 'var(--onland)' }}>{night}</text>
              </>
            )}
            {day.number === dayNow && <rect x={a + 1} y={rows.days - 12} width={Math.max(b - a - 2, 18)} height={16} fill="var(--now)" />}
            {(fits || day.number % 5 === 0 || day.number === dayNow) && (
              <text x={(a + b) / 2} y={rows.days} fontSize={12} textAnchor="middle" fontWeight={day.number === dayNow ? 750 : 500}
                style={{ fontStretch: '84%', fill: day.number === dayNow ? 'var(--onnow)' : 'var(--onland)' }}>{day.number}</text>
            )}
          </g>
        )
      })}
      <Flags findings={findings} xOf={xOf} shown={shown} top={46} foot={foot} left={gutter} right={width - 22} />
    </svg>
  )
})

/** The days whose night figure has room; frost needs more of it, for its frame, and goes first. */
function withRoom(days: Day[], scale: Scale): Set<number> {
  const taken: { x: number; half: number }[] = []
  const shown = new Set<number>()
  const marks = days.map((day, i) => ({ day, x: scale.edges[i + 1] ?? 0, half: day.night_low_c < 0 ? 13.5 : 8.5 }))
  for (const { day, x, half } of marks.sort((a, b) => a.day.night_low_c - b.day.night_low_c)) {
    if (day.rest || taken.some((t) => Math.abs(t.x - x) < t.half + half)) continue
    taken.push({ x, half })
    shown.add(day.number)
  }
  return shown
}

/** Averages what falls on the same two pixels: hills narrower than that are noise at this scale. */
function ridgePoints(points: (readonly [number, number])[]): string {
  const bins = new Map<number, [number, number]>()
  for (const [x, y] of points) {
    const bin = bins.get(Math.round(x / 2)) ?? [0, 0]
    bins.set(Math.round(x / 2), [bin[0] + y, bin[1] + 1])
  }
  return [...bins].map(([bin, [sum, count]]) => `${bin * 2} ${(sum / count).toFixed(1)}`).join('L')
}

function Stack({ moments, scale, foot, top, gutter, units, small }: {
  moments: Moments
  scale: Scale
  foot: number
  top: number
  gutter: number
  units: LandProps['units']
  small: boolean
}) {
  const layers = [moments.gear_kg, moments.fuel_kg, moments.food_kg, moments.water_l]
  const base = Math.min(...moments.gear_kg) - 3
  const peak = Math.max(...moments.total_kg.map((t, i) => t + (moments.water_short_l[i] ?? 0)))
  const perKg = (foot - top) / (peak - base)
  const index = moments.km.map((_, i) => i).filter((i) => (moments.day[i] ?? 0) >= scale.from && (moments.day[i] ?? 0) <= scale.to)
  const x = (i: number) => scale.x(moments.km[i] ?? 0, moments.day[i] ?? 1).toFixed(1)
  const y = (kg: number) => (foot - (kg - base) * perKg).toFixed(1)
  const sums = layers.map((_, n) => index.map((i) => layers.slice(0, n + 1).reduce((sum, layer) => sum + (layer[i] ?? 0), 0)))
  const names = ['kit', 'fuel', 'food', 'water']
  const edge = (sum: number[]) => index.map((i, k) => `${x(i)} ${y(sum[k] ?? base)}`).join('L')
  const short = index.filter((i) => (moments.water_short_l[i] ?? 0) > 0.05)
  const ticks = niceTicks(base, peak)
  const teeth = Array.from({ length: Math.max(2, Math.round((Number(x(index.at(-1) ?? 0)) - gutter) / 7)) }, (_, i) => `${gutter + i * 7} ${foot + (i % 2 ? -3.5 : 0.5)}`)
  return (
    <g>
      {!small && ticks.map((kg) => (
        <g key={kg}>
          <path d={`M${gutter} ${y(kg)}H${x(index.at(-1) ?? 0)}`} stroke="var(--hair)" strokeWidth={1} />
          <text x={gutter - 5} y={Number(y(kg)) + 4} fontSize={12} textAnchor="end" style={{ fontStretch: '84%', fill: 'var(--ink3)' }}>{units.figure(kg, 'mass', 0)}</text>
        </g>
      ))}
      {sums.map((sum, n) => {
        const lower = n === 0 ? index.map(() => base) : (sums[n - 1] ?? [])
        const back = index.map((i, k) => `${x(i)} ${y(lower[k] ?? base)}`).reverse().join('L')
        return <path key={names[n]} d={`M${edge(sum)}L${back}Z`} fill={`url(#${names[n]})`} />
      })}
      {sums.map((sum, n) => <path key={names[n]} d={`M${edge(sum)}`} fill="none" stroke="var(--ink)" strokeWidth={n === 3 ? 1.6 : 0.9} strokeLinejoin="round" />)}
      {short.length > 0 && (() => {
        const worst = short.reduce((a, b) => ((moments.water_short_l[b] ?? 0) > (moments.water_short_l[a] ?? 0) ? b : a))
        const value = moments.water_short_l[worst] ?? 0
        return <text x={Number(x(worst)) + 20} y={top + 26} fontSize={12} fontWeight={650} style={{ fontStretch: '84%', paintOrder: 'stroke', stroke: 'var(--sky)', strokeWidth: 5 }}>{units.show(value, 'volume')} short</text>
      })()}
      {short.map((i) => {
        const total = moments.total_kg[i] ?? 0
        return <path key={i} d={`M${x(i)} ${y(total + (moments.water_short_l[i] ?? 0))}h3`} stroke="var(--ink)" strokeWidth={1.6} />
      })}
      <path d={`M${teeth.join('L')}V${foot + 3}H${gutter}Z`} fill="var(--sky)" />
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
        return <text key={stop.id} x={x} y={y} fontSize={12} textAnchor="middle" style={{ fontStretch: '82%', fill: 'var(--onland)' }}>{stop.name}</text>
      })}
    </>
  )
}

function Flags({ findings, xOf, shown, top, foot, left, right }: {
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
      {findings.filter((f) => f.at_km !== null && f.day !== null && shown(f.at_km)).slice(0, 9).map((finding) => {
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

/** Handles at the ends of days; dragging one sets that night. */
function Nights({ days, scale, height, onNight, width }: { days: Day[]; scale: Scale; height: number; onNight: NonNullable<RibbonProps['onNight']>; width: number }) {
  const [held, setHeld] = useState<{ day: Day; x: number } | null>(null)
  const inside = (event: PointerEvent<SVGElement>) => event.clientX - (event.currentTarget.ownerSVGElement?.getBoundingClientRect().left ?? 0)
  return (
    <svg width={width} height={height} style={{ pointerEvents: 'none' }} aria-hidden="true">
      {days.slice(scale.from - 1, scale.to).map((day, i) => {
        if (day.rest || day.number >= days.length) return null
        const x = held?.day.number === day.number ? held.x : (scale.edges[i + 1] ?? 0)
        return (
          <g key={day.number} data-mark style={{ pointerEvents: 'auto', cursor: 'ew-resize' }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId)
              setHeld({ day, x: inside(e) })
            }}
            onPointerMove={(e) => held?.day.number === day.number && setHeld({ day, x: inside(e) })}
            onPointerUp={(e) => {
              if (held && Math.abs(inside(e) - (scale.edges[i + 1] ?? 0)) > 2) onNight(day, scale.km(inside(e)).km)
              setHeld(null)
            }}
            onPointerCancel={() => setHeld(null)}>
            <title>{`End of day ${day.number}. Drag to move it.`}</title>
            <rect x={x - 6} y={height - 24} width={12} height={24} fill="transparent" />
            <path d={`M${x} ${height - 20}V${height}`} stroke={day.fixed || held?.day.number === day.number ? 'var(--now)' : 'var(--landline)'} strokeWidth={day.fixed ? 3 : 2} />
            {held?.day.number === day.number && <path d={`M${x} 40V${height}`} stroke="var(--now)" strokeWidth={2} strokeDasharray="4 3" />}
          </g>
        )
      })}
    </svg>
  )
}

const NEXT_WORD = { water: 'water', shop: 'food shop' } as const

function SupplyMark({ stop, supply, x, y, onPress }: {
  stop: Stop
  supply: 'water' | 'shop'
  x: number
  y: number
  onPress: NonNullable<RibbonProps['onSupply']>
}) {
  return (
    <g data-mark onClick={() => onPress(stop, supply)} style={{ cursor: 'pointer' }}>
      <title>{`${stop.name}: ${NEXT_WORD[supply]} ${stop[supply]}. Press to change.`}</title>
      <rect x={x - 7} y={y - 8} width={14} height={14} fill="transparent" stroke={stop[supply] === 'none' ? 'var(--landline)' : 'none'} strokeDasharray="1.5 2.5" rx={7} />
    </g>
  )
}
