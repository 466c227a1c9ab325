import { describe, expect, it } from 'vitest'
import { type ComboEntry, foundIn } from './Combo'

const entry = (text: string, also: string): ComboEntry => ({ id: text, text, also, note: '', icon: 'camp' })
const ENTRIES = [entry('tent pegs', 'peg, tent stake, hering'), entry('stake holder', ''), entry('fabric patches', 'zeltflicken, ruban pour tente')]

describe('entries found by typing', () => {
  const found = (typed: string) => foundIn(ENTRIES, typed).map((e) => e.text)
  it('begin with it before they have it elsewhere, in any language', () => {
    expect(found('stake')).toEqual(['stake holder', 'tent pegs'])
    expect(found('Héring')).toEqual(['tent pegs'])
    expect(found('zelt')).toEqual(['fabric patches'])
  })
  it('are all there for nothing typed, and none for what nothing is called', () => {
    expect(found(' ')).toHaveLength(3)
    expect(found('xyz')).toEqual([])
  })
})
