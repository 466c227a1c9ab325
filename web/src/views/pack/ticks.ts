/** What is packed already: it belongs to the tour, so that whoever packs sees it, whatever screen ticked it. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, type Packed, Problem } from '../../api/client'
import { useDesk } from '../../api/tour'

export interface Ticks {
  count: number
  has: (carrier: string, thing: string) => boolean
  set: (carrier: string, thing: string, packed: boolean) => void
  clear: () => void
  /** Why the last tick was not kept. */
  trouble: string
}

const ASKED_AGAIN_MS = 5_000

export function useTicks(): Ticks {
  const { tour, assessment } = useDesk()
  const queries = useQueryClient()
  const key = ['packed', tour.id]
  const { data } = useQuery({ queryKey: key, queryFn: () => api.packed(tour.id), refetchInterval: ASKED_AGAIN_MS })
  const tell = useMutation({
    scope: { id: `packed ${tour.id}` },
    mutationFn: (call: () => Promise<Packed>) => call(),
    onSuccess: (now) => queries.setQueryData(key, now),
    onError: () => queries.invalidateQueries({ queryKey: key }),
  })
  /** Shown at once, and then as the server has it. */
  const send = (then: (now: Packed) => Packed, call: () => Promise<Packed>) => {
    void queries.cancelQueries({ queryKey: key })
    queries.setQueryData<Packed>(key, (now) => then(now ?? { ticked: [] }))
    tell.mutate(call)
  }
  // A tick stands for a thing in a bag: where the thing rides elsewhere now, it is to be packed again.
  const riding = new Set(assessment.cards.flatMap((card) => card.layers.map((layer) => `${card.carrier_id}/${layer.thing_id}`)))
  const ticked = new Set((data?.ticked ?? []).map((t) => `${t.carrier_id}/${t.thing_id}`).filter((t) => riding.has(t)))
  return {
    count: ticked.size,
    has: (carrier, thing) => ticked.has(`${carrier}/${thing}`),
    set: (carrier_id, thing_id, packed) =>
      send(
        ({ ticked: old }) => {
          const others = old.filter((t) => t.carrier_id !== carrier_id || t.thing_id !== thing_id)
          return { ticked: packed ? [...others, { carrier_id, thing_id }] : others }
        },
        () => api.tick(tour.id, { carrier_id, thing_id, packed }),
      ),
    clear: () =>
      send(
        () => ({ ticked: [] }),
        () => api.packAnew(tour.id),
      ),
    trouble: tell.error ? (tell.error instanceof Problem ? tell.error.body.detail : 'The last tick was not kept: no answer.') : '',
  }
}
