/** What changed the load, by day: sums worked by hand. */
import { describe, expect, it } from 'vitest'
import type { LoadHistory } from '../api/client'
import { stepsByDay, weighedTogether } from './loadSteps'

const step = (day: number, kg: number) => ({ entry_id: `${day} ${kg}`, km: day * 50, day, kg, words: { words: '', figures: {}, names: {} } })
const scale = (bike_id: string, day: number, kg: number) => ({ bike_id, day, km: day * 50, kg })
const history = (steps: ReturnType<typeof step>[], weighings: ReturnType<typeof scale>[]): LoadHistory => ({
  day: [], planned_kg: [], ridden_day: [], ridden_kg: [], steps, weighings, start_kg: 0, now_kg: 0,
}) // prettier-ignore

describe('steps', () => {
  it('of a day are one, the largest first', () => {
    const found = stepsByDay(history([step(3, -0.4), step(9, 0.5), step(3, -0.6)], []))
    expect(found.map((d) => [d.day, d.kg, d.steps.length])).toEqual([
      [3, -1, 2],
      [9, 0.5, 1],
    ])
  })
  it('that cancel each other are none', () => {
    expect(stepsByDay(history([step(4, 0.3), step(4, -0.28)], []))).toEqual([])
  })
})

describe('weighings', () => {
  it('count where every bike was on the scale that day', () => {
    const found = weighedTogether(history([], [scale('a', 1, 50), scale('b', 1, 33.7), scale('a', 8, 48)]))
    expect(found.map((w) => [w.day, w.kg])).toEqual([[1, 83.7]])
  })
  it('of one bike twice a day are its last', () => {
    expect(weighedTogether(history([], [scale('a', 1, 51), scale('a', 1, 50)]))).toEqual([{ day: 1, km: 50, kg: 50 }])
  })
})
