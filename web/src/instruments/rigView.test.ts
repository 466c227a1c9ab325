/** The drawing is true to scale: one scale for both axes and both views, mirrored without a change of size. */
import { describe, expect, it } from 'vitest'
import type { Bike, Box } from '../api/client'
import { type Placed, fit, planRect, seenFrom, sideRect } from './rigView'

const bike = { wheelbase_mm: 1060, supports: [] } as unknown as Bike
const box: Box = { x0: -400, x1: -100, y0: 300, y1: 700, z0: 60, z1: 240 }
const placed = [{ box, trace: { on_rider: false } }] as unknown as Placed[]
const view = (mirrored: boolean, width = 700, height = 480) => fit(bike, 350, placed, width, height, false, mirrored)

describe('the scale', () => {
  it('is the same along and up, and fits all into the width', () => {
    const { x, y, scale } = view(false)
    expect(x(1000) - x(0)).toBeCloseTo(1000 * scale, 9)
    expect(y(0) - y(1000)).toBeCloseTo(1000 * scale, 9)
    expect(x(-420)).toBeGreaterThanOrEqual(0)
    expect(x(1060 + 380)).toBeLessThanOrEqual(700)
  })

  it('shrinks for a trailer behind', () => {
    const towing = { ...bike, supports: [{ trailer: { hitch_to_axle_mm: 900 } }] } as unknown as Bike
    expect(fit(towing, 350, placed, 700, 480, false, false).scale).toBeLessThan(view(false).scale)
  })

  it('never vanishes, however small the window', () => {
    expect(fit(bike, 350, placed, 10, 10, true, false).scale).toBe(0.02)
  })
})

describe('boxes', () => {
  it('turn with the bike and keep their size', () => {
    const [near, far] = [sideRect(view(false), box), sideRect(view(true), box)]
    expect(near.w).toBeCloseTo(300 * view(false).scale, 9)
    expect(near.h).toBeCloseTo(400 * view(false).scale, 9)
    expect([far.w, far.h]).toEqual([near.w, near.h])
    expect(near.x + far.x + near.w).toBeCloseTo(700, 6)
  })

  it('lie on their side of the middle line in the plan', () => {
    const shown = view(false)
    const [left, right] = [planRect(shown, box, 100, true), planRect(shown, box, 100, false)]
    expect(left.y + left.h).toBeCloseTo(100 - 60 * shown.scale, 9)
    expect(right.y).toBeCloseTo(100 + 60 * shown.scale, 9)
    expect(left.h).toBeCloseTo(180 * shown.scale, 9)
  })
})

it.each([
  ['middle', true, true],
  ['middle', false, true],
  ['left', true, true],
  ['left', false, false],
  ['right', false, true],
])('a bag on the %s seen from the left: %s', (side, left, seen) => {
  expect(seenFrom({ side } as never, left)).toBe(seen)
})
