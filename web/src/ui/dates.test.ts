/** Days are counted by the calendar, whatever the clocks do. */
import { describe, expect, it } from 'vitest'
import { daysBetween, fullDate, shortDate } from './dates'

describe('days between', () => {
  it('count over the end of a month, a leap day and a change of clocks', () => {
    expect(daysBetween('2026-08-26', '2026-08-26')).toBe(0)
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2)
    expect(daysBetween('2026-10-24', '2026-10-26')).toBe(2)
    expect(daysBetween('2027-01-01', '2026-12-31')).toBe(-1)
  })
})

describe('a date', () => {
  it('is the day that it says, with or without an hour', () => {
    expect(shortDate('2027-04-24')).toBe('Sat 24 Apr')
    expect(fullDate('2027-04-24T23:59:00Z')).toBe('24 April 2027')
  })
})
