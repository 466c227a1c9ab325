/** What the server takes a while to work out of a tour as it is kept. */
import { useIsMutating, useQuery } from '@tanstack/react-query'
import { scopeOf, useDesk } from './tour'
import { same } from './rebase'

interface Options {
  /** What it is about, where there are several. */
  about?: string[]
  wanted?: boolean
  /** Shows meanwhile what was worked out of the tour before its last change. */
  meanwhile?: boolean
  /** How long somebody must look at it before it is asked for [ms]. */
  dwell?: number
}

/**
 * Asked for where it is shown, once no change is on its way, and called off when nobody looks any more: a browser asks six
 * questions at a time, and a change waits behind them.
 */
export function useWorkedOut<T>(
  what: string,
  call: (id: string, signal: AbortSignal) => Promise<T>,
  { about = [], wanted = true, meanwhile = false, dwell = 0 }: Options = {},
) {
  const { tour } = useDesk()
  const changing = useIsMutating({ predicate: (change) => change.options.scope?.id === scopeOf(tour.id) }) > 0
  return useQuery({
    queryKey: [what, tour.id, tour.revision, ...about],
    queryFn: async ({ signal }) => {
      await new Promise((done) => setTimeout(done, dwell))
      signal.throwIfAborted()
      return call(tour.id, signal)
    },
    staleTime: Infinity,
    enabled: wanted && !changing,
    placeholderData: (before, query) => (meanwhile && same(query?.queryKey.slice(3), about) ? before : undefined),
  })
}
