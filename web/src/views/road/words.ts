/** What the road's kinds are called on screen. */
import type { Day, Road, Stop } from '../../api/client'
import type { useUnits } from '../../ui/preferences'

export const WATER_WORDS: Record<Stop['water'], string> = {
  reliable: 'sure',
  seasonal: 'seasonal',
  unsure: 'not sure',
  snow: 'snow to melt',
  none: 'none',
}
export const SHOP_WORDS: Record<Stop['shop'], string> = { full: 'full', basic: 'basic', snacks: 'snacks only', none: 'none' }
export const SHELTER_WORDS: Record<Stop['shelter'], string> = {
  none: 'none',
  wild: 'good wild camp',
  site: 'camp site',
  hut: 'hut',
  room: 'room',
}
export const BIKE_SHOP_WORDS: Record<Stop['bike_shop'], string> = { none: 'none', basic: 'basic', full: 'full' }
export const SERVICE_WORDS: Record<Stop['services'][number], string> = {
  meals: 'meals',
  laundry: 'laundry',
  plugs: 'plugs',
  post: 'post office',
  transport: 'bus or train',
  doctor: 'doctor or hospital',
}
export const PART_WORDS: Record<Stop['guessed'][number], string> = {
  water: 'water',
  shop: 'shop and hours',
  services: 'services',
  fuels: 'fuel',
  bike_shop: 'bicycle shop',
  shelter: 'where to sleep',
}
export const SURFACE_WORDS: Record<Road['surfaces'][number]['surface'], string> = {
  asphalt: 'smooth asphalt',
  rough_asphalt: 'rough asphalt',
  gravel: 'gravel',
  soft: 'sand or mud',
  push: 'pushing only',
}
export const CARRIAGE_WORDS: Record<Road['transfers'][number]['by'], string> = {
  ferry: 'ferry',
  train: 'train',
  bus: 'bus',
  flight: 'flight',
}
export const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
export const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** A time zone as riders know it: by its city, or by how far it is from Greenwich (the names of the database count westwards). */
export const zoneWords = (id: string): string => {
  const nominal = /^Etc\/GMT([+-])(\d+)$/.exec(id)
  if (nominal) return `UTC${nominal[1] === '+' ? '\u2212' : '+'}${nominal[2]}`
  const [region, ...city] = id.replaceAll('_', ' ').split('/')
  return city.length ? `${city.reverse().join(', ')}, ${region}` : id
}

/** A table of words as the entries of a choice. */
export const choices = <T extends string>(words: Record<T, string>) => (Object.keys(words) as T[]).map((id) => ({ id, text: words[id] }))

/** Where a night at no stop lies. */
export const campPast = (day: Day, units: ReturnType<typeof useUnits>) =>
  day.night_past ? `, ${units.show(day.night_past_km, 'distance')} past ${day.night_past}` : ''
