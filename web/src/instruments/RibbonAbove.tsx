import { type Moments, supplyOf } from '../api/client'
import { airIsGuessed } from './air'
import { HISTORY_TOP, RibbonHistory, ToCome, type Told } from './RibbonHistory'
import { type LandProps, LANES_TOP } from './ribbonProps'
import type { Scale } from './ribbonScale'
import { StoreLanes } from './StoreLanes'
import { WeatherLane } from './WeatherLane'

/** What stands above the land: weights, stores or the weather. */
export function RibbonAbove({
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
