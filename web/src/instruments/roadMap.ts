/** A road and the land around it on a plane: where a kilometre, a place, the shapes of the land lie. */
import { geoMercator, geoPath, type GeoPermissibleObjects } from 'd3-geo'
import { useEffect, useState } from 'react'

export interface Line {
  km: number[]
  lon: number[]
  lat: number[]
}
export interface Point {
  x: number
  y: number
}
export interface Shapes {
  land: GeoPermissibleObjects
  borders: GeoPermissibleObjects
}
const EARTH_KM = 6371

/** The road fitted into a box; `margin` is left free on each side, and shapes are drawn `around` so many boxes beyond it. */
export function roadMap(line: Line, width: number, height: number, margin: number, around: number) {
  const { km, lat } = line
  const lon: number[] = []
  for (const value of line.lon) {
    const before = lon.at(-1) ?? value
    lon.push(value + 360 * Math.round((before - value) / 360))
  }
  const middle = (Math.min(...lon) + Math.max(...lon)) / 2
  const box: [[number, number], [number, number]] = [
    [margin, margin],
    [Math.max(width - margin, margin + 1), Math.max(height - margin, margin + 1)],
  ]
  const road = { type: 'LineString' as const, coordinates: lon.map((value, i) => [value, lat[i] ?? 0]) }
  // Turned so that the road lies in the middle: one over the date line is one piece.
  const projection = geoMercator().rotate([-middle, 0]).fitExtent(box, road)
  const place = (at: [number, number]): Point => {
    const [x, y] = projection(at) ?? [0, 0]
    return { x, y }
  }
  const points = lon.map((value, i) => ({ km: km[i] ?? 0, ...place([value, lat[i] ?? 0]) }))
  projection.clipExtent([
    [-around * width, -around * height],
    [(1 + around) * width, (1 + around) * height],
  ])
  const draw = geoPath(projection).digits(1)
  const narrow = Math.cos((((Math.min(...lat) + Math.max(...lat)) / 2) * Math.PI) / 180)
  return {
    points,
    /** Kilometres that a pixel is wide, in the middle of the road. */
    perPixel: (EARTH_KM * narrow) / projection.scale(),
    path: (shape: GeoPermissibleObjects) => draw(shape) ?? '',
    at: (wanted: number): Point => {
      let [low, high] = [0, points.length - 1]
      while (high - low > 1) {
        const half = (low + high) >> 1
        if ((points[half]?.km ?? 0) < wanted) low = half
        else high = half
      }
      const [a, b] = [points[low], points[high]]
      if (!a || !b) return { x: 0, y: 0 }
      const share = b.km > a.km ? Math.max(0, Math.min(1, (wanted - a.km) / (b.km - a.km))) : 0
      return { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) }
    },
    /** The line from one kilometre to another, as a path. */
    between(from: number, to: number): string {
      const inside = points.filter((p) => p.km > from && p.km < to)
      return pathOf([this.at(from), ...inside, this.at(to)])
    },
  }
}
export type RoadMapped = ReturnType<typeof roadMap>

export const pathOf = (points: Point[]) => `M${points.map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`).join('L')}`

/** A round number of kilometres that is at most so long. */
export function niceKm(most: number): number {
  const step = 10 ** Math.floor(Math.log10(most))
  return ([5, 2, 1].find((f) => f * step <= most) ?? 1) * step
}

let loading: Promise<Shapes> | undefined

/** Land and borders (Natural Earth, public domain); fetched once, when somebody looks at a map. */
export function useShapes(): Shapes | null {
  const [shapes, setShapes] = useState<Shapes | null>(null)
  useEffect(() => {
    let there = true
    loading ??= Promise.all([import('world-atlas/countries-50m.json'), import('topojson-client')]).then(([atlas, { feature, mesh }]) => {
      const world = atlas.default as never as Parameters<typeof feature>[0]
      const countries = world.objects.countries as Parameters<typeof mesh>[1]
      return {
        land: feature(world, world.objects.land as never) as GeoPermissibleObjects,
        borders: mesh(world, countries, (a, b) => a !== b) as GeoPermissibleObjects,
      }
    })
    void loading.then((found) => there && setShapes(found))
    return () => {
      there = false
    }
  }, [])
  return shapes
}

/** What has room among others: boxes are given the best first, and one that would lie over another is left out. */
export function withRoom<T extends { left: number; top: number; width: number; height: number }>(boxes: T[]): T[] {
  const kept: T[] = []
  for (const box of boxes) {
    const free = kept.every(
      (other) =>
        box.left + box.width < other.left ||
        other.left + other.width < box.left ||
        box.top + box.height < other.top ||
        other.top + other.height < box.top,
    )
    if (free) kept.push(box)
  }
  return kept
}
