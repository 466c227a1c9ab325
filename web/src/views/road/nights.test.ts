/** A night set by hand says where its day began, so that the days before stay; the same gesture twice is one night. */
import { describe, expect, it } from 'vitest'
import type { Day, Stop } from '../../api/client'
import { type Night, put, rest, sleeping } from './nights'

const day = (from_km: number, to_km: number, night_set_km: number | null = null): Day => ({ number: 2, from_km, to_km, night_set_km }) as Day
const stop = (at_km: number): Stop => ({ id: `s${at_km}`, at_km }) as Stop

describe('putting a night', () => {
  it('notes where its day began', () => {
    expect(put([], day(50, 120), 100, [], 500)).toEqual([{ at_km: 100, from_km: 50, rest_days: 0 }])
  })

  it('snaps to the nearest stop close by, not to the first', () => {
    expect(put([], day(50, 120), 100, [stop(98.8), stop(100.4), stop(200)], 500)[0]?.at_km).toBe(100.4)
    expect(put([], day(50, 120), 100, [stop(90)], 500)[0]?.at_km).toBe(100)
  })

  it('stays inside its day and the road', () => {
    expect(put([], day(50, 120), 10, [], 500)[0]?.at_km).toBe(51)
    expect(put([], day(50, 120), 900, [], 500)[0]?.at_km).toBe(499)
  })

  it('moves the night that ends the day, keeps its rest, and leaves the others in order', () => {
    const nights: Night[] = [
      { at_km: 50, rest_days: 0, from_km: null },
      { at_km: 120, rest_days: 2, from_km: 50 },
      { at_km: 300, rest_days: 1, from_km: null },
    ]
    const moved = put(nights, day(50, 120, 120), 140, [], 500)
    expect(moved).toEqual([
      { at_km: 50, rest_days: 0, from_km: null },
      { at_km: 140, rest_days: 2, from_km: 50 },
      { at_km: 300, rest_days: 1, from_km: null },
    ])
  })
})

describe('resting', () => {
  it('sets the night where it fell, counts up, and never below none', () => {
    const once = rest([], day(50, 120), 1)
    expect(once).toEqual([{ at_km: 120, rest_days: 1, from_km: 50 }])
    expect(rest(once, day(50, 120, 120), 1)[0]?.rest_days).toBe(2)
    expect(rest(once, day(50, 120, 120), -3)[0]?.rest_days).toBe(0)
  })
})

describe('sleeping at a stop', () => {
  it('adds the night with its rests, moves it with the stop, and takes it away', () => {
    const once = sleeping([{ at_km: 200, rest_days: 0, from_km: null }], [day(50, 120)], 90, 90, 1)
    expect(once).toEqual([
      { at_km: 90, rest_days: 1, from_km: 50 },
      { at_km: 200, rest_days: 0, from_km: null },
    ])
    expect(sleeping(once, [day(50, 120)], 90, 95, 2)[0]).toEqual({ at_km: 95, rest_days: 2, from_km: 50 })
    expect(sleeping(once, [], 90, 90, null).map((night) => night.at_km)).toEqual([200])
  })
})
