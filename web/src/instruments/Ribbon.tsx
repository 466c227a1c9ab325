/** The tour as a strip: weight on board above, the land with water, shops, nights and days below, one playhead for all. */
import styled from 'styled-components'
import type { Day, Deed, Moments } from '../api/client'
import { useShown } from '../api/tour'
import { useUnits } from '../ui/preferences'
import { momentAt, stopAt, useGoToKm, useMoment } from './moment'
import { RibbonLand } from './RibbonLand'
import { LANES_TOP, type OnSupply } from './ribbonProps'
import type { Told } from './RibbonHistory'
import { RibbonLegend } from './RibbonLegend'
import { RibbonNights } from './RibbonNights'
import { RibbonSlider } from './RibbonSlider'
import type { Scale } from './ribbonScale'
import { RibbonZoom, useZoom } from './RibbonZoom'
import { Sign } from './Sign'
import { StoreReadings } from './StoreReadings'
import { useRibbonPointer } from './useRibbonPointer'
import { useSize } from './useSize'
import { useHeight } from '../ui/usePhone'

const Frame = styled.div<{ $tall: number; $painting?: boolean }>`
  position: relative;
  height: ${(p) => p.$tall}px;
  flex: none;
  touch-action: none;
  user-select: none;
  overflow: hidden;
  ${(p) => p.$painting && 'cursor: crosshair;'}
  > svg {
    display: block;
    position: absolute;
    inset: 0;
    /* A layer of its own: the land is not painted anew under a playhead that moves. */
    will-change: transform;
  }
`
/** The playhead: moved as it is, never painted anew. */
const Line = styled.div`
  position: absolute;
  left: -2px;
  top: 30px;
  bottom: 0;
  width: 4.5px;
  background: var(--now);
  border: solid var(--onnow);
  border-width: 0 1px;
  pointer-events: none;
  will-change: transform;
`
export interface RibbonProps {
  height?: number
  skylineHeight?: number
  onSupply?: OnSupply
  /** Where given, the ends of days can be dragged. */
  onNight?: (day: Day, km: number) => void
  lane?: 'weight' | 'weather' | 'stores' | 'land'
  /** Of the stores: sets what is taken where the playhead stands. */
  onSet?: (deed: Deed, amount: number) => void
  /** Where given, dragging paints a stretch. */
  onPaint?: (from_km: number, to_km: number) => void
  /** Of a tour that is ridden: what was planned, and what changed the load. */
  told?: Told
}

/** A whole ribbon where there is room for it; a lower one in a low window; in a very low one a line of days with the playhead. */
const LINE_PX = 84
const EMPTY_PX = 96
const LOW_PART = 0.8
/** A narrower ribbon shows days around the moment only, as on a phone; one that has words beside it may be narrower. */
const [NARROW_PX, NARROW_BESIDE_PX] = [1000, 740]

export function Ribbon({
  height: wantedHeight = 248,
  skylineHeight: wantedSkyline = 50,
  onSupply,
  onNight,
  lane: wantedLane = 'weight',
  onPaint,
  onSet,
  told,
}: RibbonProps) {
  const room = useHeight()
  const height = room === 'least' ? LINE_PX : room === 'low' ? Math.round(wantedHeight * LOW_PART) : wantedHeight
  const skylineHeight = room === 'least' ? 0 : room === 'low' ? wantedSkyline / 2 : wantedSkyline
  const lane = room === 'least' ? 'land' : wantedLane
  const { assessment, sheet } = useShown()
  const { moment, setMoment } = useMoment()
  const goToKm = useGoToKm()
  const units = useUnits()
  const [box, { width }] = useSize<HTMLDivElement>()
  const { moments, days } = assessment
  const small = width < (told ? NARROW_BESIDE_PX : NARROW_PX)
  const gutter = small ? 14 : 168
  const dayNow = moments?.day[moment] ?? 1
  const { scale, zoom, span } = useZoom(days, dayNow, { width, small, gutter })
  const { held, handlers } = useRibbonPointer({
    onMove: (x) => moments && setMoment(nearestByX(moments, scale, x, scale.km(x).km)),
    onZoom: zoom,
    onStretch: onPaint && ((a, b) => onPaint(scale.km(a).km, scale.km(b).km)),
  })

  if (!moments || !days.length) return <EmptyLand ref_={box} height={EMPTY_PX} />

  const xNow = scale.x(moments.km[moment] ?? 0, dayNow)
  return (
    <Frame ref={box} $tall={height} $painting={onPaint !== undefined} {...handlers} onWheel={(e) => e.ctrlKey && zoom(e.deltaY > 0 ? 1.5 : 1 / 1.5)}>
      <RibbonSlider moments={moments} zoom={zoom} />
      {lane !== 'stores' && lane !== 'land' && <RibbonLegend {...{ moments, moment }} weather={lane === 'weather'} />}
      {width > 0 && (
        <>
          <RibbonLand
            assessment={assessment}
            sheet={sheet}
            scale={scale}
            width={width}
            height={height}
            gutter={gutter}
            small={small}
            skylineHeight={skylineHeight}
            dayNow={dayNow}
            onSupply={onSupply}
            onKm={goToKm}
            units={units}
            lane={lane}
            told={told}
          />
          {onNight && <RibbonNights days={days} scale={scale} height={height} onNight={onNight} width={width} />}
          <Line style={{ transform: `translateX(${xNow.toFixed(1)}px)` }} />
          {(held || lane === 'stores') && (
            <svg width={width} height={height} aria-hidden="true" pointerEvents="none">
              {lane === 'stores' && assessment.stores && (
                <StoreReadings
                  told={assessment.stores}
                  moment={moment}
                  x={xNow}
                  top={LANES_TOP}
                  foot={height - 84 - skylineHeight}
                  small={small}
                  units={units}
                  deeds={stopAt(assessment.stores.stops, moments, moment)?.deeds ?? []}
                  onSet={(deed, amount) => onSet?.(deed, amount)}
                />
              )}
              {held && (
                <rect
                  x={Math.min(held.from, held.to)}
                  y={40}
                  width={Math.abs(held.to - held.from)}
                  height={height - 40}
                  fill="var(--now)"
                  opacity={0.4}
                />
              )}
            </svg>
          )}
          <Sign x={xNow} width={width} phone={small} gutter={gutter} />
          {!small && <RibbonZoom {...{ days, span, zoom }} />}
        </>
      )}
    </Frame>
  )
}

/** Of the moments near a kilometre the one whose mark is nearest to the pointer. */
function nearestByX(moments: Moments, scale: Scale, x: number, km: number): number {
  const start = momentAt(moments, km)
  let best = start
  for (let i = Math.max(0, start - 3); i <= Math.min(moments.km.length - 1, start + 3); i += 1) {
    const off = (j: number) => Math.abs(scale.x(moments.km[j] ?? 0, moments.day[j] ?? 1) - x) + (moments.leaving[j] ? 0 : 0.01)
    if (off(i) < off(best)) best = i
  }
  return best
}

function EmptyLand({ ref_, height }: { ref_: React.RefCallback<HTMLDivElement>; height: number }) {
  return (
    <Frame ref={ref_} $tall={height} as="div">
      <svg width="100%" height={height} aria-hidden="true">
        <rect y={height - 80} width="100%" height={80} fill="var(--land)" />
      </svg>
      <LandWords>Say where you ride and how long, and the land takes shape.</LandWords>
    </Frame>
  )
}
const LandWords = styled.p`
  position: absolute;
  left: 20px;
  bottom: 30px;
  color: var(--onland);
  font-weight: 600;
`
