/** Where labels stand beside what they name: side by side in a row, one under the other in a column, or next to their bag. */
import type { Rect } from './rigView'

/** Of a letter of the fine type, narrow [px]. */
export const LETTER_PX = 5.7

/** Places labels side by side as near as they can stand to what they name. */
export function spread(wanted: { at: number; half: number }[], low: number, high: number): number[] {
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

const meet = (a: Rect, b: Rect) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h

/** For each bag a place for a plate of a size over it, under it or beside it that covers no bag and no other plate; null: there is none. */
export function beside(bags: Rect[], size: { w: number; h: number }, frame: Rect): (Rect | null)[] {
  const taken: Rect[] = []
  return bags.map((bag) => {
    const [cx, cy] = [bag.x + bag.w / 2 - size.w / 2, bag.y + bag.h / 2 - size.h / 2]
    const around = [
      { x: cx, y: bag.y - size.h - 2 },
      { x: cx, y: bag.y + bag.h + 2 },
      { x: bag.x - size.w - 2, y: cy },
      { x: bag.x + bag.w + 2, y: cy },
    ]
    const free = around
      .map((at) => ({ ...at, ...size }))
      .find(
        (plate) =>
          plate.x >= frame.x &&
          plate.y >= frame.y &&
          plate.x + plate.w <= frame.x + frame.w &&
          plate.y + plate.h <= frame.y + frame.h &&
          ![...bags, ...taken].some((other) => meet(plate, other)),
      )
    if (free) taken.push(free)
    return free ?? null
  })
}
