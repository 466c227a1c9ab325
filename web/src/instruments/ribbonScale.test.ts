/** The one x-scale of everything along the tour: days in order, rests with room, and back again from x to kilometre. */
import { describe, expect, it } from 'vitest'
import type { Day } from '../api/client'
import { dayOfKm, ribbonScale } from './ribbonScale'

const day = (number: number, from_km: number, to_km: number): Day =>
  ({ number, from_km, to_km, distance_km: to_km - from_km, rest: to_km === from_km }) as Day

const DAYS = [day(1, 0, 60), day(2, 60, 60), day(3, 60, 180), day(4, 180, 200)]

describe('the scale', () => {
  const scale = ribbonScale(DAYS, 100, 900)

  it('fills the room from edge to edge, every day with a floor besides its distance', () => {
    expect(scale.edges[0]).toBe(100)
    expect(scale.edges.at(-1)).toBeCloseTo(900)
    const widths = DAYS.map((_, i) => (scale.edges[i + 1] ?? 0) - (scale.edges[i] ?? 0))
    expect(Math.min(...widths)).toBeGreaterThan(0)
    // 0.34 of a day and 0.66 for each 60 km: a rest is 0.34, 120 km are 1.66.
    expect((widths[2] ?? 0) / (widths[1] ?? 1)).toBeCloseTo(1.66 / 0.34, 6)
  })

  it('goes from kilometre to x and back', () => {
    for (const [km, number] of [
      [0, 1],
      [30, 1],
      [61, 3],
      [120, 3],
      [199, 4],
    ] as const) {
      const back = scale.km(scale.x(km, number))
      expect(back.km).toBeCloseTo(km, 6)
      expect(back.day).toBe(number)
    }
  })

  it('keeps what comes after a ferry within its day', () => {
    const ferry = ribbonScale([{ ...day(1, 0, 100), distance_km: 40 } as Day, day(2, 100, 160)], 0, 100)
    expect(ferry.x(90, 1)).toBeCloseTo(0.9 * (ferry.edges[1] ?? 0), 6)
    expect(ferry.km(ferry.x(90, 1)).km).toBeCloseTo(90, 6)
  })

  it('never goes backwards', () => {
    const xs = [
      [0, 1],
      [60, 1],
      [60, 2],
      [60, 3],
      [180, 3],
      [180, 4],
      [200, 4],
    ].map(([km = 0, number = 1]) => scale.x(km, number))
    expect(xs).toEqual([...xs].sort((a, b) => a - b))
  })

  it('shows a part of the days only, and keeps what lies outside near', () => {
    const part = ribbonScale(DAYS, 0, 500, 3, 4)
    expect(part.x(60, 3)).toBe(0)
    expect(part.x(200, 4)).toBeCloseTo(500)
    expect(part.km(-50).km).toBe(60)
    expect(part.km(900).km).toBe(200)
  })
})

it('finds the day of a kilometre; at a night the day that ends there', () => {
  expect([0, 60, 61, 180, 500].map((km) => dayOfKm(DAYS, km))).toEqual([1, 1, 3, 3, 4])
})
