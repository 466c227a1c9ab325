/** Edits of a load by hand: pure rearrangements of what the rider said, no rule of placing. */
import type { Load, Mend, Placement, Thing, TourSheet, Trial } from '../api/client'

/** Moves a number of one thing from a carrier (or the shelf) to another (or the shelf). */
export function moveThing(load: Load, thingId: string, count: number, from: string | null, to: string | null): Load {
  const placements = load.placements.map((p) => ({ ...p }))
  if (from !== null) {
    let left = count
    for (const p of placements) {
      if (p.thing_id !== thingId || p.carrier_id !== from || left === 0) continue
      const taken = Math.min(p.count, left)
      p.count -= taken
      left -= taken
    }
  }
  if (to !== null) {
    const there = placements.find((p) => p.thing_id === thingId && p.carrier_id === to && !p.pinned)
    if (there) there.count += count
    else placements.push({ thing_id: thingId, carrier_id: to, count, pinned: false })
  }
  return { ...load, placements: placements.filter((p) => p.count > 0) }
}

export function pinThing(load: Load, thingId: string, carrierId: string, pinned: boolean): Load {
  const placements = load.placements.map((p) => (p.thing_id === thingId && p.carrier_id === carrierId ? { ...p, pinned } : p))
  return { ...load, placements }
}

/** Pins or frees all that lies in a carrier. */
export const pinCarrier = (load: Load, carrierId: string, pinned: boolean): Load => ({
  ...load,
  placements: load.placements.map((p) => (p.carrier_id === carrierId ? { ...p, pinned } : p)),
})

/** Exchanges the contents of two carriers, food included. */
export function swapCarriers(load: Load, a: string, b: string): Load {
  const other = (id: string) => (id === a ? b : id === b ? a : id)
  return {
    ...load,
    placements: load.placements.map((p) => ({ ...p, carrier_id: other(p.carrier_id) })),
    food: load.food.map((f) => ({ ...f, carrier_id: other(f.carrier_id) })),
  }
}

/** So many of a thing, with what rides in it. */
export const withNested = (kit: Thing[], id: string, count: number): { id: string; count: number }[] => [
  { id, count },
  ...kit.filter((t) => t.inside === id).map((t) => ({ id: t.id, count: t.count })),
]

/** Moves several things that lie in one carrier, or on the shelf, to another. */
export function moveGroup(load: Load, things: { id: string; count: number }[], from: string | null, to: string | null): Load {
  return things.reduce((changed, { id, count }) => moveThing(changed, id, count, from, to), load)
}

/** Takes on the placements that a mend proposes for its things. */
export function withMoves(load: Load, moves: Placement[]): Load {
  const moved = new Set(moves.map((m) => m.thing_id))
  return { ...load, placements: [...load.placements.filter((p) => !moved.has(p.thing_id)), ...moves] }
}

const replaced = <T extends { id: string }>(old: T[], other: T[]): T[] => [
  ...old.map((one) => other.find((o) => o.id === one.id) ?? one),
  ...other.filter((o) => !old.some((one) => one.id === o.id)),
]

/** The parts of the tour as a mend would have them; empty where it only says what to do. */
export function withMend(sheet: TourSheet, mend: Mend): Trial {
  const kit = mend.things.length || mend.gone.length ? replaced(sheet.kit, mend.things).filter((t) => !mend.gone.includes(t.id)) : undefined
  const load = mend.moves.length || mend.food || mend.gone.length ? withMoves(sheet.load, mend.moves) : undefined
  return {
    ...(kit && { kit }),
    ...(load && { load: { ...load, food: mend.food ?? load.food, placements: load.placements.filter((p) => !mend.gone.includes(p.thing_id)) } }),
    ...(mend.stores && { stores: mend.stores }),
    ...((mend.stops.length > 0 || mend.cut || mend.start_hour !== null) && {
      road: {
        ...sheet.road,
        cut: mend.cut ?? sheet.road.cut,
        start_hour: mend.start_hour ?? sheet.road.start_hour,
        stops: replaced(sheet.road.stops, mend.stops),
      },
    }),
    ...(mend.start_date && { start_date: mend.start_date }),
  }
}

export function setFoodShare(load: Load, carrierId: string, tenths: number): Load {
  const others = load.food.filter((f) => f.carrier_id !== carrierId)
  return { ...load, food: tenths > 0 ? [...others, { carrier_id: carrierId, tenths }] : others }
}

export interface CarrierEntry {
  id: string
  name: string
  bikeId: string
  label: string
}

/** All carriers with a name that is unique on this tour: the rider's is added where two bikes share one. */
export function carrierEntries(sheet: TourSheet): CarrierEntry[] {
  const all = sheet.rig.bikes.flatMap((bike) => bike.carriers.map((c) => ({ id: c.id, name: c.name, bike })))
  const twice = (name: string) => all.filter((c) => c.name === name).length > 1
  const rider = (id: string) => sheet.riders.find((r) => r.id === id)?.name ?? ''
  return all.map(({ id, name, bike }) => ({
    id,
    name,
    bikeId: bike.id,
    label: twice(name) ? `${name} (${rider(bike.rider_id)})` : name,
  }))
}
