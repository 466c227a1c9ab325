import { describe, expect, it } from 'vitest'
import type { Thing } from '../../api/client'
import { found, groupsOf, inColumns, type Known } from './groups'

const thing = (name: string, reach = 'camp', group = '') => ({ id: name, name, reach, group, because: '', mass_kg: 1, count: 1 }) as unknown as Thing

const asked = { question: 'safe', thing_ids: ['b'] }
const questions = [{ id: 'safe', words: 'Safe?' }]
const known = {
  ranking: undefined,
  riders: [],
  assessment: { asks: [asked], faults: [], questions, sleepers: [], wardrobes: [] },
} as unknown as Known

describe('the kit in groups', () => {
  it('finds words that are near, accents and slips aside', () => {
    const kit = [thing('Sleeping bag, cold'), thing('Réchaud'), thing('Tent pegs')]
    expect(found(kit, 'slepping bag').map((t) => t.name)[0]).toBe('Sleeping bag, cold')
    expect(found(kit, 'rechaud').map((t) => t.name)).toEqual(['Réchaud'])
    expect(found(kit, 'anchor')).toEqual([])
    expect(found(kit, ' ')).toEqual(kit)
  })
  it('keeps all moments, empty ones too, and puts what has no kit last', () => {
    const kit = [thing('a', 'camp', 'sleep'), thing('b', 'riding'), thing('c', 'camp', 'cook')]
    expect(groupsOf(kit, 'moment', known).map((g) => g.things.length)).toEqual([1, 0, 2, 0, 0])
    expect(groupsOf(kit, 'kit', known).map((g) => g.title)).toEqual(['cook', 'sleep', 'In no kit'])
  })
  it('puts what a question asks for under it, the rest last; by verdict what may stay comes first', () => {
    const kit = [thing('a'), thing('b')].map((t) => ({ ...t, role: null, food: false, holds_water_l: 0 }))
    expect(groupsOf(kit, 'serves', known).map((g) => [g.title, g.things[0]?.id])).toEqual([
      ['Safe?', 'b'],
      ['Asked for by nothing', 'a'],
    ])
    const things = [
      { thing_id: 'a', verdict: 'comes', minutes_a_day: 9, kj_a_day: 1 },
      { thing_id: 'b', verdict: 'probably_not', minutes_a_day: 1, kj_a_day: 1 },
    ]
    const ranked = { ...known, ranking: { things } } as unknown as Known
    expect(groupsOf(kit, 'price', ranked).map((g) => g.title)).toEqual(['Probably not', 'Comes'])
  })
  it('cuts columns in order, the longest as short as can be', () => {
    const sizes = [8, 20, 22, 6, 9].map((n, i) => ({ id: `${i}`, title: '', things: Array.from({ length: n }, (_, k) => thing(`${i}-${k}`)) }))
    expect(inColumns(sizes, 3).map((column) => column.map((g) => g.id))).toEqual([['0', '1'], ['2', '3'], ['4']])
    expect(inColumns(sizes, 1)).toHaveLength(1)
  })
})
