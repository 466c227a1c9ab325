/** One bag filled to its true share: water, fuel, kit, food from the bottom; what goes over runs through the closure. */
import { memo } from 'react'
import { type Box, type Carrier, type CarrierTrace, pick } from '../api/client'
import { bagShape, type Corner } from './bagShapes'
import type { View } from './Bicycle'
import { StateMarks } from './states'

export type BagState = 'rest' | 'selected' | 'fits' | 'aimed' | 'no'

interface Layer {
  material: 'water' | 'fuel' | 'kit' | 'food'
  share: number
}

export function layersOf(carrier: Carrier, trace: CarrierTrace, moment: number): Layer[] {
  const part = (litres: number) => litres / Math.max(trace.room_l, 0.1)
  const water = pick(trace.water_l, moment)
  const kit = Math.max(trace.gear_l - trace.fuel_l - (carrier.kind === 'bottle_cage' ? water : 0), 0)
  const layers: Layer[] = [
    { material: 'water', share: part(water) },
    { material: 'fuel', share: part(trace.fuel_l) },
    { material: 'kit', share: part(carrier.kind === 'bottle_cage' && water > 0 ? 0 : kit) },
    { material: 'food', share: part(pick(trace.food_l, moment)) },
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

export const Bag = memo(function Bag({ carrier, trace, box, view, moment, state, id }: {
  carrier: Carrier
  trace: CarrierTrace
  box: Box
  view: View
  moment: number
  state: BagState
  id: string
}) {
  const shape = bagShape(carrier, box)
  const at = ([x, y]: Corner) => `${view.x(x).toFixed(1)} ${view.y(y).toFixed(1)}`
  const path = `M${shape.outline.map(at).join('L')}Z`
  const ys = shape.outline.map((c) => c[1])
  const xs = shape.outline.map((c) => c[0])
  const low = Math.min(...ys)
  const high = Math.max(...ys)
  const left = Math.min(...xs)
  const right = Math.max(...xs)
  const x0 = Math.min(view.x(left), view.x(right)) - 20
  const wide = Math.abs(view.x(right) - view.x(left)) + 40
  let level = 0
  const layers = layersOf(carrier, trace, moment).map((layer) => {
    const from = low + level * (high - low)
    level += layer.share
    const to = low + Math.min(level, 1) * (high - low)
    return { ...layer, from, to }
  })
  const over = level > 1.005
  const look = LOOK[state]
  const overPath = shape.rollTop ?? high + 14
  return (
    <g>
      <clipPath id={`clip-${id}`}><path d={path} /></clipPath>
      {(shape.rollTop !== undefined || over) && (
        <path d={`M${at([left + 0.06 * (right - left), high])}L${at([left + 0.1 * (right - left), overPath])}L${at([right - 0.1 * (right - left), overPath])}L${at([right - 0.06 * (right - left), high])}Z`}
          fill={over ? 'url(#over)' : 'var(--tag)'} stroke="var(--ink)" strokeWidth={1.6} strokeLinejoin="round" />
      )}
      <path d={path} fill="var(--tag)" />
      <g clipPath={`url(#clip-${id})`} opacity={state === 'no' ? 0.35 : 1}>
        {layers.map((layer) => (
          <g key={layer.material}>
            <rect x={x0} y={view.y(layer.to)} width={wide} height={Math.max(0, view.y(layer.from) - view.y(layer.to)) + 0.4} fill={`url(#${layer.material})`} />
            <path d={`M${x0} ${view.y(layer.to).toFixed(1)}h${wide}`} stroke="var(--ink)" strokeWidth={1} />
          </g>
        ))}
      </g>
      <path d={path} fill="none" stroke="var(--ink)" strokeWidth={look.width} strokeLinejoin="round" strokeDasharray={shape.open ? undefined : look.dash} />
      {shape.lid && <path d={`M${at([left, high - 34])}L${at([right, high - 34])}`} stroke="var(--ink)" strokeWidth={1.2} />}
      {shape.straps?.map((u) => <path key={u} d={`M${at([left + u * (right - left), low])}L${at([left + u * (right - left), high])}`} stroke="var(--ink)" strokeWidth={2.2} />)}
      <StateMarks states={trace.states.slice(0, MOST_MARKS)} x={view.x((left + right) / 2) - 8 * Math.min(trace.states.length, MOST_MARKS)} y={view.y(low) - 20} />
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
