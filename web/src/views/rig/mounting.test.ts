/** Free places and what fits there: nothing is offered where it cannot hang, and what hangs has a name and number of its own. */
import { describe, expect, it } from 'vitest'
import type { Bike, Catalogue, HangingPlace } from '../../api/client'
import { hang, partsFor, sockets } from './mounting'

const bag = (kind: string, name: string) => ({ kind, name, volume_l: 20, limit_kg: 9, price: 60, hangs_on: '', side: 'middle' })
const catalogue = {
  supports: [
    {
      kind: 'rear_rack',
      sides: ['middle'],
      prototype: { kind: 'rear_rack', name: 'Rear rack', mount: 'rear_eyelets', limit_kg: 25, mass_kg: 0.8, price: 50 },
    },
  ],
  carriers: [
    {
      kind: 'rear_pannier',
      hangs_on: ['rack'],
      sides: ['left', 'right'],
      good_for: 'weight',
      trouble: 'heels',
      prototype: bag('rear_pannier', 'Rear pannier'),
    },
    { kind: 'net', hangs_on: ['rear_pannier'], sides: ['left', 'right'], good_for: 'wet things', trouble: 'loss', prototype: bag('net', 'Net') },
  ],
} as unknown as Catalogue
const place = (on: string, takes: string, side = 'middle') => ({ on, takes, side, x: 0, y: 0 }) as HangingPlace
const bike = { id: 'b', mounts: ['rear_eyelets'], supports: [{ id: 'rack', name: 'Rear rack' }], carriers: [] } as unknown as Bike

describe('free places', () => {
  it('offer what their kind takes, on the sides where it hangs', () => {
    const [left] = sockets(bike, [place('rack', 'rack', 'left')], catalogue)
    expect(left).toMatchObject({ id: 'rack/left', name: 'Rear rack, left' })
    expect(left?.offers.map((offer) => offer.carrier)).toEqual(['rear_pannier'])
    expect(left?.offers[0]?.note).toBe('20 l, 9 kg, about 60; weight; heels')
  })

  it('are named after the mount where no support is', () => {
    expect(sockets(bike, [place('rear_eyelets', 'rear_eyelets')], catalogue)[0]).toMatchObject({
      name: 'rear eyelets',
      offers: [{ support: 'rear_rack', note: 'bears 25 kg, weighs 0.8 kg, about 50' }],
    })
  })

  it('that nothing fits are not shown', () => {
    expect(sockets(bike, [place('rack', 'rack', 'middle'), place('stem', 'stem')], catalogue)).toEqual([])
  })
})

describe('hanging', () => {
  const socket = (on: string, takes: string, side: string) => sockets(bike, [place(on, takes, side)], catalogue)[0] ?? expect.fail('no place')

  it('numbers and names by side, and leaves the bike as it was', () => {
    const free = socket('rack', 'rack', 'left')
    const one = hang(bike, [bike], free, free.offers[0] ?? expect.fail(), catalogue)
    const two = hang(one, [one], free, free.offers[0] ?? expect.fail(), catalogue)
    expect(two.carriers.map((c) => [c.id, c.name, c.hangs_on, c.side])).toEqual([
      ['rear-pannier-1', 'Rear pannier left', 'rack', 'left'],
      ['rear-pannier-2', 'Rear pannier left', 'rack', 'left'],
    ])
    expect(bike.carriers).toEqual([])
  })

  it('takes no number that hangs on another bike', () => {
    const free = socket('rack', 'rack', 'right')
    const other = { ...bike, id: 'c', carriers: [{ id: 'rear-pannier-1' }] } as unknown as Bike
    expect(hang(bike, [bike, other], free, free.offers[0] ?? expect.fail(), catalogue).carriers[0]?.id).toBe('rear-pannier-2')
  })

  it('names a compartment after its bag', () => {
    const whole = { ...bag('rear_pannier', 'Rear pannier left'), id: 'p1', side: 'left' } as never
    const loaded = { ...bike, carriers: [whole] } as Bike
    const free = partsFor(whole, catalogue)
    expect(free.offers.map((offer) => offer.name)).toEqual(['Net'])
    const hung = hang(loaded, [loaded], free, free.offers[0] ?? expect.fail(), catalogue)
    expect(hung.carriers.at(-1)).toMatchObject({ name: 'Net, Rear pannier left', hangs_on: 'p1', side: 'left' })
  })

  it('of what the catalogue does not know changes nothing', () => {
    const free = socket('rack', 'rack', 'left')
    expect(hang(bike, [bike], free, { key: 'x', name: 'X', note: '', carrier: 'box' as never }, catalogue)).toBe(bike)
  })
})
