/** The tour on the desk: as the server last gave it, the changes sent to it, and trouble on the way. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react'
import { api, type Assessment, type Change, Problem, type Progress, type Proposal, type TourAnswer, type TourSheet, type TourView } from './client'

type Parts = Omit<Change, 'revision' | 'what'>

export interface Desk {
  tour: TourView
  sheet: TourSheet
  assessment: Assessment
  busy: string
  /** Long work under way, how far it is, and how to call it off. */
  underWay: (Progress & { cancel: () => void }) | null
  problem: Problem | null
  remarks: string[]
  change: (what: string, parts: Parts) => Promise<boolean>
  step: (step: 'undo' | 'redo') => void
  /** Searches for a load; tells each better one, and takes the last on. Called off, nothing changes. */
  propose: (rounds: number, tell: (better: Proposal) => void, signal: AbortSignal) => Promise<Proposal | undefined>
  /** Changes the load by hand and puts the rest right around what is held. */
  repair: (what: string, load: TourSheet['load'], held: string[]) => Promise<boolean>
  bringTrack: (files: File[], after?: boolean) => Promise<boolean>
  /** Sends something else that answers with the tour. */
  ask: (what: string, call: (id: string, revision: number) => Promise<TourAnswer>) => Promise<boolean>
  reload: () => void
  dismiss: () => void
}

const Context = createContext<Desk | null>(null)

/** The last change under way of each tour. */
const queues = new Map<string, Promise<unknown>>()

export function useDesk(): Desk {
  const found = useContext(Context)
  if (!found) throw new Error('TourProvider is missing')
  return found
}

export function TourProvider({ id, children, waiting }: { id: string; children: ReactNode; waiting: (problem: Problem | null) => ReactNode }) {
  const queries = useQueryClient()
  const key = useMemo(() => ['tour', id], [id])
  const { data, error, refetch } = useQuery<TourAnswer>({ queryKey: key, queryFn: () => api.tour(id) })
  const [busy, setBusy] = useState('')
  const [problem, setProblem] = useState<Problem | null>(null)
  const [remarks, setRemarks] = useState<string[]>([])
  const [underWay, setUnderWay] = useState<Desk['underWay']>(null)

  /** Sends one change after the other, each on the revision that the one before it made. */
  const send = useCallback(
    <T,>(what: string, call: (revision: number) => Promise<T | null>, answerOf: (result: T) => TourAnswer): Promise<T | undefined> => {
      const next = (queues.get(id) ?? Promise.resolve()).then(async () => {
        const now = queries.getQueryData<TourAnswer>(key)
        if (!now) return undefined
        setBusy(what)
        try {
          const result = await call(now.tour.revision)
          if (result === null) return undefined
          const answer = answerOf(result)
          queries.setQueryData(key, answer)
          setProblem(null)
          setRemarks(answer.remarks)
          return result
        } catch (trouble) {
          setProblem(trouble instanceof Problem ? trouble : new Problem({ detail: String(trouble) }))
          return undefined
        } finally {
          setBusy('')
        }
      })
      queues.set(id, next)
      return next
    },
    [id, key, queries],
  )

  const desk = useMemo<Desk | null>(() => {
    if (!data) return null
    const same = (answer: TourAnswer) => answer
    return {
      tour: data.tour,
      sheet: data.tour.sheet,
      assessment: data.assessment,
      busy,
      problem,
      remarks,
      change: async (what, parts) => (await send(what, (revision) => api.change(id, { revision, what, ...parts }), same)) !== undefined,
      step: (step) => void send(step, (revision) => api.step(id, revision, step), same),
      propose: async (rounds, tell, signal) =>
        (
          await send(
            'Working out a load',
            (revision) => api.propose(id, revision, rounds, tell, signal),
            (r) => r.answer,
          )
        )?.proposal,
      repair: async (what, load, held) => (await send(what, (revision) => api.repair(id, revision, what, load, held), same)) !== undefined,
      underWay,
      bringTrack: async (files, after = false) => {
        const stop = new AbortController()
        const tell = (progress: Progress) => setUnderWay({ ...progress, cancel: () => stop.abort() })
        tell({ what: 'Sending the track', share: null })
        const kept = await send('Reading the track', (revision) => api.bringTrack(id, revision, files, after, tell, stop.signal), same)
        setUnderWay(null)
        return kept !== undefined
      },
      ask: async (what, call) => (await send(what, (revision) => call(id, revision), same)) !== undefined,
      reload: () => {
        void refetch().then(() => setProblem(null))
      },
      dismiss: () => {
        setProblem(null)
        setRemarks([])
      },
    }
  }, [data, busy, underWay, problem, remarks, id, send, refetch])

  if (!desk) return waiting(error instanceof Problem ? error : null)
  return <Context.Provider value={desk}>{children}</Context.Provider>
}
