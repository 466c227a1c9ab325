/** Setting nights: a day ends where the rider says, and may be followed by rest. */
import type { Day, Road } from '../../api/client'
import { useDesk } from '../../api/tour'

const NEAR_KM = 0.3
type Night = Road['nights'][number]

export function useNights() {
  const { sheet, assessment, change } = useDesk()
  const { road } = sheet
  const length = assessment.road?.length_km ?? 0
  const others = (day: Day) => road.nights.filter((n) => Math.abs(n.at_km - day.to_km) >= NEAR_KM)
  const own = (day: Day): Night => road.nights.find((n) => Math.abs(n.at_km - day.to_km) < NEAR_KM) ?? { at_km: day.to_km, rest_days: 0 }
  const keep = (what: string, nights: Night[]) => void change(what, { road: { ...road, nights: [...nights].sort((a, b) => a.at_km - b.at_km) } })
  /** Puts a day's end at a kilometre, snapped to a stop close by; never before the day begins. */
  const put = (day: Day, km: number) => {
    const stop = road.stops.find((s) => Math.abs(s.at_km - km) < 1.5)
    const at_km = Math.min(Math.max(stop?.at_km ?? km, day.from_km + 1), length - 1)
    keep(`End day ${day.number} at km ${Math.round(at_km)}`, [...others(day), { ...own(day), at_km }])
  }
  return {
    put,
    move: (day: Day, km: number) => put(day, day.to_km + km),
    free: (day: Day) => keep(`Let the end of day ${day.number} move`, others(day)),
    rest: (day: Day, more: number) => {
      const night = own(day)
      keep(`Rest after day ${day.number}`, [...others(day), { ...night, rest_days: Math.max(0, night.rest_days + more) }])
    },
  }
}
