/** Days that set out at an hour of their own: tied to where they begin, so that others may be cut anew. */
import { BOUNDS, NEAR } from '../../api/bounds'
import type { Day, Road } from '../../api/client'
import { useDesk } from '../../api/tour'

export type Start = Road['starts'][number]

const isOf = (start: Start, day: Day) => Math.abs(start.at_km - day.from_km) <= NEAR.same_start_km

/** The starts with one more for a day, so many hours from when it sets out now. */
export function moved(starts: Start[], day: Day, by_h: number): Start[] {
  const [least, most] = BOUNDS.DayStart.hour
  const hour = Math.min(Math.max(day.start_h + by_h, least), most)
  return [...starts.filter((s) => !isOf(s, day)), { at_km: day.from_km, hour }].sort((a, b) => a.at_km - b.at_km)
}

export function useStarts() {
  const { sheet, change } = useDesk()
  const { road } = sheet
  const keep = (what: string, starts: Start[]) => void change(what, { road: { ...road, starts } })
  return {
    own: (day: Day) => road.starts.some((s) => isOf(s, day)),
    move: (day: Day, by_h: number) => keep(`Set out on day ${day.number} at another hour`, moved(road.starts, day, by_h)),
    free: (day: Day) =>
      keep(
        `Set out on day ${day.number} as on the others`,
        road.starts.filter((s) => !isOf(s, day)),
      ),
  }
}
