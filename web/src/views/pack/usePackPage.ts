import { useQuery } from '@tanstack/react-query'
import { api } from '../../api/client'
import { useDesk } from '../../api/tour'

/** What is told of the last days at home, but for cards and scale. */
export function usePackPage() {
  const { tour } = useDesk()
  return useQuery({ queryKey: ['pack', tour.id, tour.revision], queryFn: () => api.packPage(tour.id), placeholderData: (before) => before })
}
