/** Entries in words. */
import type { Entry, TourSheet } from '../../api/client'
import type { useUnits } from '../../ui/preferences'

export const VERBS: Record<Entry['verb'], string> = {
  used: 'Used',
  sent_home: 'Sent home',
  broke: 'Broke',
  ran_out: 'Ran out',
  ate: 'Ate',
  drank: 'Drank',
  filled: 'Filled',
  bought: 'Bought',
  left: 'Left over',
  swapped: 'Swapped',
  lost: 'Lost',
  given_away: 'Given away',
  slept: 'Slept',
  wet_through: 'Wet through',
  pressure: 'Pressure',
  oiled: 'Oiled',
  washed: 'Washed',
  charged: 'Charged',
  mended: 'Mended',
  wore: 'Wore down',
  hurt: 'Hurt',
  hazard: 'Hazard met',
  spent: 'Spent',
  packed_in: 'Packed in',
  note: 'Note',
  set_out: 'Set out',
  here: 'Here',
  arrived: 'Arrived',
  weighed: 'Weighed',
  checked: 'Checked',
  verdict: 'Verdict',
  undo: 'Undone',
}
const QUANTITY = { water: 'volume', food: 'mass', fuel: 'mass', power: 'energy' } as const
const UNITS: Partial<Record<Entry['verb'], string>> = { packed_in: 'min', wore: 'mm', pressure: 'bar' }

type Units = ReturnType<typeof useUnits>

/** An amount of something, with its unit. */
export function amountOf(about: string, amount: number, sheet: TourSheet, units: Units): string {
  if (about in QUANTITY) {
    const quantity = QUANTITY[about as keyof typeof QUANTITY]
    return units.show(amount, quantity, about === 'fuel' ? 2 : undefined)
  }
  const role = sheet.kit.find((t) => t.id === about)?.role
  return role?.does === 'used_up' && role.unit !== 'pieces'
    ? `${Math.round(amount * 10) / 10}\u00a0${role.unit}`
    : `${Math.round(amount * 100) / 100}`
}

export function wordsOf(entry: Entry, sheet: TourSheet, units: Units): string {
  const thing = sheet.kit.find((t) => t.id === entry.about)
  const bag = sheet.rig.bikes.flatMap((b) => [...b.carriers, b]).find((c) => c.id === entry.about)
  const what = thing?.name ?? (entry.name && entry.name !== 'dry' ? entry.name : (bag?.name ?? entry.about))
  const unit = UNITS[entry.verb]
  const amount =
    entry.amount === null
      ? ''
      : unit
        ? `${entry.amount}\u00a0${unit}`
        : entry.verb === 'weighed'
          ? units.show(entry.amount, 'mass', 2)
          : amountOf(entry.about, entry.amount, sheet, units)
  const parts = [VERBS[entry.verb]]
  if (entry.verb === 'here') parts.push(entry.km === null ? '' : `at ${units.show(entry.km, 'distance')}`)
  if (amount) parts.push(amount)
  if (what && !['slept', 'spent', 'here'].includes(entry.verb)) parts.push(what)
  if (entry.word) parts.push(entry.word.replaceAll('_', ' '))
  if (entry.money) parts.push(`${entry.money} ${sheet.money}`)
  return parts.filter(Boolean).join(' ')
}

/** The wall clock where an entry was noted. */
export function wallOf(entry: Entry): { time: string; date: string } {
  const wall = new Date(new Date(entry.at).getTime() + entry.offset_min * 60_000)
  return { time: wall.toISOString().slice(11, 16), date: wall.toISOString().slice(0, 10) }
}
