/** A tour as its own small land under its own weight; all tours to one scale: a day as wide, a kilogram as high, a metre as tall. */
import type { Glance } from '../../api/client'
import type { useUnits } from '../../ui/preferences'

/** What all lands of a page share: pixels for a day, a kilogram, a metre. */
export interface OneScale {
  day: number
  kg: number
  m: number
}

const MOST = { day: 26, kg: 3.75, m: 0.07 }
const STACK = 66
const RIDGE = 58
const LABELS = 18
const BAND = 30
/** How wide the words of the first weight are. */
const LEAVING = 100

/** The largest scale at which the longest, heaviest and highest of them have room. */
export function scaleFor(glances: Glance[], width: number): OneScale {
  const days = Math.max(1, ...glances.map((g) => g.days))
  const kilos = Math.max(1, ...glances.map((g) => g.heaviest_kg - footOf(g)))
  const metres = Math.max(1, ...glances.map((g) => Math.max(...(g.skyline?.elevation_m ?? [0])) - lowOf(g)))
  return { day: Math.min(MOST.day, width / days), kg: Math.min(MOST.kg, STACK / kilos), m: Math.min(MOST.m, RIDGE / metres) }
}

const footOf = (g: Glance) => Math.min(...(g.weights?.gear_kg ?? [0])) - 2
const lowOf = (g: Glance) => Math.min(0, ...(g.skyline?.elevation_m ?? [0]))

export function TourLand({ glance, scale, units }: { glance: Glance; scale: OneScale; units: ReturnType<typeof useUnits> }) {
  const { skyline, weights } = glance
  if (!skyline || !weights) {
    return (
      <svg width={220} height={BAND + 6} role="img" aria-label="No road yet">
        <rect x={1} y={4} width={218} height={BAND} fill="none" stroke="var(--edge)" strokeWidth={1.5} strokeDasharray="6 4" />
        <text x={10} y={24} fontSize="var(--size-note)" style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}>
          no road yet
        </text>
      </svg>
    )
  }
  const width = Math.max(glance.days * scale.day, 40)
  const x = (at: number) => (at * scale.day).toFixed(1)
  const base = footOf(glance)
  const peak = Math.max((glance.heaviest_kg - base) * scale.kg, 20)
  const foot = LABELS + peak
  const y = (kg: number) => (foot - (kg - base) * scale.kg).toFixed(1)
  const rise = Math.max((Math.max(...skyline.elevation_m) - lowOf(glance)) * scale.m, 4)
  const horizon = foot + 14 + rise
  const land = (m: number) => (horizon - (m - lowOf(glance)) * scale.m).toFixed(1)
  const layers = [weights.gear_kg, weights.fuel_kg, weights.food_kg, weights.water_kg]
  const sums = layers.map((_, n) => weights.at.map((__, i) => layers.slice(0, n + 1).reduce((sum, layer) => sum + (layer[i] ?? 0), 0)))
  const edge = (sum: number[]) => sum.map((kg, i) => `${x(weights.at[i] ?? 0)} ${y(kg)}`)
  const heaviest = glance.heaviest
  const heavyX = (heaviest?.at ?? 0) * scale.day
  const apart = heavyX > 2 * LEAVING
  const early = (sums.at(-1) ?? []).filter((_, i) => (weights.at[i] ?? 0) * scale.day < LEAVING)
  const teeth = Array.from({ length: Math.ceil(width / 7) + 1 }, (_, i) => `${Math.min(i * 7, width)} ${foot + (i % 2 ? -3.5 : 0.5)}`)
  return (
    <svg
      width={Math.max(width, 200)}
      style={{ maxWidth: '100%', display: 'block' }}
      height={horizon + BAND}
      role="img"
      aria-label={`${units.show(glance.leaving_kg, 'mass')} leaving, ${units.show(glance.heaviest_kg, 'mass')} at the most, above the land of ${glance.days} days`}
    >
      {sums.map((sum, n) => {
        const below = n === 0 ? sum.map(() => base) : (sums[n - 1] ?? [])
        return (
          <path
            key={n}
            d={`M${[...edge(sum), ...edge(below).reverse()].join('L')}Z`}
            fill={`url(#${['kit', 'fuel', 'food', 'water'][n] ?? 'kit'})`}
          />
        )
      })}
      <path d={`M${edge(sums.at(-1) ?? []).join('L')}`} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
      <path d={`M${teeth.join('L')}L${width} ${foot + 2}H0Z`} fill="var(--sky)" />
      <text
        x={1}
        y={Number(y(Math.max(...early, glance.leaving_kg))) - 5}
        fontSize="var(--size-note)"
        fontWeight={680}
        style={{ fontStretch: 'var(--width-narrow)' }}
      >
        {units.show(glance.leaving_kg, 'mass')} leaving
      </text>
      {apart && heaviest && (
        <text
          x={Math.min(heavyX - 5, width)}
          y={Number(y(glance.heaviest_kg)) + 9}
          fontSize="var(--size-note)"
          fontWeight={680}
          textAnchor="end"
          style={{ fontStretch: 'var(--width-narrow)', paintOrder: 'stroke', stroke: 'var(--sky)', strokeWidth: 5 }}
        >
          {units.show(glance.heaviest_kg, 'mass')} leaving {heaviest.name}
        </text>
      )}
      <path
        d={`M0 ${horizon + BAND}L${skyline.at.map((at, i) => `${x(at)} ${land(skyline.elevation_m[i] ?? 0)}`).join('L')}L${width} ${horizon + BAND}Z`}
        fill="var(--land)"
      />
      {named(glance, scale.day, width).map((place) => (
        <text
          key={`${place.name}${place.x}`}
          x={place.x}
          y={horizon + 12}
          fontSize="var(--size-fine)"
          textAnchor={place.anchor}
          style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--onland)' }}
        >
          {place.name}
        </text>
      ))}
      {Array.from({ length: glance.days }, (_, i) => i + 1).map((day) => (
        <g key={day}>
          {day > 1 && <path d={`M${x(day - 1)} ${horizon + 17}v${BAND - 17}`} stroke="var(--landline)" strokeWidth={1} />}
          {(day % 7 === 0 || day === glance.days) && scale.day * 7 > 24 && (
            <text
              x={Number(x(day - 0.5))}
              y={horizon + BAND - 3}
              fontSize="var(--size-fine)"
              textAnchor="middle"
              style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--onland2)' }}
            >
              {day}
            </text>
          )}
        </g>
      ))}
    </svg>
  )
}

/** The places that have room for their names: both ends first, then whatever fits between. */
function named(glance: Glance, perDay: number, width: number) {
  const wide = (name: string) => name.length * 6.1 + 12
  const all = glance.places.map((p) => ({ name: p.name, x: p.at * perDay, anchor: 'middle' as 'start' | 'middle' | 'end' }))
  const [first, last] = [all[0], all.at(-1)]
  const kept: { name: string; x: number; anchor: 'start' | 'middle' | 'end'; from: number; to: number }[] = []
  if (first) kept.push({ ...first, x: 4, anchor: 'start', from: 0, to: wide(first.name) })
  if (last && last !== first && wide(last.name) + (kept[0]?.to ?? 0) < width)
    kept.push({ ...last, x: width - 4, anchor: 'end', from: width - wide(last.name), to: width })
  for (const place of all.slice(1, -1)) {
    const [from, to] = [place.x - wide(place.name) / 2, place.x + wide(place.name) / 2]
    if (from > 0 && to < width && kept.every((other) => to < other.from || from > other.to)) kept.push({ ...place, from, to })
  }
  return kept
}
