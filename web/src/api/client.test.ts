/** What the server says arrives whole: answers, refusals in words, long work with news on the way, and silence. */
import { beforeEach, describe, expect, it, vi } from 'vitest'

type Reply = (request: Request) => Response | Promise<Response>
const heard: Request[] = []
const tokens: string[] = []
let reply: Reply = () => new Response()

class Here extends Request {
  constructor(input: string | URL | Request, init?: RequestInit) {
    super(typeof input === 'string' ? new URL(input, 'http://127.0.0.1') : input, init)
  }
}
vi.stubGlobal('Request', Here)
vi.stubGlobal('fetch', async (input: string | Request, init?: RequestInit) => {
  const request = new Here(input, init)
  if (request.url.endsWith('/api/session')) return Response.json({ csrf_token: tokens.shift() ?? 'the-token' })
  heard.push(request)
  return reply(request)
})
const { api, askAgain, askAgainAfter, Problem, pick, supplyOf } = await import('./client')

const stream = (...parts: string[]): Response =>
  new Response(
    new ReadableStream<Uint8Array>({
      start(controller) {
        for (const part of parts) controller.enqueue(new TextEncoder().encode(part))
        controller.close()
      },
    }),
    { headers: { 'Content-Type': 'text/event-stream' } },
  )
const propose = (tell: (news: unknown) => void = () => undefined, signal = new AbortController().signal) => api.propose('t1', 4, 2, tell, signal)

beforeEach(() => {
  heard.length = 0
})

describe('a question', () => {
  it('is answered with what came', async () => {
    reply = () => Response.json({ tours: [] })
    expect(await api.tours()).toEqual({ tours: [] })
  })

  it('that changes something carries the token and the revision', async () => {
    reply = () => Response.json({})
    await api.step('t1', 7, 'undo')
    expect(heard[0]?.headers.get('X-CSRFToken')).toBe('the-token')
    expect(new URL(heard[0]?.url ?? '').pathname).toBe('/api/tours/t1/step')
    expect(await heard[0]?.json()).toEqual({ revision: 7, step: 'undo' })
  })

  it('that is refused says what, where and what to do', async () => {
    const body = { status: 422, title: 'Bad', detail: 'The mass is below 0.', place: 'kit', mend: 'Weigh it.' }
    reply = () => Response.json(body, { status: 422 })
    const refused = await api.tours().catch((trouble: unknown) => trouble)
    expect(refused).toBeInstanceOf(Problem)
    expect(refused).toMatchObject({ message: 'The mass is below 0.', stale: false, body: { place: 'kit', mend: 'Weigh it.' } })
  })

  it('knows when another window was faster', async () => {
    reply = () => Response.json({ status: 409, detail: 'Another window changed it.' }, { status: 409 })
    await expect(api.step('t1', 1, 'redo')).rejects.toMatchObject({ stale: true })
  })

  it('to a server that is gone says so, and may be asked again', async () => {
    reply = () => Promise.reject(new TypeError('refused'))
    await expect(api.tours()).rejects.toMatchObject({ message: expect.stringContaining('does not answer') as string, away: true })
  })

  it('is asked again by itself where the server says so, and not where it broke off', async () => {
    const refused = async (again: boolean) => {
      reply = () => Response.json({ status: 503, detail: 'Away.', again }, { status: 503 })
      return api.tours().catch((trouble: unknown) => trouble)
    }
    expect(askAgain(0, await refused(true))).toBe(true)
    expect(askAgain(0, await refused(false))).toBe(false)
    expect(askAgain(0, new Error('of another kind'))).toBe(false)
    expect([0, 1, 2, 9].map(askAgainAfter)).toEqual([300, 600, 1200, 3000])
  })
})

describe('long work', () => {
  const better = 'event: better\ndata: {"done": 0.5}\n\n'
  const answer = 'event: answer\ndata: {"proposal": {"done": 1}}\n\n'

  it('tells its news in order and ends with the answer', async () => {
    reply = () => stream(better, better.replace('0.5', '0.9'), answer)
    const news: unknown[] = []
    expect(await propose((told) => news.push(told))).toEqual({ proposal: { done: 1 } })
    expect(news).toEqual([{ done: 0.5 }, { done: 0.9 }])
    expect(heard[0]?.headers.get('Accept')).toBe('text/event-stream')
  })

  it('is read whole however it is cut on the way', async () => {
    const whole = better + answer
    reply = () => stream(...[...whole].map((letter) => letter))
    const news: unknown[] = []
    expect(await propose((told) => news.push(told))).toEqual({ proposal: { done: 1 } })
    expect(news).toHaveLength(1)
  })

  it('that fails midway says why', async () => {
    reply = () => stream(better, 'event: problem\ndata: {"status": 422, "detail": "No bag."}\n\n')
    await expect(propose()).rejects.toMatchObject({ message: 'No bag.' })
  })

  it('that is refused at once says why', async () => {
    reply = () => Response.json({ status: 409, detail: 'It has changed.' }, { status: 409 })
    await expect(propose()).rejects.toMatchObject({ message: 'It has changed.', stale: true })
  })

  it('that breaks off is no answer', async () => {
    reply = () => stream(better)
    await expect(propose()).rejects.toMatchObject({ message: expect.stringContaining('broke off') as string })
  })

  it('that was called off is null and no trouble', async () => {
    const stop = new AbortController()
    reply = () => {
      stop.abort()
      return Promise.reject(new DOMException('stopped', 'AbortError'))
    }
    expect(await propose(undefined, stop.signal)).toBeNull()
  })
})

describe('columns of moments', () => {
  it('have one value where they never change', () => {
    expect(pick([3], 9)).toBe(3)
    expect(pick([3, 4], 1)).toBe(4)
    expect(pick([], 0)).toBe(0)
  })

  it('are found by the name of their supply, or not at all', () => {
    const water = { supply: 'water', amount: [1] }
    expect(supplyOf({ supplies: [water] } as never, 'water')).toBe(water)
    expect(() => supplyOf({ supplies: [water] } as never, 'food')).toThrow('no food')
  })
})

describe('a page that outlived its session', () => {
  it('asks for a new token and sends the same again', async () => {
    reply = () => Response.json({ detail: 'The token is of another session.', status: 400, again: true }, { status: 400 })
    const refused = await api.addEntries('t1', []).catch((trouble: unknown) => trouble)
    expect(refused).toMatchObject({ away: true })
    tokens.push('a-new-token')
    reply = () => Response.json({ taken: [], otherwise: [] })
    await api.addEntries('t1', [])
    expect(heard.map((request) => request.headers.get('X-CSRFToken'))).toEqual(['the-token', 'a-new-token'])
  })
})
