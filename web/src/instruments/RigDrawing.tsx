/** A bike as it is loaded at the playhead's moment: from the side, from above, on a weighbridge. */
import { type ReactNode } from 'react'
import styled from 'styled-components'
import { type Bike, type BikeTrace, type Finding, pick } from '../api/client'
import { useShown } from '../api/tour'
import { useUnits } from '../ui/preferences'
import { Bag, type BagState } from './Bag'
import { BicycleBefore, BicycleBehind } from './Bicycle'
import { FixtureMarks, thereAt } from './Fixtures'
import { useFocus, useHand, useMoment } from './moment'
import { Plan } from './Plan'
import { NumberTab } from './ribbonMarks'
import { RigLabels } from './RigLabels'
import { fit, type Placed, planRect, type Rect, type RigView, sideRect, seenFrom } from './rigView'
import { statesInWords } from './states'
import { useSize } from './useSize'
import { usePlaces, useStow } from './useStow'
import { Weighbridge } from './Weighbridge'

const Frame = styled.div`
  position: relative;
  flex: 1;
  min-height: 0;
  min-width: 0;
  overflow: hidden;
  svg.rig {
    position: absolute;
    inset: 0;
    display: block;
  }
`
const BagButton = styled.button`
  position: absolute;
  border-radius: 3px;
  min-width: 32px;
  min-height: 32px;
`

export interface RigDrawingProps {
  bike: Bike
  trace: BikeTrace
  leftSide: boolean
  riderOn: boolean
  /** Drawn over the bike, where the view puts it. */
  over?: (view: RigView) => ReactNode
}

export function RigDrawing({ bike, trace, leftSide, riderOn, over }: RigDrawingProps) {
  const { assessment } = useShown()
  const { moment } = useMoment()
  const { inHand } = useHand()
  const { carrierId, setCarrier } = useFocus()
  const { stow } = useStow()
  const places = usePlaces(inHand)
  const units = useUnits()
  const [frame, { width, height }] = useSize<HTMLDivElement>()
  /** Without plan and labels: on a phone, and where something is drawn over the bike. */
  const compact = width < 560 || over !== undefined
  const all: Placed[] = bike.carriers.flatMap((carrier) => {
    const found = trace.carriers.find((t) => t.carrier_id === carrier.id)
    const box = trace.boxes[carrier.id]
    const shape = trace.shapes[carrier.id]
    return found && box && shape ? [{ carrier, trace: found, box, shape }] : []
  })
  const near = all.filter(({ carrier }) => seenFrom(carrier, leftSide))
  const far = all.filter(({ carrier }) => !seenFrom(carrier, leftSide))
  const view = fit(bike, trace.radius_mm, all, width, height, compact, leftSide)
  const stateOf = (id: string): BagState => {
    if (!inHand.length) return id === carrierId ? 'selected' : 'rest'
    const place = places.get(id)
    if (!place) return 'rest'
    return place.fits ? 'fits' : 'no'
  }
  const describe = ({ carrier, trace: t }: Placed) => {
    const place = places.get(carrier.id)
    const fits = place ? (place.fits ? ', fits' : `, ${place.reason ? units.say(place.reason) : 'does not fit'}`) : ''
    const figures = `${units.show(pick(t.kg, moment), 'mass')}, ${units.figure(pick(t.litres, moment), 'volume')} of ${units.show(t.room_l, 'volume')}`
    return [carrier.name, figures + fits, statesInWords(t.states)].filter(Boolean).join(', ')
  }
  const press = (id: string) => (inHand.length ? stow(id) : setCarrier(id === carrierId ? null : id))
  const planY = 74
  const rects = [
    ...near.map((p) => ({ ...p, rect: sideRect(view, p.box) })),
    ...(compact ? [] : far.map((p) => ({ ...p, rect: planRect(view, p.box, planY, leftSide), plan: true }))),
  ]
  const tabs = assessment.findings.filter((f) => f.bike_id === bike.id && !f.small).slice(0, 6)
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <>
          <svg
            className="rig"
            width={width}
            height={height}
            role="img"
            aria-label={`${bike.name} from the ${leftSide ? 'left' : 'right'}: ${units.show(pick(trace.total_kg, moment), 'mass')}, front wheel ${units.show(pick(trace.front_kg, moment), 'mass')}, rear wheel ${units.show(pick(trace.rear_kg, moment), 'mass')}`}
          >
            <path d={`M0 ${view.ground}H${width}`} stroke="var(--ink)" strokeWidth={2} />
            {!compact && <Plan bike={bike} trace={trace} placed={all} view={view} centre={planY} moment={moment} leftSide={leftSide} width={width} />}
            <BicycleBehind bike={bike} trace={trace} view={view} />
            {near.map((p) => (
              <Bag key={p.carrier.id} {...p} view={view} moment={moment} state={stateOf(p.carrier.id)} id={p.carrier.id} />
            ))}
            <BicycleBefore bike={bike} trace={trace} view={view} />
            <FixtureMarks fixtures={thereAt(trace.fixtures, assessment.moments, moment)} view={view} />
            {!over && <RigLabels placed={near} view={view} moment={moment} width={width} compact={compact} units={units} bike={bike} />}
            <Weighbridge bike={bike} trace={trace} view={view} moment={moment} riderOn={riderOn} width={width} compact={compact} />
            {!compact && <Tabs findings={tabs} rects={rects} middle={view.x(bike.wheelbase_mm / 2)} />}
          </svg>
          {rects.map(({ rect, ...p }) => (
            <BagButton
              key={p.carrier.id}
              type="button"
              aria-label={describe(p)}
              title={describe(p)}
              aria-pressed={p.carrier.id === carrierId}
              data-carrier={p.carrier.id}
              style={{ left: rect.x, top: rect.y, width: Math.max(rect.w, 32), height: Math.max(rect.h, 32) }}
              onClick={() => press(p.carrier.id)}
              onDragOver={(e) => inHand.length && e.preventDefault()}
              onDrop={(e) => {
                e.preventDefault()
                stow(p.carrier.id)
              }}
            />
          ))}
          {over?.(view)}
        </>
      )}
    </Frame>
  )
}

/** Numbers of findings on their bags; in the plan on the side away from the bag's label. */
function Tabs({ findings, rects, middle }: { findings: Finding[]; rects: (Placed & { rect: Rect; plan?: boolean })[]; middle: number }) {
  return findings.map((finding) => {
    const found = rects.find((r) => r.carrier.id === finding.carrier_id)
    if (!found) return null
    const { x, y, w } = found.rect
    const before = found.plan && x + w / 2 < middle
    return <NumberTab key={finding.id} finding={finding} x={before ? x + 12 : x + w - 4} y={Math.max(y - 10, 2)} />
  })
}
