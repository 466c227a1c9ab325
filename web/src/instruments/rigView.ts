/** Where the parts of a rig stand on the screen: elevation under plan, on one x-axis and scale. */
import type { Bike, Box, Carrier, CarrierTrace, Shape } from '../api/client'
import type { View } from './Bicycle'

export interface Placed {
  carrier: Carrier
  trace: CarrierTrace
  box: Box
  shape: Shape
}

/** Whether a carrier is seen from the near side. */
export const seenFrom = (carrier: Carrier, left: boolean): boolean => carrier.side === 'middle' || carrier.side === (left ? 'left' : 'right')

export interface RigView extends View {
  ground: number
}

/** The largest scale at which the rig fits, elevation under plan on one x-axis. */
export function fit(bike: Bike, radius: number, placed: Placed[], width: number, height: number, compact: boolean, mirrored: boolean): RigView {
  const left = Math.min(
    -radius - 30,
    ...placed.map((p) => p.box.x0 - 20),
    ...bike.supports.map((s) => (s.trailer ? -s.trailer.hitch_to_axle_mm - 320 : 0)),
  )
  const right = Math.max(bike.wheelbase_mm + radius + 30, ...placed.map((p) => p.box.x1 + 20))
  const top = Math.max(1010, ...placed.filter((p) => !p.trace.on_rider).map((p) => p.box.y1 + 20))
  const trailer = bike.supports.some((s) => s.trailer)
  const lowest = height - (compact ? 60 : trailer ? 138 : 64)
  const room = compact ? 8 : 176
  const margin = compact ? 4 : 104
  const scale = Math.max(0.02, Math.min(0.3, (width - 2 * margin) / (right - left), (lowest - room) / top))
  const ground = Math.min(lowest, room + top * scale + 24)
  const slack = (width - (right - left) * scale) / 2
  const x = mirrored ? (mm: number) => width - slack - (mm - left) * scale : (mm: number) => slack + (mm - left) * scale
  return { x, y: (mm) => ground - mm * scale, scale, ground }
}

export interface Rect {
  x: number
  y: number
  w: number
  h: number
}

export function sideRect(view: RigView, box: Box): Rect {
  const x = Math.min(view.x(box.x0), view.x(box.x1))
  return { x, y: view.y(box.y1), w: (box.x1 - box.x0) * view.scale, h: (box.y1 - box.y0) * view.scale }
}

export function planRect(view: RigView, box: Box, centre: number, leftSide: boolean): Rect {
  const z = leftSide ? -1 : 1
  const y0 = centre + Math.min(z * box.z0, z * box.z1) * view.scale
  return {
    x: Math.min(view.x(box.x0), view.x(box.x1)),
    y: y0,
    w: (box.x1 - box.x0) * view.scale,
    h: (box.z1 - box.z0) * view.scale,
  }
}
