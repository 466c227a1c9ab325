/** What is said of a thing, aspect by aspect: the words that follow from what it is, and what can be added to them. */
import type { Quantity, Thing, TourSheet } from '../../api/client'
import { REACH_WORDS } from '../../ui/icons'
import { roleWords } from './RoleFields'
import { whereWords } from './WhereFields'

export type Guessable = Thing['guessed'][number]
export const NATURES = [
  'food',
  'fuel',
  'soap',
  'down',
  'sharp',
  'air_mat',
  'electronics',
  'dirty',
  'clean',
  'papers',
  'valuables',
  'first_aid',
  'shelter',
] as const
export const natureWords = (nature: string) => nature.replace('_', ' ')
export const FLAGS = {
  wet: 'gets wet',
  fuel: 'is fuel',
  food: 'is food that always comes',
  bag: 'is a bag for other things',
  closed: 'a bag that stays shut on the way',
  may_stay: 'may stay at home if room is short',
  must: 'must come, whatever it costs',
  spare: 'a second one on purpose',
} as const
export type Flag = keyof typeof FLAGS
export const ALL_FLAGS = Object.keys(FLAGS) as Flag[]
export const DRY = { any: 'may get damp', own_bag: 'dry, in its own dry bag', must: 'dry, in a waterproof bag' } as const
export const CONDITIONS = { new: 'new, untried', trusted: 'trusted', worn: 'worn', near_its_end: 'near its end', repaired: 'repaired' } as const
export const HELD = { owned: 'owned', borrowed: 'borrowed', wished: 'still to be got' } as const
export const VESSEL_FLAGS = { soft_vessel: 'soft vessel', salts: 'bottle for drinks with salts' } as const
export const ALL_VESSEL_FLAGS = Object.keys(VESSEL_FLAGS) as (keyof typeof VESSEL_FLAGS)[]

interface Saying {
  sheet: TourSheet
  show: (value: number, quantity: Quantity, decimals?: number) => string
  service: (id: string) => string
}
interface Aspect {
  line: 'Takes' | 'Wanted' | 'Kept' | 'It' | 'Comes'
  /** Its mark where it is a guess. */
  mark?: Guessable
  /** What adds it where nothing is said. */
  add: string
  /** Of one tour, not of the thing. */
  ofTour?: true
  /** Empty: nothing is said. */
  words: (thing: Thing, saying: Saying) => string
}

const listed = (words: string[]) => words.filter(Boolean).join(', ')

export const ASPECTS = {
  room: {
    line: 'Takes',
    mark: 'volume',
    add: 'room',
    words: (t, { show }) =>
      t.volume_l ? `${show(t.volume_l, 'volume', 2)} packed${t.pressed_l ? `, ${show(t.pressed_l, 'volume', 2)} pressed` : ''}` : '',
  },
  longest: {
    line: 'Takes',
    mark: 'reach',
    add: 'a rigid side',
    words: (t, { show }) =>
      [t.longest_mm ? `${show(t.longest_mm, 'length')} at its longest` : '', t.thick_mm ? `${show(t.thick_mm, 'length')} thick` : '']
        .filter(Boolean)
        .join(', '),
  },
  reach: { line: 'Wanted', mark: 'reach', add: '', words: (t) => REACH_WORDS[t.reach].toLowerCase() },
  where: { line: 'Wanted', add: 'worn, fixed, posted …', ofTour: true, words: (t, { show }) => whereWords(t.where, (km) => show(km, 'distance')) },
  inside: {
    line: 'Wanted',
    add: 'in another thing',
    ofTour: true,
    words: (t, { sheet }) => (t.inside === null ? '' : `in ${sheet.kit.find((o) => o.id === t.inside)?.name ?? 'another thing'}`),
  },
  group: { line: 'Wanted', add: 'its kit', words: (t) => (t.group ? `with ${t.group}` : '') },
  dry: { line: 'Kept', mark: 'dry', add: '', words: (t) => DRY[t.dry] },
  natures: {
    line: 'It',
    mark: 'natures',
    add: 'what it is like',
    words: (t) => (t.natures.length ? `is ${listed(t.natures.map(natureWords))}` : ''),
  },
  not_with: {
    line: 'Kept',
    mark: 'natures',
    add: 'apart from',
    words: (t) => (t.not_with.length ? `not beside ${listed(t.not_with.map(natureWords))}` : ''),
  },
  role: { line: 'It', mark: 'role', add: 'what it does', words: (t, { show }) => (t.role ? roleWords(t.role, show) : '') },
  serves: {
    line: 'It',
    mark: 'serves',
    add: 'what it serves as',
    words: (t, { service }) => (t.serves.length ? `serves as ${listed(t.serves.map(service))}` : ''),
  },
  water: {
    line: 'It',
    mark: 'role',
    add: 'holds water',
    words: (t, { show }) =>
      t.holds_water_l
        ? listed([`holds ${show(t.holds_water_l, 'volume', 2)} of water`, ...ALL_VESSEL_FLAGS.filter((f) => t[f]).map((f) => VESSEL_FLAGS[f])])
        : '',
  },
  about: { line: 'Comes', add: 'must, may stay, spare, bag …', words: (t) => listed(ALL_FLAGS.filter((f) => t[f]).map((f) => FLAGS[f])) },
  because: { line: 'Comes', add: 'why it comes', ofTour: true, words: (t) => (t.because ? `because ${t.because}` : '') },
  state: {
    line: 'Comes',
    add: 'condition',
    words: (t) =>
      listed([
        t.condition === 'trusted' ? '' : CONDITIONS[t.condition],
        t.held === 'owned' ? '' : HELD[t.held],
        t.year ? `of ${t.year}` : '',
        t.unused_tours ? `not used on ${t.unused_tours} tours` : '',
      ]),
  },
  price: { line: 'Comes', add: 'its price', words: (t, { sheet }) => (t.price ? `for ${t.price} ${sheet.money}`.trim() : '') },
  last_time: { line: 'Comes', add: '', words: (t) => (t.last_time ? `last time: ${t.last_time}` : '') },
} satisfies Record<string, Aspect>

export type AspectId = keyof typeof ASPECTS
export const ALL_ASPECTS = Object.keys(ASPECTS) as AspectId[]
/** As it can be asked by its name. */
export const aspect = (id: AspectId): Aspect => ASPECTS[id]
