/** Which places of a bike are free, and what of the catalogue fits there. */
import type { Bike, Carrier, Catalogue, Support } from '../../api/client'

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
  /** A mount, or a support to hang bags on. */
  on: string
  side: Side
  offers: Offer[]
}

/** Free places in reading order: supports first, since bags hang on them. */
export function sockets(bike: Bike, catalogue: Catalogue): Socket[] {
  const found: Socket[] = []
  const offer = (on: string, kind: string, name: string, side: Side) => {
    const offers: Offer[] = []
    for (const t of catalogue.supports) {
      if (t.mount === kind && t.sides.includes(side) && !bike.supports.some((s) => s.mount === kind && s.side === side)) {
        offers.push({ key: `s:${t.kind}`, name: t.name, note: `bears ${t.limit_kg} kg, weighs ${t.mass_kg} kg`, support: t.kind })
      }
    }
    for (const t of catalogue.carriers) {
      if (t.hangs_on.includes(kind) && t.sides.includes(side)) {
        offers.push({ key: `c:${t.kind}`, name: t.name, note: `${t.volume_l} l, ${t.limit_kg} kg; ${t.good_for}`, carrier: t.kind })
      }
    }
    if (offers.length) found.push({ id: `${on}/${side}`, name: name + SIDE_WORDS[side], on, side, offers })
  }
  const taken = (on: string, side: Side) => bike.carriers.some((c) => c.hangs_on === on && c.side === side)
  for (const support of bike.supports) {
    const sides: Side[] = support.kind.startsWith('rear') || support.kind.startsWith('front') ? ['left', 'right', 'middle'] : [support.side]
    for (const side of sides) if (!taken(support.id, side)) offer(support.id, support.kind, support.name, side)
  }
  for (const mount of bike.mounts) {
    const sides: Side[] = mount === 'fork_bolts' || mount === 'stem' ? ['left', 'right'] : ['middle']
    for (const side of sides) {
      const bolted = bike.supports.some((s) => s.mount === mount && s.side === side)
      if (!taken(mount, side) && !bolted) offer(mount, mount, MOUNT_WORDS[mount], side)
    }
  }
  return found
}

function freeId(bikes: Bike[], stem: string): string {
  const used = new Set(bikes.flatMap((b) => [...b.carriers.map((c) => c.id), ...b.supports.map((s) => s.id)]))
  let n = 1
  while (used.has(`${stem}-${n}`)) n += 1
  return `${stem}-${n}`
}

/** The bike with something of the catalogue hung on a free place. */
export function hang(bike: Bike, bikes: Bike[], socket: Socket, offer: Offer, catalogue: Catalogue): Bike {
  const word = socket.side === 'middle' ? '' : ` ${socket.side}`
  if (offer.support) {
    const t = catalogue.supports.find((s) => s.kind === offer.support)
    if (!t) return bike
    const added: Support = {
      id: freeId(bikes, t.kind.replaceAll('_', '-')), kind: t.kind, name: t.name + word, mount: t.mount, side: socket.side, mass_kg: t.mass_kg,
      limit_kg: t.limit_kg, trailer: t.trailer,
    }
    return { ...bike, supports: [...bike.supports, added] }
  }
  const t = catalogue.carriers.find((c) => c.kind === offer.carrier)
  if (!t) return bike
  const added: Carrier = {
    id: freeId(bikes, t.kind.replaceAll('_', '-')), kind: t.kind, name: t.name + word, hangs_on: socket.on, side: socket.side, mass_kg: t.mass_kg,
    volume_l: t.volume_l, limit_kg: t.limit_kg, longest_mm: t.longest_mm, reach: t.reach, dryness: t.dryness,
  }
  return { ...bike, carriers: [...bike.carriers, added] }
}
