/** All of the ribbon that does not move with the playhead: weight or weather, the land, its stops, nights and days. */
import { memo } from 'react'
import type { Finding, Stop } from '../api/client'
import { aboutAir } from './air'
import { RibbonAbove } from './RibbonAbove'
import { RibbonDays } from './RibbonDays'
import { RibbonHazards } from './RibbonHazards'
import { Drop, NumberTab, Shop } from './ribbonMarks'
import type { LandProps, OnSupply, Rows } from './ribbonProps'
import { dayOfKm } from './ribbonScale'
import { RibbonSurfaces } from './RibbonSurfaces'

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
      <RibbonAbove {...props} moments={moments} foot={foot} xOf={xOf} />
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
      <RibbonDays {...{ assessment, scale, dayNow, units, rows }} />
      {(lane === 'weight' || lane === 'weather') && (
        <Flags findings={findings} xOf={xOf} shown={shown} top={small ? 62 : 46} foot={foot} left={gutter} right={width - 22} />
      )}
    </svg>
  )
})

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

/** Averages what falls on the same two pixels: hills narrower than that are noise at this scale. */
function ridgePoints(points: (readonly [number, number])[]): string {
  const bins = new Map<number, [number, number]>()
  for (const [x, y] of points) {
    const bin = bins.get(Math.round(x / 2)) ?? [0, 0]
    bins.set(Math.round(x / 2), [bin[0] + y, bin[1] + 1])
  }
  return [...bins].map(([bin, [sum, count]]) => `${bin * 2} ${(sum / count).toFixed(1)}`).join('L')
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
