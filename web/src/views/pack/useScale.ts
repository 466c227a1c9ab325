/** What the scale says, live: the last twenty seconds of readings, and those that were taken of them. */
import { useCallback, useEffect, useRef, useState } from 'react'

export interface Reading {
  state: 'stable' | 'moving' | 'too_much' | 'lost' | 'none'
  kg: number | null
  /** Whether it may be taken: judged where the scale is read. */
  still?: boolean
  at: number
}
export interface Scale {
  name: string
  most_kg: number
  step_kg: number
  band_kg: number
}
export interface Taken {
  at: number
  kg: number
}

export const SECONDS = 20

export function useScale() {
  const [scale, setScale] = useState<Scale | null>(null)
  const [past, setPast] = useState<Reading[]>([])
  const [taken, setTaken] = useState<Taken[]>([])
  const [armed, setArmed] = useState(false)
  const wanted = useRef(false)
  const want = useCallback((on: boolean) => {
    wanted.current = on
    setArmed(on)
  }, [])
  useEffect(() => {
    const source = new EventSource('/api/scale/readings')
    let known: Reading[] = []
    const add = (reading: Omit<Reading, 'at'>) => {
      const at = performance.now() / 1000
      known = [...known.filter((r) => r.at > at - SECONDS), { ...reading, at }]
      setPast(known)
      // What was asked for is taken by itself as soon as it is still.
      if (wanted.current && reading.still && reading.kg !== null) {
        const kg = reading.kg
        want(false)
        setTaken((before) => [...before, { at, kg }])
      }
    }
    source.addEventListener('scale', (event) => setScale(JSON.parse(event.data as string) as Scale))
    source.addEventListener('reading', (event) => add(JSON.parse(event.data as string) as Reading))
    // The browser asks again by itself; meanwhile there is no reading.
    source.onerror = () => add({ state: 'lost', kg: null })
    return () => source.close()
  }, [want])
  const begin = useCallback(() => {
    setTaken([])
    want(false)
  }, [want])
  return { scale, now: past.at(-1) ?? null, past, taken, armed, take: () => want(true), begin }
}
