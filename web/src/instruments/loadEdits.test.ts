/** Edits by hand never lose or double a thing, and undo themselves. */
import { describe, expect, it } from 'vitest'
import type { Load, Thing } from '../api/client'
import { moveGroup, moveThing, pinCarrier, pinThing, setFoodShare, swapCarriers, withNested } from './loadEdits'

const at = (thing_id: string, carrier_id: string, count = 1, pinned = false) => ({ thing_id, carrier_id, count, pinned, filled_l: null })
const LOAD: Load = {
  placements: [at('mug', 'left', 2), at('mug', 'right', 1, true), at('pot', 'left'), at('stove', 'left')],
  food: [{ carrier_id: 'left', tenths: 4 }],
}
const countOf = (load: Load, thing: string) => load.placements.filter((p) => p.thing_id === thing).reduce((n, p) => n + p.count, 0)
const byPlace = (load: Load) => Object.fromEntries(load.placements.map((p) => [`${p.thing_id}@${p.carrier_id}${p.pinned ? '!' : ''}`, p.count]))

describe('moving', () => {
  it('takes no more than there is, and keeps the sum', () => {
    const moved = moveThing(LOAD, 'mug', 2, 'left', 'box')
    expect(byPlace(moved)).toMatchObject({ 'mug@box': 2, 'mug@right!': 1 })
    expect(countOf(moved, 'mug')).toBe(3)
    expect(moved.placements.some((p) => p.count === 0)).toBe(false)
  })

  it('joins what lies there already, unless that is pinned', () => {
    expect(byPlace(moveThing(LOAD, 'mug', 1, null, 'left'))).toMatchObject({ 'mug@left': 3 })
    expect(byPlace(moveThing(LOAD, 'mug', 1, 'left', 'right'))).toMatchObject({ 'mug@left': 1, 'mug@right': 1, 'mug@right!': 1 })
  })

  it('to the shelf and back is as it was', () => {
    const back = moveThing(moveThing(LOAD, 'pot', 1, 'left', null), 'pot', 1, null, 'left')
    expect(byPlace(back)).toEqual(byPlace(LOAD))
  })

  it('leaves the load it was given alone', () => {
    const before = JSON.stringify(LOAD)
    moveThing(LOAD, 'mug', 2, 'left', 'box')
    swapCarriers(LOAD, 'left', 'right')
    expect(JSON.stringify(LOAD)).toBe(before)
  })

  it('takes along what rides in a thing', () => {
    const kit = [
      { id: 'pot', inside: null, count: 1 },
      { id: 'stove', inside: 'pot', count: 1 },
      { id: 'mug', inside: null, count: 3 },
    ] as Thing[]
    expect(withNested(kit, 'pot', 1)).toEqual([
      { id: 'pot', count: 1 },
      { id: 'stove', count: 1 },
    ])
    expect(byPlace(moveGroup(LOAD, withNested(kit, 'pot', 1), 'left', 'right'))).toMatchObject({ 'pot@right': 1, 'stove@right': 1 })
  })
})

describe('whole bags', () => {
  it('swap with food and pins, and twice is as before', () => {
    const swapped = swapCarriers(LOAD, 'left', 'right')
    expect(byPlace(swapped)).toEqual({ 'mug@right': 2, 'mug@left!': 1, 'pot@right': 1, 'stove@right': 1 })
    expect(swapped.food).toEqual([{ carrier_id: 'right', tenths: 4 }])
    expect(swapCarriers(swapped, 'left', 'right')).toEqual(LOAD)
  })

  it('are pinned and freed as one, or thing by thing', () => {
    expect(pinCarrier(LOAD, 'left', true).placements.filter((p) => p.pinned)).toHaveLength(4)
    expect(
      pinThing(LOAD, 'pot', 'left', true)
        .placements.filter((p) => p.pinned)
        .map((p) => p.thing_id),
    ).toEqual(['mug', 'pot'])
  })

  it('take a share of the food, or none', () => {
    expect(setFoodShare(LOAD, 'box', 3).food).toHaveLength(2)
    expect(setFoodShare(LOAD, 'left', 0).food).toEqual([])
  })
})
