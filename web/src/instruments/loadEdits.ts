/** Edits of a load by hand: pure rearrangements of what the rider said, no rule of placing. */
import type { Load, Thing, TourSheet } from '../api/client'

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
    else placements.push({ thing_id: thingId, carrier_id: to, count, pinned: false, filled_l: null })
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

const SIDE_WORDS = { left: 'left', right: 'right', middle: 'middle' }

/** All carriers with a name that is unique on this tour: side, place or rider is added where two share one. */
export function carrierEntries(sheet: Pick<TourSheet, 'rig' | 'riders'>): CarrierEntry[] {
  const names = namesOf(sheet)
  return sheet.rig.bikes.flatMap((bike) => bike.carriers.map((c) => ({ id: c.id, name: c.name, bikeId: bike.id, label: names.get(c.id) ?? c.name })))
}

/** Names of carriers that tell them apart: of two alike by their side, else by where they hang, else by whose bike it is. */
export function namesOf(sheet: Pick<TourSheet, 'rig' | 'riders'>): Map<string, string> {
  const all = sheet.rig.bikes.flatMap((bike) => bike.carriers.map((carrier) => ({ carrier, bike, name: carrier.name })))
  const rider = (id: string) => sheet.riders.find((r) => r.id === id)?.name ?? ''
  const ways: ((entry: (typeof all)[number]) => string)[] = [
    ({ carrier, bike }) => `${carrier.name}, ${bike.supports.find((s) => s.id === carrier.hangs_on)?.name ?? hangWords(carrier.hangs_on)}`,
    ({ carrier }) => `${carrier.name}, ${SIDE_WORDS[carrier.side]}`,
  ]
  const tell = (entries: typeof all) => {
    for (const entry of entries) {
      const alike = entries.filter((other) => other.carrier.name === entry.carrier.name)
      if (alike.length === 1) continue
      const way = ways.find((words) => new Set(alike.map(words)).size === alike.length)
      entry.name = way ? way(entry) : `${entry.carrier.name} ${alike.indexOf(entry) + 1}`
    }
  }
  for (const bike of sheet.rig.bikes) tell(all.filter((entry) => entry.bike === bike))
  const taken = (name: string) => all.filter((entry) => entry.name === name).length > 1
  return new Map(all.map(({ carrier, bike, name }) => [carrier.id, taken(name) ? `${name} (${rider(bike.rider_id)})` : name]))
}

const hangWords = (mount: string) => mount.replace(/_bolts$/, '').replaceAll('_', ' ')
