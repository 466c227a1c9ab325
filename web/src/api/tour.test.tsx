/** @vitest-environment jsdom */
/** Changes go one after the other, each on what the one before it made, and wait where nobody answers; what is worked out waits for them. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, cleanup, render, screen, waitFor } from '@testing-library/react'
import { useEffect } from 'react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { useDesk, TourProvider, useWork } from './tour'
import { useWorkedOut } from './workedOut'

interface Sheet {
  name: string
  stores: { washes: boolean }
}
interface Sent {
  revision: number
  what: string
  name?: string
}
const kept = { revision: 1, sheet: { name: 'Once', stores: { washes: true } } as Sheet }
const sent: Sent[] = []
/** What the server does with a change before it keeps it. */
let meets: (change: Sent) => Promise<void> = () => Promise.resolve()

vi.mock('./copy', () => ({ keepCopy: () => undefined }))
vi.mock('./client', () => {
  class Problem extends Error {
    constructor(readonly body: { detail: string; again?: boolean }) {
      super(body.detail)
    }
    get away() {
      return this.body.again === true
    }
  }
  const told = () => structuredClone({ tour: { id: 't', ...kept }, assessment: {}, remarks: [] })
  const api = {
    tour: () => Promise.resolve(told()),
    change: async (_: string, change: Sent) => {
      sent.push(change)
      await meets(change)
      if (change.revision !== kept.revision) throw new Problem({ detail: 'Changed meanwhile' })
      kept.revision += 1
      if (change.name) kept.sheet = { ...kept.sheet, name: change.name }
      return told()
    },
  }
  return { api, Problem, askAgainAfter: () => 5 }
})

const asked: string[] = []
const ended: string[] = []

function Price({ of }: { of: string }) {
  const { data } = useWorkedOut<string>(
    'price',
    (_, signal) =>
      new Promise((done) => {
        asked.push(of)
        signal.addEventListener('abort', () => ended.push(of))
        setTimeout(() => done(`${of} costs`), 200)
      }),
    { about: [of], dwell: 10 },
  )
  return <p>{data ?? 'Reckoning'}</p>
}

const held = {} as { change: ReturnType<typeof useDesk>['change'] }
const change = (what: string, parts: { name: string }) => held.change(what, parts)
function Page({ of }: { of: string }) {
  const desk = useDesk()
  const { unsent, problem } = useWork()
  useEffect(() => {
    held.change = desk.change
  })
  return (
    <>
      <h1>{desk.sheet.name}</h1>
      {unsent && <button onClick={unsent.giveUp}>Give it up</button>}
      {problem && <b role="alert">{problem.body.detail}</b>}
      {of && <Price of={of} />}
    </>
  )
}

const page = (of = '') => (
  <QueryClientProvider client={client}>
    <TourProvider id="t" waiting={() => <i>waiting</i>}>
      <Page of={of} />
    </TourProvider>
  </QueryClientProvider>
)
let client: QueryClient
let shown: ReturnType<typeof render>

beforeEach(async () => {
  client = new QueryClient()
  Object.assign(kept, { revision: 1, sheet: { name: 'Once', stores: { washes: true } } })
  for (const list of [sent, asked, ended]) list.length = 0
  meets = () => Promise.resolve()
  shown = render(page())
  await screen.findByRole('heading', { name: 'Once' })
})
afterEach(cleanup)

const away = async () => {
  const { Problem } = await import('./client')
  return new Problem({ detail: 'Nobody is there', again: true } as never)
}

it('shows a change at once and sends each on the revision that the one before it made', async () => {
  let first = () => {}
  meets = (one) => (one.what === 'a' ? new Promise((done) => (first = done)) : Promise.resolve())
  act(() => void change('a', { name: 'Twice' }))
  await screen.findByRole('heading', { name: 'Twice' })
  act(() => void change('b', { name: 'Thrice' }))
  await screen.findByRole('heading', { name: 'Thrice' })
  expect(sent.map((one) => one.what)).toEqual(['a'])
  first()
  await waitFor(() => expect(kept.sheet.name).toBe('Thrice'))
  expect(sent.map((one) => one.revision)).toEqual([1, 2])
})

it('sends again what nobody takes, until it is taken or given up', async () => {
  const nobody = await away()
  meets = () => (sent.length < 4 ? Promise.reject(nobody) : Promise.resolve())
  act(() => void change('a', { name: 'Twice' }))
  await waitFor(() => expect(kept.sheet.name).toBe('Twice'))
  expect(sent.length).toBe(4)
  await waitFor(() => expect(screen.queryByText('Give it up')).toBeNull())

  meets = () => Promise.reject(nobody)
  act(() => void change('b', { name: 'Never' }))
  await act(async () => (await screen.findByText('Give it up')).click())
  await screen.findByRole('heading', { name: 'Twice' })
  const tries = sent.length
  meets = () => Promise.resolve()
  await new Promise((done) => setTimeout(done, 40))
  expect([sent.length, kept.sheet.name]).toEqual([tries, 'Twice'])
})

it('says why a change was refused, and shows what is kept', async () => {
  kept.revision = 7
  await act(() => change('a', { name: 'Twice' }))
  expect(screen.getByRole('alert').textContent).toBe('Changed meanwhile')
  expect(screen.getByRole('heading').textContent).toBe('Once')
})

it('works something out once no change is on its way, and calls it off with its view', async () => {
  let taken = () => {}
  meets = () => new Promise((done) => (taken = done))
  act(() => void change('a', { name: 'Twice' }))
  shown.rerender(page('Tent'))
  await new Promise((done) => setTimeout(done, 40))
  expect(asked).toEqual([])
  act(() => taken())
  await screen.findByText('Tent costs')

  shown.rerender(page('Stove'))
  await waitFor(() => expect(asked).toEqual(['Tent', 'Stove']))
  shown.rerender(page('Pot'))
  shown.rerender(page(''))
  await new Promise((done) => setTimeout(done, 40))
  // The stove was asked for and called off; the pot was not looked at for long enough to be asked for.
  expect([asked, ended]).toEqual([['Tent', 'Stove'], ['Stove']])
})
