/** Where the playhead stands, and what is in hand: shared by ribbon, rig, shelf and findings. */
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react'
import type { AtStop, Moments } from '../api/client'
import { useDesk } from '../api/tour'

export interface Held {
  thingId: string
  count: number
  /** The carrier it comes from; null: the shelf. */
  from: string | null
}

interface Playhead {
  moment: number
  setMoment: (moment: number) => void
  goToKm: (km: number, leaving?: boolean) => void
  bikeId: string
  setBike: (id: string) => void
  carrierId: string | null
  setCarrier: (id: string | null) => void
  inHand: Held[]
  setInHand: (things: Held[]) => void
  spoken: string
  speak: (words: string) => void
}

const Context = createContext<Playhead | null>(null)
/** Going to a kilometre, for what need not be drawn anew whenever the playhead moves. */
const GoContext = createContext<Playhead['goToKm']>(() => undefined)

/** Index of the moment nearest to a kilometre, on the asked side of a stop. */
export function momentAt(moments: Moments, km: number, leaving = true): number {
  let best = 0
  let least = Infinity
  moments.km.forEach((at, i) => {
    const off = Math.abs(at - km) + (moments.leaving[i] === leaving ? 0 : 1e-6)
    if (off < least) [best, least] = [i, off]
  })
  return best
}

/** The place where the playhead stands, if something can be taken on there. */
export function stopAt(stops: AtStop[], moments: Moments, moment: number): AtStop | undefined {
  const km = moments.km[moment] ?? 0
  return moments.leaving[moment] || moment === 0 ? stops.find((stop) => Math.abs(stop.at_km - km) < 0.01) : undefined
}

export function PlayheadProvider({ children }: { children: ReactNode }) {
  const { assessment, sheet } = useDesk()
  const moments = assessment.moments
  const [wanted, setWanted] = useState<number | null>(null)
  const [bike, setBike] = useState<string | null>(null)
  const [carrierId, setCarrier] = useState<string | null>(null)
  const [inHand, setInHand] = useState<Held[]>([])
  const [spoken, speak] = useState('')
  const last = (moments?.km.length ?? 1) - 1
  const moment = Math.max(0, Math.min(wanted ?? moments?.fullest ?? 0, last))
  const goToKm = useCallback((km: number, leaving = true) => moments && setWanted(momentAt(moments, km, leaving)), [moments])
  const bikes = sheet.rig.bikes
  const bikeId = bikes.some((b) => b.id === bike) ? (bike ?? '') : (bikes[0]?.id ?? '')
  const value = useMemo(
    () => ({ moment, setMoment: setWanted, goToKm, bikeId, setBike, carrierId, setCarrier, inHand, setInHand, spoken, speak }),
    [moment, goToKm, bikeId, carrierId, inHand, spoken],
  )
  return (
    <GoContext.Provider value={goToKm}>
      <Context.Provider value={value}>
        {children}
        <div role="status" className="unseen">
          {spoken}
        </div>
      </Context.Provider>
    </GoContext.Provider>
  )
}

export function usePlayhead(): Playhead {
  const found = useContext(Context)
  if (!found) throw new Error('PlayheadProvider is missing')
  return found
}

export const useGoToKm = (): Playhead['goToKm'] => useContext(GoContext)
