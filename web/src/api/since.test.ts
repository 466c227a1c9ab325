import { expect, test } from 'vitest'
import { otherwise } from './since'

const had = { tour: { name: 'A', kit: [{ id: 'a' }, { id: 'b' }] }, shelf: { a: 1, b: 2 }, bikes: [{ kg: [1, 2], limits: [{ worst: 3 }] }] }
const change = (at: (string | number)[], more: object) => ({ at, to: null, items: null, gone: false, ...more })

test('what changed is put in its place, and the rest stays the very same', () => {
  const now = otherwise(had, [change(['bikes', 0, 'kg'], { to: [5] }), change(['tour', 'name'], { to: 'B' })])
  expect(now.bikes[0]).toEqual({ kg: [5], limits: [{ worst: 3 }] })
  expect(now.bikes[0]?.limits).toBe(had.bikes[0]?.limits)
  expect(now.tour).toEqual({ name: 'B', kit: had.tour.kit })
  expect(now.tour.kit).toBe(had.tour.kit)
  expect(now.shelf).toBe(had.shelf)
  expect(had.tour.name).toBe('A')
})

test('lists are made anew of what stood there, and what is gone is gone', () => {
  const now = otherwise(had, [
    change(['tour', 'kit'], { items: [1, { id: 'c' }, 0] }),
    change(['shelf', 'a'], { gone: true }),
    change(['shelf', 'c'], { to: 4 }),
  ])
  expect(now.tour.kit).toEqual([{ id: 'b' }, { id: 'c' }, { id: 'a' }])
  expect(now.tour.kit[0]).toBe(had.tour.kit[1])
  expect(now.shelf).toEqual({ b: 2, c: 4 })
})

test('an answer that does not belong to what is there is refused', () => {
  expect(() => otherwise(had, [change(['tour', 'kit'], { items: [7] })])).toThrow('entry 7')
})
