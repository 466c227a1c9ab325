/** The diary of the tour: what the server has of it and what waits on this device, and noting more. */
import { useQuery } from '@tanstack/react-query'
import { api, type Entry, type Now } from '../../api/client'
import { useDesk } from '../../api/tour'
import type { WaitingPicture } from '../../offline/db'
import { type Draft, note, useWaiting } from '../../offline/queue'
import { useAuthor } from '../../offline/useAuthor'

/** An entry as it is shown: taken, on its way, or refused. */
export interface Shown {
  entry: Entry
  state: 'taken' | 'waiting' | 'refused'
  refused: string
  hasPicture: boolean
  /** A picture that was not taken. */
  picture?: WaitingPicture
}
export interface Diary {
  now: Now | undefined
  /** The newest last; what was undone is not among them. */
  entries: Shown[]
  waiting: number
  note: (draft: Draft, picture?: Blob) => Promise<Entry>
  undo: (entry: Entry) => Promise<void>
}

const ASKED_AGAIN_MS = 12_000

export function useDiary(): Diary {
  const { tour } = useDesk()
  const { waiting, refusedPictures } = useWaiting()
  const [author] = useAuthor()
  const { data } = useQuery({ queryKey: ['diary', tour.id], queryFn: () => api.diary(tour.id), refetchInterval: ASKED_AGAIN_MS })
  const mine = waiting.filter((one) => one.tour === tour.id)
  const taken = data?.entries ?? []
  const there = new Set(taken.map((one) => one.entry.id))
  const unkept = new Map(refusedPictures.map((one) => [one.entry, one]))
  const every: Shown[] = [
    ...taken.map((one) => ({ entry: one.entry, state: 'taken' as const, refused: '', hasPicture: one.has_picture })),
    ...mine
      .filter((one) => !there.has(one.entry.id))
      .map((one) => ({
        entry: one.entry,
        state: one.refused ? ('refused' as const) : ('waiting' as const),
        refused: one.refused,
        hasPicture: false,
      })),
  ]
  const all = every.map((one) => ({ ...one, picture: unkept.get(one.entry.id) }))
  const undone = new Set<string>()
  for (const one of all.toReversed()) if (one.entry.undoes && !undone.has(one.entry.id)) undone.add(one.entry.undoes)
  return {
    now: data?.now,
    entries: all.filter((one) => one.entry.verb !== 'undo' && !undone.has(one.entry.id)),
    waiting: mine.length,
    note: (draft, picture) => note(tour.id, { author, ...draft }, picture),
    undo: async (entry) => void (await note(tour.id, { verb: 'undo', undoes: entry.id, author, km: entry.km })),
  }
}
