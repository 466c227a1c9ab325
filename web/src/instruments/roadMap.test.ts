/** The road on a plane: true to its kilometres, in one piece over the date line, names only where they have room. */
import { expect, test } from 'vitest'
import { niceKm, roadMap, withRoom } from './roadMap'

const straight = (lons: number[], lat = 0) => ({ km: lons.map((_, i) => i * 100), lon: lons, lat: lons.map(() => lat) })

test('a road over the date line is one piece, and kilometres lie evenly on it', () => {
  const map = roadMap(straight([178, 179, 180, -179, -178]), 400, 200, 20, 1)
  const xs = map.points.map((p) => p.x)
  expect(xs).toEqual([...xs].sort((a, b) => a - b))
  expect([xs[0], xs.at(-1)]).toEqual([expect.closeTo(20, 3), expect.closeTo(380, 3)])
  expect(map.at(150).x).toBeCloseTo((map.at(100).x + map.at(200).x) / 2, 6)
  // Four degrees of the equator are 445 km, drawn 360 pixels wide.
  expect(map.perPixel * 360).toBeCloseTo((4 * Math.PI * 6371) / 180, 0)
})

test('at 60 degrees north a pixel is half as wide on the ground', () => {
  const [equator, north] = [straight([0, 10]), straight([0, 10], 60)].map((line) => roadMap(line, 400, 200, 20, 1).perPixel)
  expect((north ?? 0) / (equator ?? 1)).toBeCloseTo(0.5, 6)
})

test('a stretch begins and ends where it is asked to', () => {
  const map = roadMap(straight([0, 1, 2, 3]), 400, 200, 20, 1)
  const drawn = map.between(50, 250)
  expect(drawn.split('L')).toHaveLength(4)
  expect(drawn.startsWith(`M${map.at(50).x.toFixed(2)} `)).toBe(true)
})

test('lengths are round and at most what was asked', () => {
  expect([0.7, 3, 12, 99, 5000].map(niceKm)).toEqual([0.5, 2, 10, 50, 5000])
})

test('of names that lie over each other the first stays', () => {
  const box = (left: number) => ({ left, top: 0, width: 10, height: 10 })
  expect(withRoom([box(0), box(5), box(11)]).map((b) => b.left)).toEqual([0, 11])
})
