/** Which places of a bike are free, and what of the catalogue fits there. */
import { freeId } from '../../ui/freeId'
import type { Bike, Carrier, Catalogue, HangingPlace, Support } from '../../api/client'

export const MOUNT_WORDS: Record<Bike['mounts'][number], string> = {
  rear_eyelets: 'rear eyelets', fork_eyelets: 'fork eyelets', fork_bolts: 'fork leg', handlebar: 'handlebar', stem: 'stem', top_tube: 'top tube',
  frame_triangle: 'frame triangle', down_tube_bolts: 'down tube', seat_tube_bolts: 'seat tube', under_down_tube_bolts: 'under the down tube',
  saddle: 'saddle', rear_axle: 'rear axle', riders_back: "rider's back",
}

type Side = Carrier['side']
const SIDE_WORDS: Record<Side, string> = { left: ', left', middle: '', right: ', right' }

export interface Offer {
  key: string
  name: string
  note: string
  support?: Support['kind']
  carrier?: Carrier['kind']
}

export interface Socket {
  id: string
  name: string
  place: HangingPlace
  offers: Offer[]
}

const carriersFor = (takes: string, side: Side, catalogue: Catalogue): Offer[] =>
  catalogue.carriers.filter((t) => t.hangs_on.includes(takes) && t.sides.includes(side))
    .map((t) => ({ key: `c:${t.kind}`, name: t.name, note: `${t.volume_l} l, ${t.limit_kg} kg, about ${t.price}; ${t.good_for}; ${t.trouble}`, carrier: t.kind }))

/** The compartments, pockets and nets that a bag can have. */
export const partsFor = (bag: Carrier, catalogue: Catalogue): Socket => ({
  id: bag.id, name: bag.name, place: { on: bag.id, takes: bag.kind, side: bag.side, x: 0, y: 0 }, offers: carriersFor(bag.kind, bag.side, catalogue),
})

/** The free places of a bike with what the catalogue has for them. */
export function sockets(bike: Bike, places: HangingPlace[], catalogue: Catalogue): Socket[] {
  return places.flatMap((place) => {
    const { takes, side } = place
    const supports: Offer[] = catalogue.supports.filter((t) => t.mount === takes && t.sides.includes(side))
      .map((t) => ({ key: `s:${t.kind}`, name: t.name, note: `bears ${t.limit_kg} kg, weighs ${t.mass_kg} kg, about ${t.price}`, support: t.kind }))
    const carriers = carriersFor(takes, side, catalogue)
    const name = bike.supports.find((s) => s.id === place.on)?.name ?? MOUNT_WORDS[place.on as keyof typeof MOUNT_WORDS]
    const offers = [...supports, ...carriers]
    return offers.length ? [{ id: `${place.on}/${side}`, name: name + SIDE_WORDS[side], place, offers }] : []
  })
}

const idsOf = (bikes: Bike[]) => bikes.flatMap((b) => [...b.carriers, ...b.supports].map((hung) => hung.id))

/** The bike with something of the catalogue hung on a free place. */
export function hang(bike: Bike, bikes: Bike[], socket: Socket, offer: Offer, catalogue: Catalogue): Bike {
  const { on, side } = socket.place
  const word = side === 'middle' ? '' : ` ${side}`
  if (offer.support) {
    const t = catalogue.supports.find((s) => s.kind === offer.support)
    if (!t) return bike
    const added: Support = {
      id: freeId(t.kind.replaceAll('_', '-'), idsOf(bikes)), kind: t.kind, name: t.name + word, mount: t.mount, side, mass_kg: t.mass_kg,
      limit_kg: t.limit_kg, trailer: t.trailer, bolts: t.bolts, improvised: false, price: t.price, source: 'default',
    }
    return { ...bike, supports: [...bike.supports, added] }
  }
  const t = catalogue.carriers.find((c) => c.kind === offer.carrier)
  const whole = bike.carriers.find((c) => c.id === on)
  if (!t) return bike
  const added: Carrier = {
    id: freeId(t.kind.replaceAll('_', '-'), idsOf(bikes)), kind: t.kind, name: whole ? `${t.name}, ${whole.name}` : t.name + word, hangs_on: on, side, mass_kg: t.mass_kg,
    volume_l: t.volume_l, most_l: 0, limit_kg: t.limit_kg, longest_mm: t.longest_mm, reach: t.reach, dryness: t.dryness, leaks: '', improvised: false,
    size: null, stand_off_mm: null, opening: t.opening, locks: false,
    straps: t.straps, lifts_off: t.lifts_off, colour: '', price: t.price, source: 'default',
  }
  return { ...bike, carriers: [...bike.carriers, added] }
}
