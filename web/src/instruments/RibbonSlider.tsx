/** The playhead as a slider for keys and screen readers: step by step, day by day, from sure water to sure water. */
import styled from 'styled-components'
import type { Moments } from '../api/client'
import { useShown } from '../api/tour'
import { useUnits } from '../ui/preferences'
import { useGoToKm, useMoment } from './moment'

const Thumb = styled.div`
  position: absolute;
  inset: 0;
  z-index: 1;
  pointer-events: none;
  &:focus-visible {
    outline: 3px solid var(--ink);
    outline-offset: -3px;
  }
`
export function RibbonSlider({ moments, zoom }: { moments: Moments; zoom: (times: number) => void }) {
  const { assessment, sheet } = useShown()
  const { moment, setMoment } = useMoment()
  const goToKm = useGoToKm()
  const units = useUnits()
  const { days } = assessment
  const dayNow = moments.day[moment] ?? 1
  const sureWater = sheet.road.stops
    .filter((s) => s.water === 'reliable')
    .map((s) => s.at_km)
    .sort((a, b) => a - b)
  const steps: Record<string, () => void> = {
    ArrowRight: () => setMoment(Math.min(moment + 1, moments.km.length - 1)),
    ArrowLeft: () => setMoment(Math.max(moment - 1, 0)),
    Home: () => setMoment(0),
    End: () => setMoment(moments.km.length - 1),
    '+': () => zoom(0.5),
    '-': () => zoom(2),
    PageUp: () => goToKm(sureWater.findLast((km) => km < (moments.km[moment] ?? 0) - 0.1) ?? 0),
    PageDown: () => goToKm(sureWater.find((km) => km > (moments.km[moment] ?? 0) + 0.1) ?? moments.km.at(-1) ?? 0),
  }
  const shifted: Record<string, () => void> = {
    ArrowRight: () => goToKm(days[dayNow]?.from_km ?? moments.km.at(-1) ?? 0),
    ArrowLeft: () => goToKm(days[dayNow - 2]?.from_km ?? 0),
  }
  const place = placeOf(moments, moment)
  return (
    <Thumb
      role="slider"
      tabIndex={0}
      aria-label="Moment of the tour"
      aria-valuemin={0}
      aria-valuemax={Math.round(moments.km.at(-1) ?? 0)}
      aria-valuenow={Math.round(moments.km[moment] ?? 0)}
      aria-valuetext={`Day ${dayNow}, ${units.show(moments.km[moment] ?? 0, 'distance')}, ${place}${units.show(moments.total_kg[moment] ?? 0, 'mass')}`}
      onKeyDown={(e) => {
        const step = (e.shiftKey ? shifted : steps)[e.key]
        if (!step) return
        e.preventDefault()
        step()
      }}
    />
  )
}

function placeOf(moments: Moments, moment: number): string {
  const place = moments.place[moment]
  if (!place) return ''
  return `${moments.leaving[moment] ? 'leaving' : 'reaching'} ${place}, `
}
