/** What follows from entries is asked anew once they were taken, and once the plan changed: for all views in one place. */
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { useDesk } from '../api/tour'
import { useWaiting } from './queue'

const FOLLOWING = ['diary', 'weigh', 'pack', 'debrief']

export function Refresh() {
  const { tour } = useDesk()
  const queries = useQueryClient()
  const { waiting } = useWaiting()
  const count = waiting.filter((one) => one.tour === tour.id).length
  const before = useRef({ count, revision: tour.revision })
  useEffect(() => {
    if (count < before.current.count || tour.revision !== before.current.revision)
      for (const key of FOLLOWING) void queries.invalidateQueries({ queryKey: [key, tour.id] })
    before.current = { count, revision: tour.revision }
  }, [count, tour.revision, tour.id, queries])
  return null
}
