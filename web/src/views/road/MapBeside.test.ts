/** Taking what a map has: what is wanted, once, and nothing else. */
import { expect, test } from 'vitest'
import type { MappedRoad, Road, Stop } from '../../api/client'
import { said } from './guessed'
import { withMap } from './MapBeside'

const stop = (id: string, at_km: number, more: Partial<Stop> = {}) => ({ id, at_km, guessed: [], mapped: null, ...more }) as unknown as Stop

const road = {
  stops: [stop('a', 10), stop('b', 20), stop('c', 30)],
  surfaces: [],
  hazards: [{ kind: 'bears' }],
  transfers: [],
} as unknown as Road
const map = {
  stops: [
    { state: 'new', was: null, stop: stop('m', 15) },
    { state: 'changed', was: 'b', stop: stop('b', 20, { shop: 'full' }) },
    { state: 'gone', was: 'c', stop: null },
  ],
  surfaces: [{ surface: 'gravel' }],
  tunnels: [{ kind: 'tunnels' }],
  ferries: [],
} as unknown as MappedRoad

test('all of it: in road order, the changed one instead, the gone one gone', () => {
  const taken = withMap(road, map, () => true)
  expect(taken.stops.map((s) => [s.id, s.shop])).toEqual([
    ['a', undefined],
    ['m', undefined],
    ['b', 'full'],
  ])
  expect(taken.surfaces).toHaveLength(1)
  expect(taken.hazards.map((h) => h.kind)).toEqual(['bears', 'tunnels'])
})

test('what is left out stays as it was', () => {
  const taken = withMap(road, map, (id) => id === 'm')
  expect(taken.stops.map((s) => s.id)).toEqual(['a', 'm', 'b', 'c'])
  expect([taken.surfaces, taken.hazards]).toEqual([road.surfaces, road.hazards])
})

test('what the rider says of a stop is no word of a map and no guess any more', () => {
  const mapped = stop('m', 15, { opens_h: 8, guessed: ['water'], mapped: { ids: ['n1'], on: '2027-01-01', credit: 'c', parts: ['shop', 'fuels'] } })
  expect(said(mapped, { opens_h: 9 }).mapped?.parts).toEqual(['fuels'])
  expect(said(mapped, { opens_h: 8, name: 'Mill' }).mapped?.parts).toEqual(['shop', 'fuels'])
  expect(said(mapped, { treat_water: true }).guessed).toEqual([])
})
