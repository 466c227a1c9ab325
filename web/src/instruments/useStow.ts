/** Picking up, stowing and speaking of it: one way for pointer, finger, keyboard and menu, for one thing and for several. */
import { queryOptions, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, type PlaceFor } from '../api/client'
import { useDesk, useTrial } from '../api/tour'
import { carrierEntries, moveGroup, withNested } from './loadEdits'
import { usePreferences } from '../ui/preferences'
import { type Held, useHand, useVoice } from './moment'

const same = (a: Held, b: Held) => a.thingId === b.thingId && a.from === b.from

export function useStow() {
  const { tour, sheet, change, repair } = useDesk()
  const queries = useQueryClient()
  const { mending } = usePreferences()
  const { inHand, setInHand } = useHand()
  const { trial } = useTrial()
  const speak = useVoice()
  const { rig, riders } = sheet
  const entries = useMemo(() => carrierEntries({ rig, riders }), [rig, riders])
  const label = (id: string | null) => (id === null ? 'the shelf' : (entries.find((e) => e.id === id)?.label ?? ''))
  const nameOf = (id: string) => sheet.kit.find((t) => t.id === id)?.name ?? ''
  const wordsFor = (things: Held[]) => (things.length === 1 && things[0] ? nameOf(things[0].thingId) : `${things.length} things`)
  /** What rides in another thing is taken with that: the hand holds the outer one. */
  const whole = (held: Held): Held => {
    const inside = sheet.kit.find((t) => t.id === held.thingId)?.inside
    return inside ? { ...held, thingId: inside, count: 1 } : held
  }
  const move = (things: Held[], to: string | null) => {
    setInHand([])
    const leaving = things.map(whole).filter((held, i, all) => held.from !== to && all.findIndex((h) => same(h, held)) === i)
    if (!leaving.length) return
    const words = `${wordsFor(leaving)} to ${label(to)}`
    const what = `Move ${words}`.slice(0, 200)
    const load = leaving.reduce((changed, held) => moveGroup(changed, withNested(sheet.kit, held.thingId, held.count), held.from, to), sheet.load)
    void (
      mending && to !== null
        ? repair(
            what,
            load,
            leaving.map((h) => h.thingId),
          )
        : change(what, { load })
    ).then((done) => {
      if (done) speak(`${words}.`)
    })
  }
  return {
    entries,
    inHand,
    label,
    wordsFor,
    move,
    holds: (held: Held) => inHand.some((h) => same(h, held)),
    /** Takes a thing in hand: alone, or with what is there already. */
    pickUp: (taken: Held, more = false) => {
      if (trial) {
        speak(`${trial.name} is being tried. Keep it or put it back first.`)
        return
      }
      const held = whole(taken)
      const things = [...(more ? inHand.filter((h) => !same(h, held)) : []), held]
      setInHand(things)
      speak(`${wordsFor(things)} in hand. Choose a bag, or Escape to put ${things.length > 1 ? 'them' : 'it'} back.`)
    },
    /** Somebody is about to ask where it could go. */
    foresee: (held: Held) => void queries.prefetchQuery(placesOf(tour.id, tour.revision, [held])),
    putBack: (held: Held) => setInHand(inHand.filter((h) => !same(h, held))),
    stow: (to: string | null) => inHand.length > 0 && move(inHand, to),
  }
}

function placesOf(id: string, revision: number, things: Held[]) {
  const asked = things.map((t) => `${t.thingId}:${t.count}${t.from === null ? '' : `@${t.from}`}`).join(',')
  return queryOptions({ queryKey: ['places', id, revision, asked], queryFn: () => api.places(id, asked) })
}

/** Where the things in hand could go together, best first; asked when they are picked up. */
export function usePlaces(things: Held[]): Map<string, PlaceFor> {
  const { tour } = useDesk()
  const { data } = useQuery({ ...placesOf(tour.id, tour.revision, things), enabled: things.length > 0 })
  return useMemo(() => new Map((things.length ? (data?.places ?? []) : []).map((p) => [p.carrier_id, p])), [data, things.length])
}
