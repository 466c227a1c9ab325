import { expect, test } from 'vitest'
import type { Day } from '../../api/client'
import { moved } from './starts'

const day = (from_km: number, start_h: number) => ({ from_km, start_h }) as Day

test('a day sets out at its own hour, and others that have one keep it', () => {
  const starts = moved([{ at_km: 300, hour: 6 }], day(120, 9), -0.5)
  expect(starts).toEqual([
    { at_km: 120, hour: 8.5 },
    { at_km: 300, hour: 6 },
  ])
  expect(moved(starts, day(120.4, 8.5), 0.5)[0]).toEqual({ at_km: 120.4, hour: 9 })
  expect(moved([], day(0, 0.25), -0.5)).toEqual([{ at_km: 0, hour: 0 }])
})
