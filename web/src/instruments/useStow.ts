/** Picking up, stowing and speaking of it: one way for pointer, finger, keyboard and menu, for one thing and for several. */
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, type PlaceFor } from '../api/client'
import { useDesk } from '../api/tour'
import { carrierEntries, moveKit } from './loadEdits'
import { usePreferences } from '../ui/preferences'
import { type Held, usePlayhead } from './moment'

const same = (a: Held, b: Held) => a.thingId === b.thingId && a.from === b.from

export function useStow() {
  const { sheet, change, repair } = useDesk()
  const { mending } = usePreferences()
  const { inHand, setInHand, speak } = usePlayhead()
  const entries = useMemo(() => carrierEntries(sheet), [sheet])
  const label = (id: string | null) => (id === null ? 'the shelf' : (entries.find((e) => e.id === id)?.label ?? ''))
  const nameOf = (id: string) => sheet.kit.find((t) => t.id === id)?.name ?? ''
  const wordsFor = (things: Held[]) => (things.length === 1 && things[0] ? nameOf(things[0].thingId) : `${things.length} things`)
  /** With what rides in them: nested things go where the outer one does. */
  const withNested = (held: Held) => {
    const placedAt = (id: string) => sheet.load.placements.filter((p) => p.thing_id === id).map((p) => p.carrier_id)
    const along = sheet.kit.filter((t) => t.inside === held.thingId && (held.from === null ? !placedAt(t.id).length : placedAt(t.id).includes(held.from)))
    return [{ id: held.thingId, count: held.count }, ...along]
  }
  const move = (things: Held[], to: string | null) => {
    setInHand([])
    const leaving = things.filter((held) => held.from !== to)
    if (!leaving.length) return
    const words = `${wordsFor(leaving)} to ${label(to)}`
    const what = `Move ${words}`.slice(0, 200)
    const load = leaving.reduce((changed, held) => moveKit(changed, withNested(held), held.from, to), sheet.load)
    void (mending && to !== null ? repair(what, load, leaving.map((h) => h.thingId)) : change(what, { load })).then((done) => {
      if (done) speak(`${words}.`)
    })
  }
  return {
    entries,
    label,
    wordsFor,
    move,
    holds: (held: Held) => inHand.some((h) => same(h, held)),
    /** Takes a thing in hand: alone, or with what is there already. */
    pickUp: (held: Held, more = false) => {
      const things = [...(more ? inHand.filter((h) => !same(h, held)) : []), held]
      setInHand(things)
      speak(`${wordsFor(things)} in hand. Choose a bag, or Escape to put ${things.length > 1 ? 'them' : 'it'} back.`)
    },
    putBack: (held: Held) => setInHand(inHand.filter((h) => !same(h, held))),
    stow: (to: string | null) => inHand.length > 0 && move(inHand, to),
  }
}

/** Where the things in hand could go together, best first; asked when they are picked up. */
export function usePlaces(things: Pick<Held, 'thingId' | 'count'>[]): Map<string, PlaceFor> {
  const { tour } = useDesk()
  const asked = things.map((t) => `${t.thingId}:${t.count}`).join(',')
  const { data } = useQuery({
    queryKey: ['places', tour.id, tour.revision, asked],
    queryFn: () => api.places(tour.id, asked),
    enabled: things.length > 0,
  })
  return useMemo(() => new Map((things.length ? (data?.places ?? []) : []).map((p) => [p.carrier_id, p])), [data, things.length])
}
