/** Clocks, dates and names, as they stand on screens and cards. */
import { expect, it } from 'vitest'
import { freeId } from '../../ui/freeId'
import { shortDate } from '../../ui/dates'
import { clock } from '../../ui/dates'
import { choices, zoneWords } from './words'

it.each([
  [0, '00:00'],
  [7.5, '07:30'],
  [13 + 59.6 / 60, '14:00'],
  [23.999, '00:00'],
  [25.25, '01:15'],
])('%d hours are %s', (hours, shown) => {
  expect(clock(hours)).toBe(shown)
})

it('a date is the same day wherever the screen stands', () => {
  expect(shortDate('2027-04-12').split(/,? /).sort()).toEqual(['12', 'Apr', 'Mon'])
  expect(shortDate('2028-02-29').split(/,? /).sort()).toEqual(['29', 'Feb', 'Tue'])
})

it('a table of words keeps its order as a choice', () => {
  expect(choices({ b: 'second', a: 'first' })).toEqual([
    { id: 'b', text: 'second' },
    { id: 'a', text: 'first' },
  ])
})

it('a free number fills the first gap', () => {
  expect(freeId('bag', [])).toBe('bag-1')
  expect(freeId('bag', ['bag-1', 'bag-3', 'box-2'])).toBe('bag-2')
})

it('a time zone is called as riders call it', () => {
  expect(zoneWords('Etc/GMT+2')).toBe('UTC\u22122')
  expect(zoneWords('Etc/GMT-11')).toBe('UTC+11')
  expect(zoneWords('America/Argentina/Buenos_Aires')).toBe('Buenos Aires, Argentina, America')
  expect(zoneWords('UTC')).toBe('UTC')
})
