/** Who else is on the tour: told where Omnifer is hosted, and what others do meanwhile is fetched as soon as it is known. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useLocation } from 'react-router'
import { company, useCompany } from '../../api/company'
import { useDesk } from '../../api/tour'

/** A change of another is here within two seconds: half of that is waited, the rest is the way. */
const ASKED_AGAIN_MS = 1000

/** Says which view is looked at, and fetches the tour where another has changed it. */
export function useOthersHere() {
  const { tour } = useDesk()
  const { alone } = useCompany()
  const queries = useQueryClient()
  const view = /^\/tours\/[^/]+\/([a-z]+)/.exec(useLocation().pathname)?.[1] ?? ''
  const { data } = useQuery({
    queryKey: ['here', tour.id, view],
    queryFn: () => company.here(tour.id, view),
    enabled: !alone,
    refetchInterval: ASKED_AGAIN_MS,
    retry: false,
  })
  const revision = data?.revision ?? 0
  useEffect(() => {
    if (revision > tour.revision) void queries.invalidateQueries({ queryKey: ['tour', tour.id] })
  }, [queries, revision, tour.id, tour.revision])
  return data?.others ?? []
}
