/** Setting nights: a day ends where the rider says, and may be followed by rest. The days before stay as they are. */
import { NEAR } from '../../api/bounds'
import type { Day, Road, Stop } from '../../api/client'
import { useDesk } from '../../api/tour'

export type Night = Road['nights'][number]

/** The nights without the one that ends a day. */
const others = (nights: Night[], day: Day): Night[] => nights.filter((night) => night.at_km !== day.night_set_km)

/** The night that ends a day, as the rider has set it, or as it fell. */
const own = (nights: Night[], day: Day): Night =>
  nights.find((night) => night.at_km === day.night_set_km) ?? { at_km: day.to_km, rest_days: 0, from_km: day.from_km }

const ordered = (nights: Night[]): Night[] => [...nights].sort((a, b) => a.at_km - b.at_km)

/** A day's end put at a kilometre, at a stop close by; never before the day begins nor beyond the road. */
export function put(nights: Night[], day: Day, km: number, stops: Stop[], length_km: number): Night[] {
  const off = (stop: Stop) => Math.abs(stop.at_km - km)
  const near = stops.filter((stop) => off(stop) < NEAR.snap_to_stop_km).sort((a, b) => off(a) - off(b))[0]
  const at_km = Math.min(Math.max(near?.at_km ?? km, day.from_km + NEAR.shortest_day_km), length_km - NEAR.shortest_day_km)
  return ordered([...others(nights, day), { ...own(nights, day), at_km, from_km: day.from_km }])
}

/** Rest days after a day, more or fewer. */
export function rest(nights: Night[], day: Day, more: number): Night[] {
  const night = own(nights, day)
  return ordered([...others(nights, day), { ...night, rest_days: Math.max(0, night.rest_days + more) }])
}

const HERE_KM = 0.05

/** The night that is set at a place. */
export const nightAt = (nights: Night[], km: number): Night | undefined => nights.find((night) => Math.abs(night.at_km - km) < HERE_KM)

/** The nights, with one at a stop and so many days of rest after it; null: none is set there. The days before stay as they are. */
export function sleeping(nights: Night[], days: Day[], was_km: number, km: number, rests: number | null): Night[] {
  const before = nightAt(nights, was_km)
  const others = nights.filter((night) => night !== before)
  if (rests === null) return others
  const day = days.find((d) => !d.rest && d.from_km < km && km <= d.to_km)
  return ordered([...others, { at_km: km, rest_days: rests, from_km: before?.from_km ?? day?.from_km ?? null }])
}

export function useNights() {
  const { sheet, assessment, change } = useDesk()
  const { road } = sheet
  const keep = (what: string, nights: Night[]) => void change(what, { road: { ...road, nights } })
  const end = (day: Day, km: number) =>
    keep(`End day ${day.number} elsewhere`, put(road.nights, day, km, road.stops, assessment.road?.length_km ?? 0))
  return {
    put: end,
    move: (day: Day, km: number) => end(day, day.to_km + km),
    free: (day: Day) => keep(`Let the end of day ${day.number} move`, others(road.nights, day)),
    rest: (day: Day, more: number) => keep(`Rest after day ${day.number}`, rest(road.nights, day, more)),
  }
}
