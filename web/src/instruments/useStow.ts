/** Picking up, stowing and speaking of it: one way for pointer, keyboard and menu. */
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, type PlaceFor } from '../api/client'
import { useDesk } from '../api/tour'
import { carrierEntries, moveKit } from './loadEdits'
import { usePreferences } from '../ui/preferences'
import { usePlayhead } from './moment'

export function useStow() {
  const { sheet, change, repair } = useDesk()
  const { mending } = usePreferences()
  const { inHand, setInHand, speak } = usePlayhead()
  const entries = useMemo(() => carrierEntries(sheet), [sheet])
  const label = (id: string | null) => (id === null ? 'the shelf' : (entries.find((e) => e.id === id)?.label ?? ''))
  const nameOf = (id: string) => sheet.kit.find((t) => t.id === id)?.name ?? ''
  const move = (thingId: string, count: number, from: string | null, to: string | null) => {
    setInHand(null)
    if (from === to) return
    const words = `${nameOf(thingId)} to ${label(to)}`
    const what = `Move ${words}`.slice(0, 200)
    const placedAt = (id: string) => sheet.load.placements.filter((p) => p.thing_id === id).map((p) => p.carrier_id)
    const along = sheet.kit.filter((t) => t.inside === thingId && (from === null ? !placedAt(t.id).length : placedAt(t.id).includes(from)))
    const load = moveKit(sheet.load, [{ id: thingId, count }, ...along], from, to)
    void (mending && to !== null ? repair(what, load, [thingId]) : change(what, { load })).then((done) => {
      if (done) speak(`${words}.`)
    })
  }
  return {
    entries,
    label,
    move,
    pickUp: (thingId: string, count: number, from: string | null) => {
      setInHand({ thingId, count, from })
      speak(`${nameOf(thingId)} in hand. Choose a bag, or Escape to put it back.`)
    },
    stow: (to: string | null) => inHand && move(inHand.thingId, inHand.count, inHand.from, to),
  }
}

/** Where a thing could go, best first; asked when it is picked up. */
export function usePlaces(thingId: string | null): Map<string, PlaceFor> {
  const { tour } = useDesk()
  const { data } = useQuery({
    queryKey: ['places', tour.id, tour.revision, thingId],
    queryFn: () => api.places(tour.id, thingId ?? ''),
    enabled: thingId !== null,
  })
  return useMemo(() => new Map((data?.places ?? []).map((p) => [p.carrier_id, p])), [data])
}
