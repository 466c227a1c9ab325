/** The tour as a strip: weight on board above, the land with water, shops, nights and days below, one playhead for all. */
import { useMemo, useState } from 'react'
import styled from 'styled-components'
import type { Day, Deed, Moments } from '../api/client'
import { useShown } from '../api/tour'
import { IconButton } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { SUPPLY_WORDS } from '../ui/supplies'
import { narrow } from '../ui/theme'
import { momentAt, stopAt, useGoToKm, useMoment } from './moment'
import { LANES_TOP, type OnSupply, RibbonLand } from './RibbonLand'
import type { Told } from './RibbonHistory'
import { RibbonNights } from './RibbonNights'
import { ribbonScale, type Scale } from './ribbonScale'
import { Sign } from './Sign'
import { StoreReadings } from './StoreReadings'
import { useRibbonPointer } from './useRibbonPointer'
import { useSize } from './useSize'
import { useHeight } from '../ui/usePhone'
import { WEATHER_KEYS } from './WeatherLane'

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
const Legend = styled.div`
  position: absolute;
  left: 20px;
  top: 8px;
  width: 116px;
  pointer-events: none;
  z-index: 2;
  > span {
    width: 150px;
  }
  strong {
    width: 150px;
    font-size: var(--size-figure);
    font-weight: 720;
    line-height: 26px;
    display: block;
  }
  span {
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
    line-height: 15px;
    display: block;
  }
  ul {
    display: grid;
    grid-template-columns: 16px 1fr auto;
    gap: 0 5px;
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    line-height: 16px;
    margin-top: 2px;
  }
  li {
    display: contents;
  }
  b {
    font-weight: 720;
    text-align: right;
  }
  ${narrow} {
    display: none;
  }
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

/** Number of days shown at once on a phone, and as near as one can look. */
const PHONE_DAYS = 9
const FEWEST_DAYS = 2
const Zoom = styled.div`
  position: absolute;
  right: 4px;
  top: 0;
  z-index: 3;
  display: flex;
  button {
    width: 32px;
    height: 32px;
    font-size: var(--size-head);
    font-weight: 700;
  }
`

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
  const [wanted, setWanted] = useState(Infinity)
  const span = Math.min(days.length, wanted, small ? PHONE_DAYS : Infinity)
  const from = Math.max(1, Math.min(dayNow - Math.floor(span / 2), days.length - span + 1))
  const to = from + span - 1
  const zoom = (times: number) => setWanted(span * times >= days.length ? Infinity : Math.max(FEWEST_DAYS, Math.round(span * times)))
  const scale = useMemo(() => ribbonScale(days, gutter, width - (small ? 14 : 22), from, to), [days, gutter, width, small, from, to])

  const { held, handlers } = useRibbonPointer({
    onMove: (x) => moments && setMoment(nearestByX(moments, scale, x, scale.km(x).km)),
    onZoom: zoom,
    onStretch: onPaint && ((a, b) => onPaint(scale.km(a).km, scale.km(b).km)),
  })

  if (!moments || !days.length) return <EmptyLand ref_={box} height={EMPTY_PX} />

  const xNow = scale.x(moments.km[moment] ?? 0, dayNow)
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
  const now = {
    total: moments.total_kg[moment] ?? 0,
    fuel: moments.fuel_kg[moment] ?? 0,
    gear: moments.gear_kg[moment] ?? 0,
  }
  const place = placeOf(moments, moment)
  return (
    <Frame ref={box} $tall={height} $painting={onPaint !== undefined} {...handlers} onWheel={(e) => e.ctrlKey && zoom(e.deltaY > 0 ? 1.5 : 1 / 1.5)}>
      <Thumb
        role="slider"
        tabIndex={0}
        aria-label="Moment of the tour"
        aria-valuemin={0}
        aria-valuemax={Math.round(moments.km.at(-1) ?? 0)}
        aria-valuenow={Math.round(moments.km[moment] ?? 0)}
        aria-valuetext={`Day ${dayNow}, ${units.show(moments.km[moment] ?? 0, 'distance')}, ${place}${units.show(now.total, 'mass')}`}
        onKeyDown={(e) => {
          const step = (e.shiftKey ? shifted : steps)[e.key]
          if (!step) return
          e.preventDefault()
          step()
        }}
      />
      {lane !== 'stores' && lane !== 'land' && (
        <Legend>
          <strong>{units.show(now.total, 'mass')}</strong>
          <span>{sheet.rig.bikes.length > 1 ? 'all bikes as they stand' : 'the bike as it stands'}</span>
          {lane === 'weather' ? (
            WEATHER_KEYS.map((words) => <span key={words}>{words}</span>)
          ) : (
            <ul>
              {[
                ...moments.supplies.map((s) => [s.supply, SUPPLY_WORDS[s.supply], s.mass_kg[moment] ?? 0] as const),
                ['fuel', 'Fuel', now.fuel] as const,
                ['kit', 'Rig and kit', now.gear] as const,
              ].map(([id, name, value]) => (
                <li key={id}>
                  <svg width="14" height="14">
                    <rect x=".75" y=".75" width="12.5" height="12.5" fill={`url(#${id})`} stroke="var(--ink)" strokeWidth="1.2" />
                  </svg>
                  {name}
                  <b>{units.figure(value, 'mass', 1)}</b>
                </li>
              ))}
            </ul>
          )}
        </Legend>
      )}
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
          {!small && days.length > FEWEST_DAYS && (
            <Zoom>
              <IconButton aria-label="Show fewer days" isDisabled={span <= FEWEST_DAYS} onPress={() => zoom(0.5)}>
                +
              </IconButton>
              <IconButton aria-label="Show more days" isDisabled={span >= days.length} onPress={() => zoom(2)}>
                −
              </IconButton>
            </Zoom>
          )}
        </>
      )}
    </Frame>
  )
}

function placeOf(moments: Moments, moment: number): string {
  const place = moments.place[moment]
  if (!place) return ''
  return `${moments.leaving[moment] ? 'leaving' : 'reaching'} ${place}, `
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
