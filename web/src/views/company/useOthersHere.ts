/** Who else is on the tour: told where Omnifer is hosted, and what others do meanwhile is fetched as soon as it is known. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useLocation } from 'react-router'
import { Problem } from '../../api/client'
import { company, useCompany } from '../../api/company'
import { useDesk } from '../../api/tour'

/** A change of another is here within two seconds: half of that is waited, the rest is the way. */
const ASKED_AGAIN_MS = 1000

/** The tour is not there for who asks: no companion any more, or the tour is gone. */
const ended = (error: unknown) => error instanceof Problem && error.body.status === 404

/** Says which view is looked at, and fetches the tour where another has changed it. */
export function useOthersHere() {
  const { tour } = useDesk()
  const { alone } = useCompany()
  const queries = useQueryClient()
  const view = /^\/tours\/[^/]+\/([a-z]+)/.exec(useLocation().pathname)?.[1] ?? ''
  const { data, error } = useQuery({
    queryKey: ['here', tour.id, view],
    queryFn: () => company.here(tour.id, view),
    enabled: !alone,
    refetchInterval: (query) => (ended(query.state.error) ? false : ASKED_AGAIN_MS),
    retry: false,
  })
  const revision = data?.revision ?? 0
  useEffect(() => {
    if (revision > tour.revision) void queries.invalidateQueries({ queryKey: ['tour', tour.id] })
  }, [queries, revision, tour.id, tour.revision])
  return { others: data?.others ?? [], over: ended(error) }
}
