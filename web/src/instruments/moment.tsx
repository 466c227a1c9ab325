/** Where the playhead stands, what is in hand and what is looked at: shared by ribbon, rig, shelf and findings. */
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react'
import type { AtStop, Moments } from '../api/client'
import { useDesk, useShown } from '../api/tour'

export interface Held {
  thingId: string
  count: number
  /** The carrier it comes from; null: the shelf. */
  from: string | null
}

interface Playhead {
  moment: number
  setMoment: (moment: number) => void
}
interface Hand {
  inHand: Held[]
  setInHand: (things: Held[]) => void
}
interface Focus {
  bikeId: string
  setBike: (id: string) => void
  carrierId: string | null
  setCarrier: (id: string | null) => void
}
type GoToKm = (km: number, leaving?: boolean) => void
type Speak = (words: string) => void

// One context for each, so that what moves one does not redraw what reads another.
const MomentContext = createContext<Playhead | null>(null)
const HandContext = createContext<Hand | null>(null)
const FocusContext = createContext<Focus | null>(null)
const GoContext = createContext<GoToKm>(() => undefined)
const VoiceContext = createContext<Speak>(() => undefined)

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

/** `first` is where the playhead stands before anybody moves it; left out, where most is on board. */
export function PlayheadProvider({ first, children }: { first?: number; children: ReactNode }) {
  const { sheet } = useDesk()
  const { assessment } = useShown()
  const moments = assessment.moments
  const [wanted, setWanted] = useState<number | null>(null)
  const [bike, setBike] = useState<string | null>(null)
  const [carrierId, setCarrier] = useState<string | null>(null)
  const [inHand, setInHand] = useState<Held[]>([])
  const [spoken, speak] = useState('')
  const last = (moments?.km.length ?? 1) - 1
  const moment = Math.max(0, Math.min(wanted ?? first ?? moments?.fullest ?? 0, last))
  const goToKm = useCallback((km: number, leaving = true) => moments && setWanted(momentAt(moments, km, leaving)), [moments])
  const bikes = sheet.rig.bikes
  const bikeId = bikes.some((b) => b.id === bike) ? (bike ?? '') : (bikes[0]?.id ?? '')
  const playhead = useMemo(() => ({ moment, setMoment: setWanted }), [moment])
  const hand = useMemo(() => ({ inHand, setInHand }), [inHand])
  const focus = useMemo(() => ({ bikeId, setBike, carrierId, setCarrier }), [bikeId, carrierId])
  return (
    <VoiceContext.Provider value={speak}>
      <GoContext.Provider value={goToKm}>
        <FocusContext.Provider value={focus}>
          <HandContext.Provider value={hand}>
            <MomentContext.Provider value={playhead}>{children}</MomentContext.Provider>
          </HandContext.Provider>
        </FocusContext.Provider>
      </GoContext.Provider>
      <div role="status" className="unseen">
        {spoken}
      </div>
    </VoiceContext.Provider>
  )
}

function found<T>(value: T | null): T {
  if (value === null) throw new Error('PlayheadProvider is missing')
  return value
}

/** Where the playhead stands. */
export const useMoment = (): Playhead => found(useContext(MomentContext))
/** What is in hand. */
export const useHand = (): Hand => found(useContext(HandContext))
/** The bike and the bag that are looked at. */
export const useFocus = (): Focus => found(useContext(FocusContext))
/** Going to a kilometre, for what need not be drawn anew whenever the playhead moves. */
export const useGoToKm = (): GoToKm => useContext(GoContext)
/** Telling what was done to those who do not see it. */
export const useVoice = (): Speak => useContext(VoiceContext)
