import { useEffect } from 'react'
import type { Stop } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useMoment } from '../../instruments/moment'
import type { OnSupply } from '../../instruments/ribbonProps'
import { usePreferences } from '../../ui/preferences'

/** w and b set the water and the shop of the nearest stop. */
export function SupplyKeys({ stops, onSupply }: { stops: Stop[]; onSupply: OnSupply }) {
  const { letters } = usePreferences()
  const { assessment } = useDesk()
  const { moment } = useMoment()
  const km = assessment.moments?.km[moment] ?? 0
  const near = stops.reduce<Stop | null>((best, s) => (!best || Math.abs(s.at_km - km) < Math.abs(best.at_km - km) ? s : best), null)
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!letters || e.ctrlKey || e.altKey || (e.target as Element).matches('input, textarea, [role=option]') || !near) return
      if (e.key === 'w') onSupply(near, 'water')
      if (e.key === 'b') onSupply(near, 'shop')
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [letters, near, onSupply])
  return null
}
