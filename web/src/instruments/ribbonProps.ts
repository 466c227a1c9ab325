/** What the parts of the ribbon's land are told, and where its lines lie. */
import type { Assessment, Stop, TourSheet } from '../api/client'
import type { useUnits } from '../ui/preferences'
import type { Told } from './RibbonHistory'
import type { Scale } from './ribbonScale'

export type OnSupply = (stop: Stop, supply: 'water' | 'shop') => void

export interface LandProps {
  assessment: Assessment
  sheet: TourSheet
  scale: Scale
  width: number
  height: number
  gutter: number
  small: boolean
  skylineHeight: number
  dayNow: number
  onSupply?: OnSupply
  onKm: (km: number) => void
  units: ReturnType<typeof useUnits>
  lane: 'weight' | 'weather' | 'stores' | 'land'
  told?: Told
}

/** Where the lanes of the stores begin, under the sign. */
export const LANES_TOP = 46

/** Heights of the lines of the land [px]. */
export interface Rows {
  days: number
  nights: number
  shops: number
  water: number
}
