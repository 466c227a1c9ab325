/** One x-scale for everything that happens along the tour: every day gets a floor plus what is ridden of it; a ferry is within it. */
import type { Day } from '../api/client'

export interface Scale {
  x: (km: number, day: number) => number
  km: (x: number) => { km: number; day: number }
  edges: number[]
  from: number
  to: number
}

export function ribbonScale(days: Day[], left: number, right: number, from = 1, to = days.length): Scale {
  const shown = days.slice(from - 1, to)
  const widths = shown.map((day) => 0.34 + (0.66 * day.distance_km) / 60)
  const total = widths.reduce((a, b) => a + b, 0) || 1
  const edges = [left]
  for (const width of widths) edges.push((edges.at(-1) ?? left) + (width / total) * (right - left))
  const edge = (i: number) => edges[i] ?? right
  return {
    edges,
    from,
    to,
    x: (km, number) => {
      const i = Math.max(0, Math.min(number - from, shown.length - 1))
      const day = shown[i]
      if (!day) return left
      const share = day.to_km > day.from_km ? (km - day.from_km) / (day.to_km - day.from_km) : 0
      return edge(i) + Math.max(-2, Math.min(share, 2)) * (edge(i + 1) - edge(i))
    },
    km: (x) => {
      let i = 0
      while (i < shown.length - 1 && x > edge(i + 1)) i += 1
      const day = shown[i]
      if (!day) return { km: 0, day: 1 }
      const share = Math.max(0, Math.min(1, (x - edge(i)) / (edge(i + 1) - edge(i) || 1)))
      return { km: day.from_km + share * (day.to_km - day.from_km), day: day.number }
    },
  }
}

export function dayOfKm(days: Day[], km: number): number {
  return days.find((day) => km <= day.to_km)?.number ?? days.length
}
