/** Entries on their way: kept on this device until they are taken, sent again until they are, in whatever order. */
import { useSyncExternalStore } from 'react'
import { api, type Entry, Problem } from '../api/client'
import { device, keepEntry, type Waiting, waitingEntries, type WaitingPicture } from './db'

export type Draft = Partial<Omit<Entry, 'id' | 'phone' | 'number' | 'at' | 'offset_min'>> & Pick<Entry, 'verb'>

/** So many go at once. */
const AT_ONCE = 100
/** How soon it is tried again while something waits [ms]. */
const AGAIN_MS = 4000
const NOTHING: Waiting[] = []

let waiting: Waiting[] = NOTHING
let refusedPictures: WaitingPicture[] = []
let reached = true
const listeners = new Set<() => void>()
const others = new BroadcastChannel('omnifer-diary')

async function tell() {
  waiting = await waitingEntries()
  refusedPictures = (await (await device()).getAll('pictures')).filter((one) => one.refused)
  for (const listen of listeners) listen()
}
others.onmessage = () => void tell()

function changed() {
  others.postMessage('changed')
  return tell()
}

/** Notes something now: it is kept on this device before anything is sent. */
export async function note(tour: string, draft: Draft, picture?: Blob): Promise<Entry> {
  const now = new Date()
  const entry = await keepEntry(
    tour,
    {
      author: '',
      km: null,
      about: '',
      name: '',
      amount: null,
      kg: null,
      money: null,
      word: '',
      readings_kg: [],
      raised_mm: 0,
      undoes: null,
      note: '',
      ...draft,
      at: now.toISOString(),
      offset_min: -now.getTimezoneOffset(),
    },
    picture,
  )
  await changed()
  void send()
  return entry
}

/** Sends an entry or its picture again that was refused. */
export async function sendAgain(id: string): Promise<void> {
  const base = await device()
  const [entry, picture] = await Promise.all([base.get('entries', id), base.get('pictures', id)])
  if (entry) await base.put('entries', { ...entry, refused: '' }, id)
  if (picture) await base.put('pictures', { ...picture, refused: '' }, id)
  await changed()
  await send()
}

/** Forgets an entry that was refused, with its picture. */
export async function giveUp(id: string): Promise<void> {
  await (await device()).delete('entries', id)
  await giveUpPicture(id)
}

/** Forgets a picture that was refused; its entry stays. */
export async function giveUpPicture(id: string): Promise<void> {
  await (await device()).delete('pictures', id)
  await changed()
}

/** Sends what waits; of several windows only one does. What was taken is forgotten here, whatever else goes wrong. */
export async function send(): Promise<void> {
  await navigator.locks.request('omnifer-diary', async () => {
    const mine = (await waitingEntries()).filter((one) => !one.refused)
    try {
      for (const tour of new Set(mine.map((one) => one.tour))) {
        const entries = mine.filter((one) => one.tour === tour).map((one) => one.entry)
        for (let first = 0; first < entries.length; first += AT_ONCE) await sendSome(tour, entries.slice(first, first + AT_ONCE))
      }
      await sendPictures()
      reached = true
    } catch (trouble) {
      reached = !(trouble instanceof Problem && trouble.away)
    }
    await changed()
  })
}

/** Whether it was looked at and not taken: sending it again would not help. */
const refusal = (trouble: unknown): trouble is Problem => trouble instanceof Problem && !trouble.away && (trouble.body.status ?? 500) < 500

async function sendSome(tour: string, entries: Entry[]): Promise<void> {
  const base = await device()
  try {
    const { taken } = await api.addEntries(tour, entries)
    await Promise.all(taken.map((id) => base.delete('entries', id)))
  } catch (trouble) {
    if (!refusal(trouble)) throw trouble
    // One of them is refused: each alone tells which, and the others are taken.
    const [only] = entries
    if (entries.length > 1) for (const entry of entries) await sendSome(tour, [entry])
    else if (only) await base.put('entries', { tour, entry: only, refused: trouble.body.detail }, only.id)
  }
}

async function sendPictures(): Promise<void> {
  const base = await device()
  const there = new Set((await waitingEntries()).map((one) => one.entry.id))
  for (const one of await base.getAll('pictures')) {
    if (one.refused || there.has(one.entry)) continue
    try {
      await api.keepEntryPicture(one.tour, one.entry, one.picture)
      await base.delete('pictures', one.entry)
    } catch (trouble) {
      if (!refusal(trouble)) throw trouble
      await base.put('pictures', { ...one, refused: trouble.body.detail }, one.entry)
    }
  }
}

window.addEventListener('online', () => void send())
document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && waiting.length > 0 && void send())
window.setInterval(() => waiting.some((one) => !one.refused) && void send(), AGAIN_MS)
void tell().then(() => waiting.length > 0 && void send())

function listen(then: () => void) {
  listeners.add(then)
  return () => void listeners.delete(then)
}

/** What waits on this device, pictures that were refused, and whether the last try reached anybody. */
export function useWaiting(): { waiting: Waiting[]; refusedPictures: WaitingPicture[]; reached: boolean } {
  const found = useSyncExternalStore(listen, () => waiting)
  const pictures = useSyncExternalStore(listen, () => refusedPictures)
  const answered = useSyncExternalStore(listen, () => reached)
  return { waiting: found, refusedPictures: pictures, reached: answered }
}
