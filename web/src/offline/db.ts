/** What this device keeps of its own: entries that nobody took yet, their pictures, and its count of them. */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { Entry } from '../api/client'

export interface Waiting {
  tour: string
  entry: Entry
  /** Why it was not taken, where it was refused; it waits until its rider looks at it. */
  refused: string
}
/** A picture that nobody took yet, by the entry that it belongs to. */
export interface WaitingPicture {
  tour: string
  entry: string
  picture: Blob
  /** Why it was not taken; it stays here until its rider has saved it or lets it go. */
  refused?: string
}
interface Kept extends DBSchema {
  entries: { key: string; value: Waiting }
  pictures: { key: string; value: WaitingPicture }
  device: { key: string; value: string | number }
}
export type Device = IDBPDatabase<Kept>

let opened: Promise<Device> | undefined

export function device(): Promise<Device> {
  opened ??= openDB<Kept>('omnifer', 1, {
    upgrade(base) {
      base.createObjectStore('entries')
      base.createObjectStore('pictures')
      base.createObjectStore('device')
    },
  })
  opened.catch(() => (opened = undefined))
  return opened
}

/** Keeps an entry with the next number of this device, both or neither. */
export async function keepEntry(tour: string, draft: Omit<Entry, 'id' | 'phone' | 'number'>, picture?: Blob): Promise<Entry> {
  const base = await device()
  const change = base.transaction(['entries', 'pictures', 'device'], 'readwrite')
  const facts = change.objectStore('device')
  const phone = ((await facts.get('phone')) as string | undefined) ?? crypto.randomUUID()
  const number = (((await facts.get('number')) as number | undefined) ?? 0) + 1
  const entry: Entry = { ...draft, id: crypto.randomUUID(), phone, number }
  await Promise.all([
    facts.put(phone, 'phone'),
    facts.put(number, 'number'),
    change.objectStore('entries').put({ tour, entry, refused: '' }, entry.id),
    picture && change.objectStore('pictures').put({ tour, entry: entry.id, picture }, entry.id),
    change.done,
  ])
  return entry
}

export async function waitingEntries(): Promise<Waiting[]> {
  const base = await device()
  const found = await base.getAll('entries')
  return found.sort((a, b) => a.entry.number - b.entry.number)
}

/** Lets go of all that is kept here, of every tour. */
export async function forgetEntries() {
  const base = await device()
  const change = base.transaction(['entries', 'pictures', 'device'], 'readwrite')
  const stores = (['entries', 'pictures', 'device'] as const).map((name) => change.objectStore(name).clear())
  await Promise.all([...stores, change.done])
}
