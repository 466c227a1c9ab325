/** Amounts as people write them, checked against the defined conversions (NIST SP 811: pound 0.45359237 kg, US gallon 3.785411784 l). */
import { describe, expect, it } from 'vitest'
import { figure, plain, read, sentence, show } from './units'

describe('reading', () => {
  it.each([
    ['48 oz', 'mass', 48 * 0.028349523125],
    ['2 lb 3 oz', 'mass', 2 * 0.45359237 + 3 * 0.028349523125],
    ['850 g', 'mass', 0.85],
    ['1,4 l', 'volume', 1.4],
    ['16 oz', 'volume', 3.785411784 / 8],
    ['20F', 'temperature', -6.6667],
    ['-40 c', 'temperature', -40],
    ['\u2212' + '5', 'temperature', -5],
    ['6 ft', 'elevation', 1.8288],
    ['3 in', 'length', 76.2],
    ['12 mi', 'distance', 19.312128],
  ] as const)('%s is an amount of %s', (text, quantity, amount) => {
    expect(read(text, quantity, 'metric')).toBeCloseTo(amount, 3)
  })

  it('takes a bare number in the unit that is shown', () => {
    expect(read('10', 'mass', 'imperial')).toBeCloseTo(4.5359237, 6)
    expect(read('50', 'temperature', 'imperial')).toBeCloseTo(10, 6)
    expect(read('35', 'share', 'metric')).toBeCloseTo(0.35, 6)
  })

  it.each(['', 'heavy', '2 stones', '1.2.3', '3 kg and more', '5 l'])('%s is no mass', (text) => {
    expect(read(text, 'mass', 'metric')).toBeUndefined()
  })
})

describe('showing', () => {
  it('reads back what it shows, in both systems', () => {
    for (const system of ['metric', 'imperial'] as const)
      for (const quantity of ['mass', 'volume', 'distance', 'temperature', 'length'] as const)
        for (const value of [-3.2, 0, 0.7, 12.34, 480]) {
          const typed = figure(value, quantity, system, 4).replaceAll('\u202f', '').replace('\u2212', '-')
          expect(read(typed, quantity, system)).toBeCloseTo(value, 2)
        }
  })

  it('groups thousands, never shows minus nothing, and keeps small masses from vanishing', () => {
    expect(plain(33913.4, 0)).toBe('33\u202f913')
    expect(plain(-0.04, 1)).toBe('0.0')
    expect(plain(-1234.5, 1)).toBe('\u22121\u202f234.5')
    expect(show(0.04, 'mass', 'metric')).toBe('0.04\u00a0kg')
    expect(show(25, 'temperature', 'imperial')).toBe('77\u00a0°F')
  })

  it('puts figures and names into a sentence and leaves what it does not know', () => {
    const text = {
      words: '{bag} holds {have} of {limit}, {what}',
      figures: { have: { value: 9.5, quantity: 'mass' as const, decimals: null }, limit: { value: 9, quantity: 'mass' as const, decimals: null } },
      names: { bag: 'Rear left' },
    }
    expect(sentence(text, 'metric')).toBe('Rear left holds 9.5\u00a0kg of 9.0\u00a0kg, {what}')
    expect(sentence(text, 'imperial')).toContain('20.9\u00a0lb of 19.8\u00a0lb')
  })
})
