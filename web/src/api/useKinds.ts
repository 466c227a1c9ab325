/** The kinds of things that are known by name, and what each thing that a thing can do usually is. */
import { useQuery } from '@tanstack/react-query'
import { api } from './client'

const NONE = { kinds: [], roles: [] }

export function useKinds() {
  const { data } = useQuery({ queryKey: ['kinds'], queryFn: api.kinds, staleTime: Infinity })
  return data ?? NONE
}
