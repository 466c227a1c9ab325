/** Which places of a bike are free, and what of the catalogue fits there. */
import { freeId } from '../../ui/freeId'
import type { Bike, Carrier, Catalogue, HangingPlace, Owned, Support } from '../../api/client'

export const MOUNT_WORDS: Record<Bike['mounts'][number], string> = {
  rear_eyelets: 'rear eyelets',
  fork_eyelets: 'fork eyelets',
  fork_bolts: 'fork leg',
  handlebar: 'handlebar',
  stem: 'stem',
  top_tube: 'top tube',
  frame_triangle: 'frame triangle',
  down_tube_bolts: 'down tube',
  seat_tube_bolts: 'seat tube',
  under_down_tube_bolts: 'under the down tube',
  saddle: 'saddle',
  rear_axle: 'rear axle',
  riders_back: "rider's back",
}

type Side = Carrier['side']
const SIDE_WORDS: Record<Side, string> = { left: ', left', middle: '', right: ', right' }

export interface Offer {
  key: string
  name: string
  note: string
  support?: Support['kind']
  carrier?: Carrier['kind']
  /** A bag of the library, as its owner knows it. */
  own?: Carrier
}

export interface Socket {
  id: string
  name: string
  place: HangingPlace
  offers: Offer[]
}

const carriersFor = (takes: string, side: Side, catalogue: Catalogue): Offer[] =>
  catalogue.carriers
    .filter((t) => t.hangs_on.includes(takes) && t.sides.includes(side))
    .map(({ kind, good_for, trouble, prototype: t }) => ({
      key: `c:${kind}`,
      name: t.name,
      note: `${t.volume_l} l, ${t.limit_kg} kg, about ${t.price}; ${good_for}; ${trouble}`,
      carrier: kind,
    }))

/** Of the library's bags those of a kind that fits; each with what its owner learned of it. */
const ownFor = (owned: Owned[], fitting: Offer[]): Offer[] =>
  owned.flatMap(({ id, thing }) =>
    thing.hung && fitting.some((o) => o.carrier === thing.hung?.kind)
      ? [
          {
            key: `o:${id}`,
            name: `Your ${thing.name}`,
            note: [`${thing.hung.volume_l} l, ${thing.hung.limit_kg} kg`, thing.last_time].filter(Boolean).join('; '),
            own: { ...thing.hung, name: thing.name, library_id: id },
          },
        ]
      : [],
  )

/** The compartments, pockets and nets that a bag can have. */
export const partsFor = (bag: Carrier, catalogue: Catalogue): Socket => ({
  id: bag.id,
  name: bag.name,
  place: { on: bag.id, takes: bag.kind, side: bag.side, x: 0, y: 0 },
  offers: carriersFor(bag.kind, bag.side, catalogue),
})

/** The free places of a bike with what the catalogue has for them. */
export function sockets(bike: Bike, places: HangingPlace[], catalogue: Catalogue, owned: Owned[] = []): Socket[] {
  return places.flatMap((place) => {
    const { takes, side } = place
    const supports: Offer[] = catalogue.supports
      .filter((t) => t.prototype.mount === takes && t.sides.includes(side))
      .map(({ prototype: t }) => ({
        key: `s:${t.kind}`,
        name: t.name,
        note: `bears ${t.limit_kg} kg, weighs ${t.mass_kg} kg, about ${t.price}`,
        support: t.kind,
      }))
    const carriers = carriersFor(takes, side, catalogue)
    const name = bike.supports.find((s) => s.id === place.on)?.name ?? MOUNT_WORDS[place.on as keyof typeof MOUNT_WORDS]
    const offers = [...ownFor(owned, carriers), ...supports, ...carriers]
    return offers.length ? [{ id: `${place.on}/${side}`, name: name + SIDE_WORDS[side], place, offers }] : []
  })
}

const idsOf = (bikes: Bike[]) => bikes.flatMap((b) => [...b.carriers, ...b.supports].map((hung) => hung.id))

/** The bike with something of the catalogue hung on a free place. */
export function hang(bike: Bike, bikes: Bike[], socket: Socket, offer: Offer, catalogue: Catalogue): Bike {
  const { on, side } = socket.place
  const word = side === 'middle' ? '' : ` ${side}`
  if (offer.support) {
    const found = catalogue.supports.find((s) => s.kind === offer.support)?.prototype
    if (!found) return bike
    const id = freeId(found.kind.replaceAll('_', '-'), idsOf(bikes))
    return { ...bike, supports: [...bike.supports, { ...found, id, name: found.name + word, side }] }
  }
  if (offer.own) {
    const id = freeId(offer.own.kind.replaceAll('_', '-'), idsOf(bikes))
    return { ...bike, carriers: [...bike.carriers, { ...offer.own, id, hangs_on: on, side }] }
  }
  const found = catalogue.carriers.find((c) => c.kind === offer.carrier)?.prototype
  if (!found) return bike
  const whole = bike.carriers.find((c) => c.id === on)
  const name = whole ? `${found.name}, ${whole.name}` : found.name + word
  const id = freeId(found.kind.replaceAll('_', '-'), idsOf(bikes))
  return { ...bike, carriers: [...bike.carriers, { ...found, id, name, hangs_on: on, side }] }
}
