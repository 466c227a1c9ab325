import { expect, test } from 'vitest'
import { clash, moving, rebased } from './rebase'

const stop = (id: string, water: string, shop = 'none') => ({ id, water, shop })

test('five quick changes of five stops are all there, each made on what was seen at the beginning', () => {
  const seen = { road: { start_hour: 8, stops: ['a', 'b', 'c', 'd', 'e'].map((id) => stop(id, 'none')) } }
  let now = seen
  for (const id of ['a', 'b', 'c', 'd', 'e']) {
    const wanted = { road: { ...seen.road, stops: seen.road.stops.map((s) => (s.id === id ? { ...s, water: 'reliable' } : s)) } }
    now = rebased(seen, wanted, now)
  }
  expect(now.road.stops.map((s) => s.water)).toEqual(Array(5).fill('reliable'))
})

test('a change that waits is moved on where what lies under it is otherwise, and else is the very same', () => {
  const seen = { stops: [stop('a', 'none'), stop('b', 'none')], title: 'x' }
  const first = moving(seen, { stops: [stop('a', 'reliable'), stop('b', 'none')] })
  const second = moving(first(seen), { title: 'y' })
  const shown = second(first(seen))
  const answered = { stops: [stop('a', 'reliable'), stop('b', 'none')], title: 'x' }
  expect(second(answered)).toBe(shown)
  expect(second({ ...answered, stops: [stop('a', 'unsure')] })).toEqual({ stops: [stop('a', 'unsure')], title: 'y' })
  expect(second(answered)).toEqual(shown)
})

test('figures of days are put together by place, other fields and newcomers stay', () => {
  const seen = {
    days: [
      { km: 50, up: 100 },
      { km: 60, up: 100 },
    ],
    riders: [{ id: 'a', kg: 60 }],
  }
  const now = {
    days: [
      { km: 55, up: 100 },
      { km: 60, up: 100 },
    ],
    riders: [
      { id: 'a', kg: 60 },
      { id: 'b', kg: 70 },
    ],
  }
  const wanted = {
    days: [
      { km: 50, up: 100 },
      { km: 60, up: 300 },
    ],
    riders: [{ id: 'a', kg: 61 }],
  }
  expect(rebased(seen, wanted, now)).toEqual({
    days: [
      { km: 55, up: 100 },
      { km: 60, up: 300 },
    ],
    riders: [
      { id: 'a', kg: 61 },
      { id: 'b', kg: 70 },
    ],
  })
})

test('what was taken away stays away, on either side, and what was changed here is kept', () => {
  const seen = [stop('a', 'none'), stop('b', 'none'), stop('c', 'none')]
  expect(rebased(seen, [stop('a', 'none'), stop('c', 'none')], [...seen, stop('d', 'none')]).map((s) => s.id)).toEqual(['a', 'c', 'd'])
  expect(rebased(seen, [stop('a', 'snow'), stop('b', 'none'), stop('c', 'none')], [stop('c', 'none')]).map((s) => s.id)).toEqual(['a', 'c'])
})

test('a field that is let go is let go, and the same field changed twice is as it was wanted last', () => {
  expect(rebased({ a: 1, note: 'x' }, { a: 1 }, { a: 2, note: 'x' })).toEqual({ a: 2 })
  expect(rebased({ a: 1 }, { a: 3 }, { a: 2 })).toEqual({ a: 3 })
  expect(rebased({ services: ['meals'] }, { services: ['meals', 'plugs'] }, { services: ['meals'] })).toEqual({ services: ['meals', 'plugs'] })
})

test('placements are told apart by thing and bag', () => {
  const put = (thing_id: string, carrier_id: string, count = 1) => ({ thing_id, carrier_id, count })
  const seen = [put('tent', 'left')]
  const moved = [put('tent', 'right')]
  expect(rebased(seen, moved, [put('tent', 'left'), put('pot', 'box')])).toEqual([put('tent', 'right'), put('pot', 'box')])
})

test('what somebody else made of the same figure is a clash; what is of this window, or of another figure, is none', () => {
  const kept = { name: 'x', stops: [stop('a', 'none'), stop('b', 'none')] }
  const water = (a: string, b: string) => ({ stops: [stop('a', a), stop('b', b)] })
  const seen = { ...kept, ...water('unsure', 'none') }
  expect(clash(kept, kept, { ...kept, name: 'mine' }, { ...kept, name: 'theirs' })).toBe(true)
  expect(clash(kept, kept, { ...kept, name: 'mine' }, { ...kept, name: 'mine' })).toBe(false)
  expect(clash(kept, kept, { ...kept, name: 'mine' }, { ...kept, ...water('reliable', 'none') })).toBe(false)
  expect(clash(kept, kept, { ...kept, ...water('none', 'unsure') }, { ...kept, ...water('none', 'reliable') })).toBe(true)
  expect(clash(kept, kept, { ...kept, ...water('none', 'unsure') }, { ...kept, ...water('reliable', 'none') })).toBe(false)
  // Changed here a moment ago, and answered meanwhile in the server's way of writing it.
  expect(clash(kept, seen, { ...seen, ...water('reliable', 'none') }, { ...kept, ...water('unsure ', 'none') })).toBe(false)
  expect(clash(kept, kept, { ...kept, stops: [stop('a', 'unsure')] }, { ...kept, ...water('none', 'reliable') })).toBe(false)
})
