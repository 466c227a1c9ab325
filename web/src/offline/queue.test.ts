/** What is noted is kept on the device until it is taken: through silence, refusals, doubled sending and a second window. */
import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Entry } from '../api/client'

const taken: Entry[] = []
const pictures: string[] = []
const asked: number[] = []
/** What the server does with a batch; a Problem is thrown. */
let answers: (entries: Entry[]) => Promise<void> | void = () => undefined
let looks: () => Promise<void> | void = () => undefined

vi.stubGlobal('window', { addEventListener: vi.fn(), setInterval: vi.fn() })
vi.stubGlobal('document', { addEventListener: vi.fn(), visibilityState: 'visible' })
vi.stubGlobal(
  'BroadcastChannel',
  class {
    postMessage() {}
  },
)
vi.stubGlobal('navigator', { locks: { request: (_: string, then: () => Promise<void>) => oneAtATime(then) } })
vi.mock('../api/client', () => {
  class Problem extends Error {
    constructor(readonly body: { detail: string; status?: number; again?: boolean }) {
      super(body.detail)
    }
    get away() {
      return this.body.again === true
    }
  }
  const api = {
    addEntries: async (_: string, entries: Entry[]) => {
      asked.push(entries.length)
      await answers(entries)
      taken.push(...entries)
      return { taken: entries.map((e) => e.id), otherwise: [] }
    },
    keepEntryPicture: async (_: string, id: string) => {
      await looks()
      pictures.push(id)
    },
  }
  return { api, Problem }
})
const { Problem } = await import('../api/client')
const { device, waitingEntries } = await import('./db')
const { giveUp, giveUpPicture, note, send, sendAgain } = await import('./queue')

/** As locks of a browser: whoever comes later waits. */
let before: Promise<void> = Promise.resolve()
function oneAtATime(then: () => Promise<void>): Promise<void> {
  before = before.then(then)
  return before
}
const away = () => {
  throw new Problem({ detail: 'Nobody answers', again: true })
}
const refusing = (words: string) => () => {
  throw new Problem({ detail: words, status: 422 })
}
const picture = new Blob(['light'])
/** Notes without a network, as on a mountain. */
async function noted(...notes: string[]): Promise<Entry[]> {
  answers = away
  const made = []
  for (const words of notes) made.push(await note('t1', { verb: 'note', note: words }))
  await send()
  return made
}

beforeEach(async () => {
  await before
  const base = await device()
  await Promise.all([base.clear('entries'), base.clear('pictures')])
  for (const list of [taken, pictures, asked]) list.length = 0
  answers = looks = () => undefined
})

describe('what is noted', () => {
  it('waits while nobody answers, and goes in the order of its numbers', async () => {
    const made = await noted('first', 'second', 'third')
    expect(taken).toEqual([])
    expect((await waitingEntries()).map((one) => one.entry.note)).toEqual(['first', 'second', 'third'])
    answers = () => undefined
    await send()
    expect(taken.map((e) => e.note)).toEqual(['first', 'second', 'third'])
    expect(await waitingEntries()).toEqual([])
    const [a, b, c] = made.map((e) => e.number)
    expect([(b ?? 0) - (a ?? 0), (c ?? 0) - (b ?? 0)]).toEqual([1, 1])
    expect(new Set(made.map((e) => e.phone)).size).toBe(1)
  })

  it('is sent under the same name when the answer was lost on the way', async () => {
    const [entry] = await noted('once')
    answers = (entries) => {
      taken.push(...entries)
      away()
    }
    await send()
    answers = () => undefined
    await send()
    expect(taken.map((e) => e.id)).toEqual([entry?.id, entry?.id])
    expect(await waitingEntries()).toEqual([])
  })

  it('keeps its number and time of the wall when sent long after', async () => {
    const [entry] = await noted('late')
    answers = () => undefined
    await send()
    expect(taken[0]).toEqual(entry)
  })

  it('goes a hundred at a time', async () => {
    await noted(...Array.from({ length: 103 }, (_, n) => `${n}`))
    asked.length = 0
    answers = () => undefined
    await send()
    expect(asked).toEqual([100, 3])
  })

  it('is sent by one window only', async () => {
    await noted('mine')
    asked.length = 0
    answers = () => undefined
    await Promise.all([send(), send(), send()])
    expect(asked).toEqual([1])
  })
})

describe('what is refused', () => {
  it('waits with its reason, and the others are taken', async () => {
    const [, bad] = await noted('good', 'bad', 'fine')
    answers = (entries) => {
      if (entries.some((e) => e.note === 'bad')) refusing('No such thing')()
    }
    await send()
    expect(taken.map((e) => e.note)).toEqual(['good', 'fine'])
    expect((await waitingEntries()).map((one) => [one.entry.id, one.refused])).toEqual([[bad?.id, 'No such thing']])
  })

  it('is not sent again by itself, but when its rider says so', async () => {
    const [entry] = await noted('bad')
    answers = refusing('Not yet')
    await send()
    asked.length = 0
    await send()
    expect(asked).toEqual([])
    answers = () => undefined
    await sendAgain(entry?.id ?? '')
    expect(taken.map((e) => e.id)).toEqual([entry?.id])
  })

  it('is forgotten when its rider says so', async () => {
    const [entry] = await noted('bad')
    answers = refusing('Never')
    await send()
    await giveUp(entry?.id ?? '')
    expect(await waitingEntries()).toEqual([])
  })

  it('is no refusal where the server stumbles', async () => {
    await noted('kept')
    answers = () => {
      throw new Problem({ detail: 'Something went wrong', status: 500 })
    }
    await send()
    expect((await waitingEntries()).map((one) => one.refused)).toEqual([''])
  })
})

describe('a picture', () => {
  it('goes after its entry', async () => {
    answers = away
    const entry = await note('t1', { verb: 'note' }, picture)
    await send()
    expect(pictures).toEqual([])
    answers = () => undefined
    await send()
    expect(pictures).toEqual([entry.id])
    expect(await (await device()).getAll('pictures')).toEqual([])
  })

  it('stays on the device where it is refused, until its rider lets it go', async () => {
    looks = refusing('This is no picture that can be read')
    const entry = await note('t1', { verb: 'note' }, picture)
    await send()
    expect(taken.map((e) => e.id)).toEqual([entry.id])
    const base = await device()
    expect((await base.get('pictures', entry.id))?.refused).toBe('This is no picture that can be read')
    await giveUpPicture(entry.id)
    expect(await base.getAll('pictures')).toEqual([])
  })

  it('waits where nobody answers', async () => {
    looks = away
    const entry = await note('t1', { verb: 'note' }, picture)
    await send()
    looks = () => undefined
    await send()
    expect(pictures).toEqual([entry.id])
  })
})
