/** What each bag holds, beside it: on it where there is room, in a row above, or at the front's edge. */
import { type Bike, pick } from '../api/client'
import type { useUnits } from '../ui/preferences'
import { type Placed, type RigView, sideRect } from './rigView'
import { statesInWords } from './states'

export function RigLabels({
  placed,
  view,
  moment,
  width,
  compact,
  units,
  bike,
}: {
  placed: Placed[]
  view: RigView
  moment: number
  width: number
  compact: boolean
  units: ReturnType<typeof useUnits>
  bike: Bike
}) {
  const items = placed.map((p) => {
    const rect = sideRect(view, p.box)
    const kg = pick(p.trace.kg, moment)
    const carrier = { ...p.carrier, name: [p.carrier.name, statesInWords(p.trace.states)].filter(Boolean).join(', ') }
    return {
      ...p,
      carrier,
      rect,
      cx: rect.x + rect.w / 2,
      cy: rect.y + rect.h / 2,
      kg: units.show(kg, 'mass'),
      litres: `${units.figure(pick(p.trace.litres, moment), 'volume')} of ${units.show(p.trace.room_l, 'volume')}`,
    }
  })
  if (compact) {
    return items
      .filter((i) => i.rect.w > 32 && i.rect.h > 26)
      .map((i) => (
        <g key={i.carrier.id}>
          <rect x={i.cx - 17} y={i.cy - 10} width={34} height={20} fill="var(--tag)" stroke="var(--ink)" />
          <text x={i.cx} y={i.cy + 5} fontSize={14} fontWeight={700} textAnchor="middle">
            {i.kg.split('\u00a0')[0]}
          </text>
        </g>
      ))
  }
  const plates = items.filter((i) => i.rect.w >= 76 && i.rect.h >= 54)
  const rest = items.filter((i) => !plates.includes(i))
  const ahead = view.x(1000) > view.x(0)
  const sideEdge = ahead ? width - 4 : 4
  const front = rest.filter((i) => i.box.x0 > bike.wheelbase_mm * 0.8).sort((a, b) => a.cy - b.cy)
  const row = rest.filter((i) => !front.includes(i)).sort((a, b) => a.cx - b.cx)
  const wanted = row.map((i) => ({ at: i.cx, half: (i.carrier.name.length + 7) * 3 }))
  const lines = wanted.reduce((sum, { half }) => sum + 2 * half, 0) > width - 12 ? 2 : 1
  const onLine = Array.from({ length: lines }, (_, line) =>
    spread(
      wanted.filter((_w, k) => k % lines === line),
      6,
      width - 6,
    ),
  )
  const rowY = Math.max(160, view.y(1010) - 44)
  const frontY = front
    .reduce<number[]>((ys, i) => [...ys, Math.max((ys.at(-1) ?? rowY + 16) + 44, i.cy)], [])
    .map((y, k) => Math.min(y, view.ground - 84 - 44 * (front.length - 1 - k)))
  return (
    <g>
      {plates.map((i) => (
        <g key={i.carrier.id}>
          <rect x={i.cx - 42} y={i.cy - 23} width={84} height={46} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1} />
          <text x={i.cx} y={i.cy - 9} fontSize={12} fontWeight={600} textAnchor="middle" style={{ fontStretch: '82%' }}>
            {i.carrier.name}
          </text>
          <text x={i.cx} y={i.cy + 6} fontSize={15} fontWeight={720} textAnchor="middle" style={{ fontStretch: '90%' }}>
            {i.kg}
          </text>
          <text x={i.cx} y={i.cy + 18.5} fontSize={12} textAnchor="middle" style={{ fontStretch: '82%', fill: 'var(--ink2)' }}>
            {i.litres}
          </text>
        </g>
      ))}
      {row.map((i, k) => {
        const x = onLine[k % lines]?.[Math.floor(k / lines)] ?? i.cx
        const y = rowY + (k % lines) * 16
        return (
          <g key={i.carrier.id}>
            <path d={`M${x.toFixed(1)} ${y + 4}L${i.cx.toFixed(1)} ${i.cy.toFixed(1)}`} stroke="var(--ink)" strokeWidth={1} />
            <circle cx={i.cx} cy={i.cy} r={2.2} fill="var(--ink)" />
            <text x={x} y={y} fontSize={12} textAnchor="middle" style={{ fontStretch: '80%' }}>
              {i.carrier.name} <tspan fontWeight={720}>{i.kg}</tspan>
            </text>
          </g>
        )
      })}
      {front.map((i, k) => {
        const y = frontY[k] ?? i.cy
        const anchor = ahead ? 'end' : 'start'
        const x = sideEdge
        const elbow = ahead ? width - 92 : 92
        return (
          <g key={i.carrier.id}>
            <path d={`M${elbow} ${y - 4}L${i.cx.toFixed(1)} ${i.cy.toFixed(1)}`} stroke="var(--ink)" strokeWidth={1} />
            <circle cx={i.cx} cy={i.cy} r={2.2} fill="var(--ink)" />
            <text x={x} y={y - 8} fontSize={12} fontWeight={600} textAnchor={anchor} style={{ fontStretch: '84%' }}>
              {i.carrier.name}
            </text>
            <text x={x} y={y + 8} fontSize={14} fontWeight={720} textAnchor={anchor} style={{ fontStretch: '90%' }}>
              {i.kg}
            </text>
            <text x={x} y={y + 21} fontSize={12} textAnchor={anchor} style={{ fontStretch: '82%', fill: 'var(--ink2)' }}>
              {i.litres}
            </text>
          </g>
        )
      })}
    </g>
  )
}

/** Places labels side by side as near as they can stand to what they name. */
function spread(wanted: { at: number; half: number }[], low: number, high: number): number[] {
  const places: number[] = []
  let edge = low
  for (const { at, half } of wanted) {
    const x = Math.max(at, edge + half)
    places.push(x)
    edge = x + half
  }
  let right = high
  for (let i = places.length - 1; i >= 0; i -= 1) {
    const half = wanted[i]?.half ?? 0
    places[i] = Math.min(places[i] ?? 0, right - half)
    right = (places[i] ?? 0) - half
  }
  return places
}
