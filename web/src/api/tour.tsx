/** The tour on the desk: as the server last gave it with what is on its way to it, a change tried and not kept, and work and trouble on the way. */
import { useIsMutating, useQuery, useQueryClient } from '@tanstack/react-query'
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from 'react'
import { keepCopy } from './copy'
import { clash, moving, rebased, rebasedParts } from './rebase'
import {
  api,
  askAgainAfter,
  type Assessment,
  type Change,
  type Mend,
  Problem,
  type Progress,
  type Proposal,
  type TourAnswer,
  type TourSheet,
  type Tried,
} from './client'

type Parts = Omit<Change, 'revision' | 'what'>

type Bringing = (id: string, revision: number, tell: (progress: Progress) => void, signal: AbortSignal) => Promise<TourAnswer | null>

export interface Desk {
  /** As it is kept; `assessment` is of this. */
  tour: TourAnswer['tour']
  /** With the changes that are not answered yet: what was entered stands where it was entered. */
  sheet: TourSheet
  assessment: Assessment
  change: (what: string, parts: Parts) => Promise<boolean>
  step: (step: 'undo' | 'redo') => void
  /** Searches for a load; tells each better one, and takes the last on. Called off, nothing changes. */
  propose: (rounds: number, tell: (news: Proposal | Progress) => void, signal: AbortSignal) => Promise<Proposal | undefined>
  /** Changes the load by hand and puts the rest right around what is held. */
  repair: (what: string, load: TourSheet['load'], held: string[]) => Promise<boolean>
  /** Sends files, or asks for what takes long, and tells how far it is; called off, nothing changes. */
  bring: (what: string, call: Bringing) => Promise<boolean>
  /** Sends something else that answers with the tour. */
  ask: (what: string, call: (id: string, revision: number) => Promise<TourAnswer>) => Promise<boolean>
}

/** A mend as it would be: nothing of it is kept until the rider says so. */
export interface Trial extends Tried {
  mend: Mend
  name: string
}

interface Trying {
  trial: Trial | null
  attempt: (mend: Mend, name: string) => Promise<void>
  keep: () => Promise<boolean>
  putBack: () => void
}

export interface Work {
  busy: string
  /** A change that nobody took yet, since nobody answers: it is sent again and again until somebody does, or it is given up. */
  unsent: { what: string; giveUp: () => void } | null
  /** Long work under way, how far it is, and how to call it off. */
  underWay: (Progress & { cancel: () => void }) | null
  problem: Problem | null
  remarks: string[]
  reload: () => void
  dismiss: () => void
}

const DeskContext = createContext<Desk | null>(null)
const TrialContext = createContext<Trying | null>(null)
const WorkContext = createContext<Work | null>(null)

function found<T>(value: T | null): T {
  if (value === null) throw new Error('TourProvider is missing')
  return value
}

export const useDesk = (): Desk => found(useContext(DeskContext))
export const useTrial = (): Trying => found(useContext(TrialContext))
export const useWork = (): Work => found(useContext(WorkContext))

interface Drawn {
  sheet: TourSheet
  assessment: Assessment
}
const DrawnContext = createContext<Drawn | null>(null)

/** Draws what is inside as the tour was ridden, or as it is otherwise than on the desk. */
export const DrawnAs = DrawnContext.Provider

/** The tour as it is drawn: with what is being tried, or as it is kept. Edits start from the desk, never from here. */
export function useShown(): Drawn {
  const { tour, assessment } = useDesk()
  const { trial } = useTrial()
  return useContext(DrawnContext) ?? trial ?? { sheet: tour.sheet, assessment }
}

/** Of a change what is a part of a sheet; a mend is none, and shows once it is answered. */
const partsOf = (sheet: TourSheet, parts: Parts): Partial<TourSheet> =>
  Object.fromEntries(Object.entries(parts).filter(([name, value]) => name in sheet && value !== undefined && value !== null))

/** What makes the changes of a tour wait for each other. */
export const scopeOf = (id: string) => `tour ${id}`

const asProblem = (trouble: unknown) => (trouble instanceof Problem ? trouble : new Problem({ detail: String(trouble) }))

/** The tour as the server last gave it. */
function useKept(id: string) {
  const queries = useQueryClient()
  const key = useMemo(() => ['tour', id], [id])
  const asked = useQuery<TourAnswer>({
    queryKey: key,
    // What did not change is the very same already: see `api/client.ts`.
    structuralSharing: false,
    // Who comes back to this window sees what another did meanwhile; where nothing was done, the answer is empty.
    refetchOnWindowFocus: true,
    queryFn: async () => {
      const read = await api.tour(id)
      // Read before a change that was answered meanwhile, it is older than what is here.
      const here = queries.getQueryData<TourAnswer>(key)
      return here && here.tour.revision > read.tour.revision ? here : read
    },
  })
  return { key, ...asked }
}

/** What is under way and what came of it, for all who send or try something. */
function useSaid() {
  const [busy, setBusy] = useState('')
  const [problem, setProblem] = useState<Problem | null>(null)
  const [remarks, setRemarks] = useState<string[]>([])
  const [underWay, setUnderWay] = useState<Work['underWay']>(null)
  const [unsent, setUnsent] = useState<Work['unsent']>(null)
  const [trial, setTrial] = useState<Trial | null>(null)
  const states = { busy, problem, remarks, underWay, unsent, trial }
  const [setters] = useState({ setBusy, setProblem, setRemarks, setUnderWay, setUnsent, setTrial })
  return { states, setters }
}
type Setters = ReturnType<typeof useSaid>['setters']

type Send = <T>(what: string, call: (revision: number) => Promise<T | null>, answerOf: (result: T) => TourAnswer) => Promise<T | undefined>

/** Sends one change after the other, each on the revision that the one before it made; undefined where it did not take place. */
function useSend(id: string, key: string[], { setBusy, setProblem, setRemarks, setUnsent, setTrial }: Setters): Send {
  const queries = useQueryClient()
  return useCallback(
    async <T,>(what: string, call: (revision: number) => Promise<T | null>, answerOf: (result: T) => TourAnswer): Promise<T | undefined> => {
      let given = false
      const giveUp = () => {
        given = true
        setUnsent(null)
      }
      const change = queries.getMutationCache().build(queries, {
        scope: { id: scopeOf(id) },
        networkMode: 'always',
        gcTime: 0,
        retry: (_, trouble) => {
          const again = asProblem(trouble).away && !given
          setUnsent(again ? { what, giveUp } : null)
          return again
        },
        retryDelay: askAgainAfter,
        mutationFn: async () => {
          const now = queries.getQueryData<TourAnswer>(key)
          if (!now || given) return null
          setBusy(what)
          setTrial(null)
          const result = await call(now.tour.revision)
          if (result !== null) {
            const answer = answerOf(result)
            queries.setQueryData(key, answer)
            keepCopy(answer)
            setProblem(null)
            setRemarks(answer.remarks)
          }
          return result
        },
      })
      try {
        return (await change.execute(undefined)) ?? undefined
      } catch (trouble) {
        setProblem(asProblem(trouble))
        return undefined
      } finally {
        setBusy('')
        setUnsent(null)
      }
    },
    [id, key, queries, setBusy, setProblem, setRemarks, setUnsent, setTrial],
  )
}

/** The desk of the tour as it is kept, with what is on its way. */
function useOnDesk(id: string, key: string[], data: TourAnswer | undefined, send: Send, { setUnderWay }: Setters): Desk | null {
  const queries = useQueryClient()
  const [onTheWay, setOnTheWay] = useState<((now: TourSheet) => TourSheet)[]>([])
  return useMemo<Desk | null>(() => {
    if (!data) return null
    const same = (answer: TourAnswer) => answer
    const sheet = onTheWay.reduce((now, changed) => changed(now), data.tour.sheet)
    return {
      tour: data.tour,
      sheet,
      assessment: data.assessment,
      // What is changed was made on the sheet of this desk; it is sent as a change of what is there then.
      change: async (what, parts) => {
        const now = () => queries.getQueryData<TourAnswer>(key)?.tour.sheet ?? data.tour.sheet
        const moved = () => rebasedParts(sheet, parts, now())
        // What somebody else changed to something else meanwhile is sent as it was made: the server says so, and both can be seen.
        const wanted = partsOf(sheet, parts)
        const of = (one: TourSheet) => Object.fromEntries(Object.keys(wanted).map((name) => [name, one[name as keyof TourSheet]]))
        const clashes = () => clash(of(data.tour.sheet), of(sheet), wanted, of(now()))
        const call = (revision: number) =>
          clashes() ? api.change(id, { revision: data.tour.revision, what, ...parts }) : api.change(id, { revision, what, ...moved() })
        const shown = moving(sheet, partsOf(sheet, parts))
        setOnTheWay((before) => [...before, shown])
        try {
          return (await send(what, call, same)) !== undefined
        } finally {
          setOnTheWay((before) => before.filter((one) => one !== shown))
        }
      },
      step: (step) => void send(step, (revision) => api.step(id, revision, step), same),
      propose: async (rounds, tell, signal) =>
        (
          await send(
            'Working out a load',
            (revision) => api.propose(id, revision, rounds, tell, signal),
            (r) => r.answer,
          )
        )?.proposal,
      repair: async (what, load, held) => {
        const now = () => queries.getQueryData<TourAnswer>(key)?.tour.sheet.load ?? load
        const moved = () => rebased(sheet.load, load, now())
        return (await send(what, (revision) => api.repair(id, revision, what, moved(), held), same)) !== undefined
      },
      bring: async (what, call) => {
        const stop = new AbortController()
        const tell = (progress: Progress) => setUnderWay({ ...progress, cancel: () => stop.abort() })
        tell({ what, share: null })
        const kept = await send(what, (revision) => call(id, revision, tell, stop.signal), same)
        setUnderWay(null)
        return kept !== undefined
      },
      ask: async (what, call) => (await send(what, (revision) => call(id, revision), same)) !== undefined,
    }
  }, [data, onTheWay, id, key, queries, send, setUnderWay])
}

/** A change tried: kept or put back. */
function useTrying(id: string, trial: Trial | null, change: Desk['change'] | undefined, { setBusy, setProblem, setTrial }: Setters): Trying {
  return useMemo<Trying>(
    () => ({
      trial,
      attempt: async (mend, name) => {
        setBusy(`Trying: ${name}`)
        try {
          setTrial({ ...(await api.trial(id, { mend })), mend, name })
          setProblem(null)
        } catch (trouble) {
          setProblem(asProblem(trouble))
        } finally {
          setBusy('')
        }
      },
      keep: async () => (trial && change ? await change(`Mend: ${trial.name}`.slice(0, 200), { mend: trial.mend }) : false),
      putBack: () => setTrial(null),
    }),
    [trial, id, change, setBusy, setProblem, setTrial],
  )
}

/** What is under way, and leaving held back while something would be lost with the page. */
function useWorking(id: string, { states, setters }: ReturnType<typeof useSaid>, refetch: () => Promise<unknown>): Work {
  const { busy, problem, remarks, underWay, unsent } = states
  const { setProblem, setRemarks } = setters
  const underWayToo = useIsMutating({ predicate: (change) => change.options.scope?.id === scopeOf(id) }) > 0
  useEffect(() => {
    // What is on its way or waits its turn would be lost with the page.
    if (!unsent && !underWayToo) return
    const ask = (leaving: BeforeUnloadEvent) => leaving.preventDefault()
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [unsent, underWayToo])

  return useMemo<Work>(
    () => ({
      busy: busy || (underWayToo ? 'Keeping' : ''),
      unsent,
      problem,
      remarks,
      underWay,
      reload: () => {
        void refetch().then(() => setProblem(null))
      },
      dismiss: () => {
        setProblem(null)
        setRemarks([])
      },
    }),
    [busy, underWayToo, unsent, problem, remarks, underWay, refetch, setProblem, setRemarks],
  )
}

export function TourProvider({ id, children, waiting }: { id: string; children: ReactNode; waiting: (problem: Problem | null) => ReactNode }) {
  const { key, data, error, failureReason, refetch } = useKept(id)
  const said = useSaid()
  const send = useSend(id, key, said.setters)
  const desk = useOnDesk(id, key, data, send, said.setters)
  const trying = useTrying(id, said.states.trial, desk?.change, said.setters)
  const work = useWorking(id, said, refetch)
  const trouble = error ?? failureReason
  if (!desk) return waiting(trouble instanceof Problem ? trouble : null)
  return (
    <DeskContext.Provider value={desk}>
      <TrialContext.Provider value={trying}>
        <WorkContext.Provider value={work}>{children}</WorkContext.Provider>
      </TrialContext.Provider>
    </DeskContext.Provider>
  )
}
