/** Showing and reading quantities in the rider's units. The base units are those of the API: kg, l, km, m, °C, mm. */
import type { Quantity, Text } from '../api/client'

export type System = 'metric' | 'imperial'

interface Unit {
  unit: string
  factor: number
  offset?: number
  decimals: number
}

const UNITS: Record<System, Record<Quantity, Unit>> = {
  metric: {
    mass: { unit: 'kg', factor: 1, decimals: 1 },
    volume: { unit: 'l', factor: 1, decimals: 1 },
    distance: { unit: 'km', factor: 1, decimals: 0 },
    elevation: { unit: 'm', factor: 1, decimals: 0 },
    temperature: { unit: '°C', factor: 1, decimals: 0 },
    temperature_difference: { unit: '°C', factor: 1, decimals: 0 },
    length: { unit: 'mm', factor: 1, decimals: 0 },
    share: { unit: '%', factor: 100, decimals: 0 },
    grade: { unit: '%', factor: 100, decimals: 0 },
    minutes: { unit: 'min', factor: 1, decimals: 0 },
    hours: { unit: 'h', factor: 1, decimals: 1 },
    count: { unit: '', factor: 1, decimals: 0 },
    speed: { unit: 'km/h', factor: 1, decimals: 0 },
    pressure: { unit: 'bar', factor: 1, decimals: 1 },
    energy: { unit: 'Wh', factor: 1, decimals: 0 },
    money: { unit: '', factor: 1, decimals: 2 },
  },
  imperial: {
    mass: { unit: 'lb', factor: 1 / 0.45359237, decimals: 1 },
    volume: { unit: 'qt', factor: 1 / 0.946352946, decimals: 1 },
    distance: { unit: 'mi', factor: 1 / 1.609344, decimals: 0 },
    elevation: { unit: 'ft', factor: 1 / 0.3048, decimals: 0 },
    temperature: { unit: '°F', factor: 1.8, offset: 32, decimals: 0 },
    temperature_difference: { unit: '°F', factor: 1.8, decimals: 0 },
    length: { unit: 'in', factor: 1 / 25.4, decimals: 1 },
    share: { unit: '%', factor: 100, decimals: 0 },
    grade: { unit: '%', factor: 100, decimals: 0 },
    minutes: { unit: 'min', factor: 1, decimals: 0 },
    hours: { unit: 'h', factor: 1, decimals: 1 },
    count: { unit: '', factor: 1, decimals: 0 },
    speed: { unit: 'mph', factor: 1 / 1.609344, decimals: 0 },
    pressure: { unit: 'psi', factor: 14.503773773, decimals: 0 },
    energy: { unit: 'Wh', factor: 1, decimals: 0 },
    money: { unit: '', factor: 1, decimals: 2 },
  },
}

const NARROW = '\u202f'
const NO_BREAK = '\u00a0'

export function plain(value: number, decimals: number): string {
  const rounded = value.toFixed(decimals)
  const text = Number(rounded) === 0 ? (0).toFixed(decimals) : rounded
  const [whole = '', part] = text.replace('-', '\u2212').split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, NARROW)
  return part === undefined ? grouped : `${grouped}.${part}`
}

/** Decimals of a mass, so that little is not nothing. */
const fine = (mass: number, usual: number) => (mass < 0.0095 ? 3 : mass < 0.095 ? 2 : usual)

/** The figure alone, with the decimals of its unit. */
export function figure(value: number, quantity: Quantity, system: System, decimals?: number): string {
  const unit = UNITS[system][quantity]
  const shown = value * unit.factor + (unit.offset ?? 0)
  const places = decimals ?? (quantity === 'mass' && shown !== 0 ? fine(Math.abs(shown), unit.decimals) : unit.decimals)
  return plain(shown, quantity === 'count' && !Number.isInteger(shown) ? 1 : places)
}

/** The figure with its unit. */
export function show(value: number, quantity: Quantity, system: System, decimals?: number): string {
  const unit = UNITS[system][quantity].unit
  const text = figure(value, quantity, system, decimals)
  return unit ? text + NO_BREAK + unit : text
}

/** Whether a word is the name of a quantity that is shown in the reader's units. */
export const isQuantity = (word: string): word is Quantity => word in UNITS.metric

export const unitOf = (quantity: Quantity, system: System): string => UNITS[system][quantity].unit

/** A sentence of the core with its figures in the rider's units. */
export function sentence(text: Text, system: System): string {
  return text.words.replace(/\{(\w+)\}/g, (whole, key: string) => {
    const found = text.figures[key]
    if (found) return show(found.value, found.quantity, system, found.decimals ?? undefined)
    return text.names[key] ?? whole
  })
}

const READABLE: Partial<Record<Quantity, Record<string, number>>> = {
  mass: { kg: 1, g: 0.001, lb: 0.45359237, lbs: 0.45359237, oz: 0.028349523125 },
  volume: { l: 1, ml: 0.001, qt: 0.946352946, gal: 3.785411784, 'fl oz': 0.0295735295625, oz: 0.0295735295625 },
  distance: { km: 1, m: 0.001, mi: 1.609344 },
  elevation: { m: 1, ft: 0.3048 },
  length: { mm: 1, cm: 10, m: 1000, in: 25.4 },
  speed: { 'km/h': 1, kmh: 1, mph: 1.609344 },
  pressure: { bar: 1, psi: 1 / 14.503773773 },
  energy: { wh: 1, kwh: 1000 },
}

/** Reads what a rider types (`48 oz`, `1,4 l`, `2 lb 3 oz`, `20F`) into the base unit; undefined if it is no amount. */
export function read(text: string, quantity: Quantity, system: System): number | undefined {
  const typed = text
    .trim()
    .toLowerCase()
    .replace('\u2212', '-')
    .replace(/(?<=\d),(?=\d)/g, '.')
  const own = UNITS[system][quantity]
  if (/^-?\d+(\.\d+)?$/.test(typed)) return (Number(typed) - (own.offset ?? 0)) / own.factor
  if (quantity === 'temperature') {
    const found = /^(-?\d+(?:\.\d+)?)\s*°?\s*([cf])$/.exec(typed)
    if (!found) return undefined
    return found[2] === 'c' ? Number(found[1]) : (Number(found[1]) - 32) / 1.8
  }
  const units = READABLE[quantity] ?? { [own.unit]: 1 / own.factor }
  let total = 0
  let rest = typed
  while (rest) {
    const found = /^(\d+(?:\.\d+)?)\s*(fl oz|km\/h|[a-z%]+)\s*/.exec(rest)
    const factor = found?.[2] === undefined ? undefined : units[found[2]]
    if (!found || factor === undefined) return undefined
    total += Number(found[1]) * factor
    rest = rest.slice(found[0].length)
  }
  return typed ? total : undefined
}
