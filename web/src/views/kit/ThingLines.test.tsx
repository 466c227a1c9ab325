/** @vitest-environment jsdom */
/** Lines of the kit by keyboard and by hand, as the pattern of a grid wants it; and only what changed is drawn again. */
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import type { Thing } from '../../api/client'
import { lineOf, ThingLines } from './ThingLines'

const drawn: string[] = []
const units = {
  figure: (value: number) => {
    drawn.push(String(value))
    return value.toFixed(1)
  },
}
vi.mock('../../ui/preferences', () => ({ useUnits: () => units }))

const thing = (id: string, mass_kg = 1) =>
  ({ id, name: id.toUpperCase(), mass_kg, volume_l: 0, count: 1, guessed: [], where: [] }) as unknown as Thing
const NAMES = ['a', 'b', 'c', 'd']
const opened: string[] = []
let chosen = new Set<string>()
const dropped = { current: vi.fn() }

function lines(heavy = 1) {
  const things = NAMES.map((id) => thing(id, id === 'b' ? heavy : 1))
  return (
    <ThingLines
      title="Camp"
      lines={things.map((t) => lineOf(KEPT.get(`${t.id}${t.mass_kg}`) ?? keep(t), '', 0, { kg: 4, l: 1, minutes: 1 }))}
      chosen={chosen}
      onChoose={(next) => {
        chosen = next
        shown.rerender(lines(heavy))
      }}
      onOpen={(t) => opened.push(t.id)}
      onDrop={dropped}
      empty="Nothing"
    />
  )
}
const KEPT = new Map<string, Thing>()
const keep = (t: Thing) => {
  KEPT.set(`${t.id}${t.mass_kg}`, t)
  return t
}
let shown: ReturnType<typeof render>
const start = () => {
  chosen = new Set()
  opened.length = 0
  shown = render(lines())
}
const row = (name: string) => screen.getByRole('row', { name })
const press = (key: string, more = {}) => fireEvent.keyDown(document.activeElement ?? document.body, { key, ...more })
const picked = () => [...chosen].sort().join('')
afterEach(cleanup)

it('is one stop for the tab key, walked by arrows, opened by return, chosen by space', () => {
  start()
  expect(screen.getAllByRole('row').filter((r) => r.tabIndex === 0)).toEqual([row('A')])
  row('A').focus()
  press('ArrowDown')
  press('ArrowDown')
  expect(document.activeElement).toBe(row('C'))
  expect(screen.getAllByRole('row').filter((r) => r.tabIndex === 0)).toEqual([row('C')])
  press('Enter')
  expect(opened).toEqual(['c'])
  press(' ')
  expect([picked(), row('C').getAttribute('aria-selected')]).toEqual(['c', 'true'])
  press('End')
  press('ArrowDown', { shiftKey: true })
  expect(document.activeElement).toBe(row('D'))
  press('Home')
  press('ArrowDown', { shiftKey: true })
  expect(picked()).toBe('abcd')
  press('Escape')
  expect(picked()).toBe('')
  press('a', { ctrlKey: true })
  expect(picked()).toBe('abcd')
})

it('opens by a press, chooses by its box, a range with shift, and by any press once something is chosen', () => {
  start()
  fireEvent.click(row('B'))
  expect(opened).toEqual(['b'])
  const box = (name: string) => screen.getByRole('checkbox', { name: `Choose ${name}` })
  fireEvent.click(box('A'))
  fireEvent.click(box('C'), { shiftKey: true })
  expect(picked()).toBe('abc')
  fireEvent.click(row('D'))
  expect([picked(), opened.length]).toEqual(['abcd', 1])
  fireEvent.click(row('B'))
  expect(picked()).toBe('acd')
})

it('takes along all that is chosen when one of it is dragged, and takes in what comes from elsewhere', () => {
  start()
  const held = new Map<string, string>()
  const dataTransfer = {
    setData: (k: string, v: string) => held.set(k, v),
    getData: (k: string) => held.get(k) ?? '',
    types: ['text/x-omnifer-thing'],
  }
  fireEvent.click(screen.getByRole('checkbox', { name: 'Choose A' }))
  fireEvent.click(screen.getByRole('checkbox', { name: 'Choose B' }))
  fireEvent.dragStart(row('A'), { dataTransfer })
  expect(held.get('text/x-omnifer-thing')).toBe('["a","b"]')
  held.set('text/x-omnifer-thing', '["a","elsewhere"]')
  fireEvent.drop(screen.getByRole('grid'), { dataTransfer })
  expect(dropped.current).toHaveBeenLastCalledWith('Camp', ['elsewhere'])
})

it('draws again only the line that changed', () => {
  start()
  drawn.length = 0
  shown.rerender(lines(3))
  expect(drawn).toEqual(['3', '0'])
})
