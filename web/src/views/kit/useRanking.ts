import { useQuery } from '@tanstack/react-query'
import { api } from '../../api/client'
import { useDesk } from '../../api/tour'

/** The whole kit by its price on this tour, worked out once for each state of the tour, and only where it is shown. */
export function useRanking(wanted = true) {
  const { tour } = useDesk()
  return useQuery({
    queryKey: ['ranking', tour.id, tour.revision],
    queryFn: () => api.ranking(tour.id),
    staleTime: Infinity,
    enabled: wanted,
    placeholderData: (before) => before,
  })
}
