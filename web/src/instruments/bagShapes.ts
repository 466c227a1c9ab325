/** Outlines of carriers in the bike's middle plane, in millimetres, fitted into the box that the core gives. */
import type { Box, Carrier } from '../api/client'

export type Corner = [number, number]

export interface BagShape {
  outline: Corner[]
  /** Roll-top closures stand above the outline, up to this height. */
  rollTop?: number
  lid?: boolean
  straps?: number[]
  open?: boolean
}

const inBox = (b: Box, corners: Corner[]): Corner[] =>
  corners.map(([u, v]) => [b.x0 + u * (b.x1 - b.x0), b.y0 + v * (b.y1 - b.y0)])

const PANNIER: Corner[] = [[0, 0.94], [1, 0.94], [1, 0.5], [0.87, 0.03], [0.83, 0], [0.1, 0], [0.04, 0.03]]
const FRONT: Corner[] = [[0, 0.93], [1, 0.93], [0.98, 0.04], [0.93, 0], [0.07, 0], [0.02, 0.04]]
const ROLL: Corner[] = [[0, 0.14], [0.07, 0], [0.94, 0], [1, 0.12], [1, 0.86], [0.94, 1], [0.07, 1], [0, 0.86]]
const BOX: Corner[] = [[0, 0.04], [0.93, 0], [1, 0.07], [1, 0.93], [0.93, 1], [0, 1]]
const SADDLE: Corner[] = [[1, 0.02], [1, 0.9], [0.85, 1], [0.12, 0.86], [0, 0.62], [0.05, 0.3], [0.6, 0.02]]
const TUBE_BAG: Corner[] = [[0, 0.1], [0.98, 0.34], [1, 0.9], [0.9, 1], [0.15, 0.72], [0, 0.3]]

/** The shape of one carrier. Bottles lie along their tube. */
export function bagShape(carrier: Carrier, box: Box): BagShape {
  switch (carrier.kind) {
    case 'rear_pannier':
      return { outline: inBox(box, PANNIER), rollTop: box.y1 + 18 }
    case 'front_pannier':
      return { outline: inBox(box, FRONT), rollTop: box.y1 + 14 }
    case 'rack_top_bag':
    case 'handlebar_roll':
      return { outline: inBox(box, ROLL), straps: [0.25, 0.75] }
    case 'handlebar_box':
      return { outline: inBox(box, BOX), lid: true }
    case 'saddle_pack':
      return { outline: inBox(box, SADDLE), straps: [0.72] }
    case 'top_tube_bag':
      return { outline: inBox(box, TUBE_BAG) }
    case 'stem_bag':
      return { outline: inBox(box, [[0.1, 0], [0.9, 0], [1, 1], [0, 1]]), open: true }
    case 'half_frame_bag':
      return { outline: inBox(box, [[0, 0.62], [1, 1], [0.96, 0.62], [0.9, 0.36], [0.1, 0], [0, 0.1]]) }
    case 'full_frame_bag':
      return { outline: inBox(box, [[0, 0.86], [0.94, 1], [1, 0.86], [0.42, 0.02], [0.34, 0.04]]) }
    case 'trailer_bag':
      return { outline: inBox(box, [[0.03, 0], [0.97, 0], [1, 0.06], [1, 0.87], [0.94, 1], [0.08, 1], [0, 0.87], [0, 0.06]]), straps: [0.22, 0.5, 0.78] }
    case 'bottle_cage':
      return { outline: bottle(box, carrier.hangs_on) }
    case 'compartment':
    case 'bladder_sleeve':
      return { outline: inBox(box, [[0.05, 0.04], [0.9, 0.04], [0.95, 0.96], [0.05, 0.96]]) }
    case 'net':
      return { outline: inBox(box, [[0.02, 0], [0.98, 0], [0.88, 0.7], [0.7, 1], [0.3, 1], [0.12, 0.7]]), straps: [0.33, 0.66], open: true }
    default:
      return { outline: inBox(box, [[0.08, 0], [0.92, 0], [1, 0.08], [1, 0.94], [0.9, 1], [0.1, 1], [0, 0.94], [0, 0.08]]) }
  }
}

/** A bottle standing along its tube: seat tube leans back, down tube forward, fork legs nearly upright. */
function bottle(box: Box, mount: string): Corner[] {
  const lean = mount === 'seat_tube_bolts' ? 1.27 : mount === 'fork_bolts' ? 1.25 : 0.83
  const back = mount === 'seat_tube_bolts' || mount === 'fork_bolts' ? -1 : 1
  const along: Corner = [Math.cos(lean) * back, Math.sin(lean)]
  const across: Corner = [-along[1], along[0]]
  const middle: Corner = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2]
  const length = (box.y1 - box.y0) * 0.98
  const radius = (box.z1 - box.z0) * 0.46
  const at = (i: number, j: number): Corner => [
    middle[0] + along[0] * (i - 0.5) * length + across[0] * j * radius,
    middle[1] + along[1] * (i - 0.5) * length + across[1] * j * radius,
  ]
  return [at(0, -1), at(0, 1), at(0.84, 1), at(0.92, 0.55), at(1, 0.55), at(1, -0.55), at(0.92, -0.55), at(0.84, -1)]
}

/** Whether a carrier is seen from the near side. */
export const seenFrom = (carrier: Carrier, left: boolean): boolean =>
  carrier.side === 'middle' || carrier.side === (left ? 'left' : 'right')
