/** All tours, a glance at each, and what can be done with them. */
import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, Problem, type TourAnswer, type TourEntry } from '../../api/client'

/** What went wrong, in words. */
export const words = (e: unknown) => (e instanceof Problem ? `${e.body.detail} ${e.body.mend ?? ''}` : String(e))

export function useTours() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { data, error, failureReason } = useQuery({ queryKey: ['tours'], queryFn: api.tours })
  const [trouble, setTrouble] = useState('')
  const [gone, setGone] = useState<TourEntry | null>(null)
  const tours = data?.tours ?? []
  const glances = useQueries({
    queries: tours.map((tour) => ({
      queryKey: ['glance', tour.id, tour.revision],
      queryFn: () => api.glance(tour.id),
      staleTime: Infinity,
      retry: false,
    })),
  })
  const act = (work: () => Promise<unknown>) =>
    void work()
      .catch((e: unknown) => setTrouble(words(e)))
      .then(() => queries.invalidateQueries({ queryKey: ['tours'] }))
  const open = (id: string, view: string) => navigate(`/tours/${id}/${view}`)
  const close = (tour: TourEntry, over: boolean) =>
    act(() => api.change(tour.id, { revision: tour.revision, what: over ? 'The tour is over' : 'Open the tour again', over }))
  const remove = (tour: TourEntry) =>
    act(async () => {
      await api.remove(tour.id, tour.revision)
      setGone(tour)
    })
  const restore = (tour: TourEntry) =>
    act(async () => {
      await api.restore(tour.id)
      setGone(null)
    })
  return {
    ...{ tours, removed: data?.removed ?? [], glances, error: error ?? failureReason, trouble, setTrouble, gone, setGone },
    ...{ open, close, remove, restore },
    copy: (tour: TourEntry) => act(() => api.copy(tour.id)),
    rename: (tour: TourEntry, name: string) =>
      act(() => api.change(tour.id, { revision: tour.revision, what: 'Rename the tour', name: name.trim().slice(0, 120) })),
    /** Opens what comes from elsewhere: the sample, or a file. */
    begin: (coming: Promise<TourAnswer>) =>
      void coming.then(
        (answer) => open(answer.tour.id, 'load'),
        (e: unknown) => setTrouble(words(e)),
      ),
  }
}

export type Tours = ReturnType<typeof useTours>
