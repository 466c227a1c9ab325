/** What changed the load, and what a scale said of it, gathered by day. */
import type { LoadHistory } from '../api/client'

/** Less than this is not told apart from what is eaten and drunk [kg]. */
const LEAST_KG = 0.05

export interface DayStep {
  day: number
  km: number
  kg: number
  steps: LoadHistory['steps']
}

/** Steps of one day are one step; the largest first, for they are told first where room is short. */
export function stepsByDay(history: LoadHistory): DayStep[] {
  const byDay = new Map<number, DayStep>()
  for (const step of history.steps) {
    const before = byDay.get(step.day) ?? { day: step.day, km: step.km, kg: 0, steps: [] }
    byDay.set(step.day, { ...before, kg: before.kg + step.kg, steps: [...before.steps, step] })
  }
  return [...byDay.values()].filter((d) => Math.abs(d.kg) >= LEAST_KG).sort((a, b) => Math.abs(b.kg) - Math.abs(a.kg))
}

/** All bikes that were weighed on one day, summed up, as the line has them; days on which one was left out are not told. */
export function weighedTogether(history: LoadHistory): { day: number; km: number; kg: number }[] {
  const bikes = new Set(history.weighings.map((w) => w.bike_id)).size
  const byDay = new Map<number, Map<string, LoadHistory['weighings'][number]>>()
  for (const w of history.weighings) byDay.set(w.day, (byDay.get(w.day) ?? new Map()).set(w.bike_id, w))
  return [...byDay]
    .filter(([, of]) => of.size === bikes)
    .map(([day, of]) => ({ day, km: [...of.values()][0]?.km ?? 0, kg: [...of.values()].reduce((sum, w) => sum + w.kg, 0) }))
}
