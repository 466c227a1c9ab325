/** One bag filled to its true share: water, fuel, kit, food from the bottom; what goes over runs through the closure. */
import { memo } from 'react'
import { type CarrierTrace, pick, type Shape } from '../api/client'
import type { View } from './Bicycle'
import { StateMarks } from './states'

export type BagState = 'rest' | 'selected' | 'fits' | 'aimed' | 'no'

interface Layer {
  material: 'water' | 'fuel' | 'kit' | 'food'
  share: number
}

export function layersOf(trace: CarrierTrace, moment: number): Layer[] {
  const part = (litres: number) => litres / Math.max(trace.room_l, 0.1)
  const [water, food] = (['water', 'food'] as const).map((supply) => pick(trace.supply_l[supply] ?? [], moment)) as [number, number]
  const fuel = pick(trace.fuel_l, moment)
  const kit = Math.max(pick(trace.gear_l, moment) - fuel, 0)
  const layers: Layer[] = [
    { material: 'water', share: part(water) },
    { material: 'fuel', share: part(fuel) },
    { material: 'kit', share: part(trace.rigid_water && water > 0 ? 0 : kit) },
    { material: 'food', share: part(food) },
  ]
  return layers.filter((layer) => layer.share > 0.004)
}

const MOST_MARKS = 3
const LOOK: Record<BagState, { width: number; dash?: string }> = {
  rest: { width: 2 },
  selected: { width: 3.2 },
  fits: { width: 2 },
  aimed: { width: 2 },
  no: { width: 1 },
}

export const Bag = memo(function Bag({
  trace,
  shape,
  view,
  moment,
  state,
  id,
}: {
  trace: CarrierTrace
  shape: Shape
  view: View
  moment: number
  state: BagState
  id: string
}) {
  const at = ([x, y]: [number, number]) => `${view.x(x).toFixed(1)} ${view.y(y).toFixed(1)}`
  const path = `M${shape.corners.map((c) => at([c.x, c.y])).join('L')}Z`
  const ys = shape.corners.map((c) => c.y)
  const xs = shape.corners.map((c) => c.x)
  const low = Math.min(...ys)
  const high = Math.max(...ys)
  const left = Math.min(...xs)
  const right = Math.max(...xs)
  const x0 = Math.min(view.x(left), view.x(right)) - 20
  const wide = Math.abs(view.x(right) - view.x(left)) + 40
  let level = 0
  const layers = layersOf(trace, moment).map((layer) => {
    const from = low + level * (high - low)
    level += layer.share
    const to = low + Math.min(level, 1) * (high - low)
    return { ...layer, from, to }
  })
  const over = level > 1.005
  const look = LOOK[state]
  const overPath = shape.closure_mm ?? high + 14
  return (
    <g>
      <clipPath id={`clip-${id}`}>
        <path d={path} />
      </clipPath>
      {(shape.closure_mm !== null || over) && (
        <path
          d={`M${at([left + 0.06 * (right - left), high])}L${at([left + 0.1 * (right - left), overPath])}L${at([right - 0.1 * (right - left), overPath])}L${at([right - 0.06 * (right - left), high])}Z`}
          fill={over ? 'url(#over)' : 'var(--tag)'}
          stroke="var(--ink)"
          strokeWidth={1.6}
          strokeLinejoin="round"
        />
      )}
      <path d={path} fill="var(--tag)" />
      <g clipPath={`url(#clip-${id})`} opacity={state === 'no' ? 0.35 : 1}>
        {layers.map((layer) => (
          <g key={layer.material}>
            <rect
              x={x0}
              y={view.y(layer.to)}
              width={wide}
              height={Math.max(0, view.y(layer.from) - view.y(layer.to)) + 0.4}
              fill={`url(#${layer.material})`}
            />
            <path d={`M${x0} ${view.y(layer.to).toFixed(1)}h${wide}`} stroke="var(--ink)" strokeWidth={1} />
          </g>
        ))}
      </g>
      <path
        d={path}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={look.width}
        strokeLinejoin="round"
        strokeDasharray={shape.open ? undefined : look.dash}
      />
      {shape.lid && <path d={`M${at([left, high - 34])}L${at([right, high - 34])}`} stroke="var(--ink)" strokeWidth={1.2} />}
      {shape.straps.map((u) => (
        <path key={u} d={`M${at([left + u * (right - left), low])}L${at([left + u * (right - left), high])}`} stroke="var(--ink)" strokeWidth={2.2} />
      ))}
      <StateMarks
        states={trace.states.slice(0, MOST_MARKS)}
        x={view.x((left + right) / 2) - 8 * Math.min(trace.states.length, MOST_MARKS)}
        y={view.y(low) - 20}
      />
      {state === 'fits' && (
        <>
          <path d={path} fill="none" stroke="var(--onnow)" strokeWidth={4} strokeDasharray="6 4" />
          <path d={path} fill="none" stroke="var(--now)" strokeWidth={2.2} strokeDasharray="6 4" />
        </>
      )}
      {state === 'aimed' && (
        <>
          <path d={path} fill="none" stroke="var(--onnow)" strokeWidth={6} strokeLinejoin="round" />
          <path d={path} fill="none" stroke="var(--now)" strokeWidth={3.4} strokeLinejoin="round" />
        </>
      )}
    </g>
  )
})
