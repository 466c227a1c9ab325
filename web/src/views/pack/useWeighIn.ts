/** What is on the scale at the weigh-in: of which bike, what of it, how it stands, and how a reading is kept. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api } from '../../api/client'
import { useDesk } from '../../api/tour'
import { note } from '../../offline/queue'
import { useAuthor } from '../../offline/useAuthor'
import { useScale } from './useScale'

export const OF_A_BIKE = ['rear_wheel', 'front_wheel', 'trailer_wheel', 'hitch', 'whole']
export const OF_THE_RIDER = ['rider_without', 'rider_with', 'front_ridden', 'rear_ridden']
const WHEELS = ['front_wheel', 'rear_wheel', 'front_ridden', 'rear_ridden']

export const median = (of: number[]) => {
  const sorted = [...of].sort((a, b) => a - b)
  const half = Math.floor(sorted.length / 2)
  return sorted.length % 2 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2
}

export function useWeighIn() {
  const { tour, sheet } = useDesk()
  const [author] = useAuthor()
  const scale = useScale()
  const { begin } = scale
  const key = ['weigh', tour.id, tour.revision]
  const { data } = useQuery({ queryKey: key, queryFn: () => api.weighings(tour.id), placeholderData: (before) => before })
  const [bikeId, setBike] = useState(sheet.rig.bikes[0]?.id ?? '')
  const [chosen, setChosen] = useState<string | null>(null)
  const [thing, setThing] = useState('')
  const [board, setBoard] = useState(true)
  const [raised, setRaised] = useState(60)
  const [dry, setDry] = useState(false)
  const [trouble, setTrouble] = useState('')

  const bike = sheet.rig.bikes.find((b) => b.id === bikeId) ?? sheet.rig.bikes[0]
  const lines = data?.lines ?? []
  const bags = new Set(bike?.carriers.map((c) => c.id))
  const mine = lines.filter((l) => l.about === bike?.id || (l.weighed === 'bag' && bags.has(l.about)))
  const line = lines.find((l) => l.key === chosen) ?? mine.find((l) => l.weighed === 'rear_wheel')
  const current = thing ? `thing/${thing}` : (line?.key ?? '')
  const weighed = current.split('/')[0] ?? ''
  const wheel = WHEELS.includes(weighed) ? (weighed.startsWith('front') ? ('front' as const) : ('rear' as const)) : null
  const put = (body: Parameters<typeof api.askScale>[1]) =>
    void api.askScale(tour.id, body).then(
      () => setTrouble(''),
      (e: unknown) => setTrouble(e instanceof Error ? e.message : String(e)),
    )
  const keep = async (readings: number[]) => {
    await note(tour.id, {
      verb: 'weighed',
      about: current.split('/')[1] ?? '',
      word: weighed,
      amount: Math.round(median(readings) * 1000) / 1000,
      readings_kg: readings,
      raised_mm: wheel && !board ? raised : 0,
      name: dry && !thing ? 'dry' : '',
      kg: thing ? (sheet.kit.find((t) => t.id === thing)?.mass_kg ?? null) : null,
      author,
    })
    begin()
  }
  /** Put something else on; readings begin anew. */
  const choose = (next: { bike?: string; line?: string | null; thing?: string }) => {
    if (next.bike) setBike(next.bike)
    if (next.line !== undefined) setChosen(next.line)
    setThing(next.thing ?? '')
    begin()
  }
  return {
    ...{ told: data, bike, mine, things: lines.filter((l) => l.weighed === 'thing'), current, weighed, wheel, thing, trouble, scale },
    ...{ board, setBoard, raised, setRaised, dry, setDry, put, keep, choose },
    name: thing ? (sheet.kit.find((t) => t.id === thing)?.name ?? '') : (line?.name ?? ''),
  }
}

/** A weigh-in of a bike that is there. */
export type Weighing = ReturnType<typeof useWeighIn> & {
  bike: NonNullable<ReturnType<typeof useWeighIn>['bike']>
  told: NonNullable<ReturnType<typeof useWeighIn>['told']>
}
