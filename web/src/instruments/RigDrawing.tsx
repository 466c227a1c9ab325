/** A bike as it is loaded at the playhead's moment: from the side, from above, on a weighbridge. */
import { useRef } from 'react'
import styled from 'styled-components'
import { type Bike, type BikeTrace, type Box, type Carrier, type CarrierTrace, type Finding, pick } from '../api/client'
import { useDesk } from '../api/tour'
import { useUnits } from '../ui/preferences'
import { Bag, type BagState } from './Bag'
import { BicycleBefore, BicycleBehind, type View } from './Bicycle'
import { seenFrom } from './bagShapes'
import { usePlayhead } from './moment'
import { Plan } from './Plan'
import { NumberTab } from './ribbonMarks'
import { useSize } from './useSize'
import { usePlaces, useStow } from './useStow'
import { Weighbridge } from './Weighbridge'

const Frame = styled.div`
  position: relative; flex: 1; min-height: 0; min-width: 0; overflow: hidden;
  svg.rig { position: absolute; inset: 0; display: block; }
`
const BagButton = styled.button`
  position: absolute; border-radius: 3px; min-width: 32px; min-height: 32px;
`

export interface RigDrawingProps {
  bike: Bike
  trace: BikeTrace
  leftSide: boolean
  riderOn: boolean
}

interface Placed {
  carrier: Carrier
  trace: CarrierTrace
  box: Box
}

export function RigDrawing({ bike, trace, leftSide, riderOn }: RigDrawingProps) {
  const { assessment } = useDesk()
  const { moment, inHand, carrierId, setCarrier } = usePlayhead()
  const { stow } = useStow()
  const places = usePlaces(inHand?.thingId ?? null)
  const units = useUnits()
  const frame = useRef<HTMLDivElement>(null)
  const { width, height } = useSize(frame)
  const compact = width < 560
  const all: Placed[] = bike.carriers.flatMap((carrier) => {
    const found = trace.carriers.find((t) => t.carrier_id === carrier.id)
    const box = trace.boxes[carrier.id]
    return found && box ? [{ carrier, trace: found, box }] : []
  })
  const near = all.filter(({ carrier }) => seenFrom(carrier, leftSide))
  const far = all.filter(({ carrier }) => !seenFrom(carrier, leftSide))
  const view = fit(bike, all, width, height, compact, leftSide)
  const stateOf = (id: string): BagState => {
    if (!inHand) return id === carrierId ? 'selected' : 'rest'
    const place = places.get(id)
    if (!place) return 'rest'
    return place.fits ? 'fits' : 'no'
  }
  const describe = ({ carrier, trace: t }: Placed) => {
    const place = inHand ? places.get(carrier.id) : undefined
    const fits = place ? (place.fits ? ', fits' : `, ${place.reason ? units.say(place.reason) : 'does not fit'}`) : ''
    const figures = `${units.show(pick(t.kg, moment), 'mass')}, ${units.figure(pick(t.litres, moment), 'volume')} of ${units.show(carrier.volume_l, 'volume')}`
    return `${carrier.name}, ${figures}${fits}`
  }
  const press = (id: string) => (inHand ? stow(id) : setCarrier(id === carrierId ? null : id))
  const planY = 74
  const rects = [
    ...near.map((p) => ({ ...p, rect: sideRect(view, p.box) })),
    ...(compact ? [] : far.map((p) => ({ ...p, rect: planRect(view, p.box, planY, leftSide) }))),
  ]
  const tabs = assessment.findings.filter((f) => f.bike_id === bike.id).slice(0, 6)
  return (
    <Frame ref={frame}>
      {width > 0 && (
        <>
          <svg className="rig" width={width} height={height} role="img"
            aria-label={`${bike.name} from the ${leftSide ? 'left' : 'right'}: ${units.show(pick(trace.total_kg, moment), 'mass')}, front wheel ${units.show(pick(trace.front_kg, moment), 'mass')}, rear wheel ${units.show(pick(trace.rear_kg, moment), 'mass')}`}>
            <path d={`M0 ${view.ground}H${width}`} stroke="var(--ink)" strokeWidth={2} />
            {!compact && <Plan bike={bike} trace={trace} placed={all} view={view} centre={planY} moment={moment} leftSide={leftSide} width={width} />}
            <BicycleBehind bike={bike} trace={trace} view={view} />
            {near.map((p) => <Bag key={p.carrier.id} {...p} view={view} moment={moment} state={stateOf(p.carrier.id)} id={p.carrier.id} />)}
            <BicycleBefore bike={bike} trace={trace} view={view} />
            <Labels placed={near} view={view} moment={moment} width={width} compact={compact} units={units} bike={bike} />
            <Weighbridge bike={bike} trace={trace} view={view} moment={moment} riderOn={riderOn} width={width} compact={compact} />
            {!compact && <Tabs findings={tabs} rects={rects} />}
          </svg>
          {rects.map(({ rect, ...p }) => (
            <BagButton key={p.carrier.id} type="button" aria-label={describe(p)} title={describe(p)} aria-pressed={p.carrier.id === carrierId}
              data-carrier={p.carrier.id} style={{ left: rect.x, top: rect.y, width: Math.max(rect.w, 32), height: Math.max(rect.h, 32) }}
              onClick={() => press(p.carrier.id)}
              onDragOver={(e) => inHand && e.preventDefault()}
              onDrop={(e) => {
                e.preventDefault()
                stow(p.carrier.id)
              }} />
          ))}
        </>
      )}
    </Frame>
  )
}

export interface RigView extends View {
  ground: number
}

/** The largest scale at which the rig fits, elevation under plan on one x-axis. */
function fit(bike: Bike, placed: Placed[], width: number, height: number, compact: boolean, mirrored: boolean): RigView {
  const left = Math.min(-bike.wheel_radius_mm - 30, ...placed.map((p) => p.box.x0 - 20), ...bike.supports.map((s) => (s.trailer ? -s.trailer.hitch_to_axle_mm - 320 : 0)))
  const right = Math.max(bike.wheelbase_mm + bike.wheel_radius_mm + 30, ...placed.map((p) => p.box.x1 + 20))
  const top = Math.max(1010, ...placed.filter((p) => p.carrier.kind !== 'backpack').map((p) => p.box.y1 + 20))
  const trailer = bike.supports.some((s) => s.trailer)
  const lowest = height - (compact ? 60 : trailer ? 138 : 64)
  const room = compact ? 8 : 176
  const margin = compact ? 4 : 104
  const scale = Math.max(0.02, Math.min(0.3, (width - 2 * margin) / (right - left), (lowest - room) / top))
  const ground = Math.min(lowest, room + top * scale + 24)
  const slack = (width - (right - left) * scale) / 2
  const x = mirrored ? (mm: number) => width - slack - (mm - left) * scale : (mm: number) => slack + (mm - left) * scale
  return { x, y: (mm) => ground - mm * scale, scale, ground }
}

interface Rect {
  x: number
  y: number
  w: number
  h: number
}

function sideRect(view: RigView, box: Box): Rect {
  const x = Math.min(view.x(box.x0), view.x(box.x1))
  return { x, y: view.y(box.y1), w: (box.x1 - box.x0) * view.scale, h: (box.y1 - box.y0) * view.scale }
}

export function planRect(view: RigView, box: Box, centre: number, leftSide: boolean): Rect {
  const z = leftSide ? -1 : 1
  const y0 = centre + Math.min(z * box.z0, z * box.z1) * view.scale
  return { x: Math.min(view.x(box.x0), view.x(box.x1)), y: y0, w: (box.x1 - box.x0) * view.scale, h: (box.z1 - box.z0) * view.scale }
}

function Labels({ placed, view, moment, width, compact, units, bike }: {
  placed: Placed[]
  view: RigView
  moment: number
  width: number
  compact: boolean
  units: ReturnType<typeof useUnits>
  bike: Bike
}) {
  const items = placed.map((p) => {
    const rect = sideRect(view, p.box)
    const kg = pick(p.trace.kg, moment)
    return { ...p, rect, cx: rect.x + rect.w / 2, cy: rect.y + rect.h / 2, kg: units.show(kg, 'mass') , litres: `${units.figure(pick(p.trace.litres, moment), 'volume')} of ${units.show(p.carrier.volume_l, 'volume')}` }
  })
  if (compact) {
    return items.filter((i) => i.rect.w > 32 && i.rect.h > 26).map((i) => (
      <g key={i.carrier.id}>
        <rect x={i.cx - 17} y={i.cy - 10} width={34} height={20} fill="var(--tag)" stroke="var(--ink)" />
        <text x={i.cx} y={i.cy + 5} fontSize={14} fontWeight={700} textAnchor="middle">{i.kg.split('\u00a0')[0]}</text>
      </g>
    ))
  }
  const plates = items.filter((i) => i.rect.w >= 76 && i.rect.h >= 54)
  const rest = items.filter((i) => !plates.includes(i))
  const ahead = view.x(1000) > view.x(0)
  const sideEdge = ahead ? width - 4 : 4
  const front = rest.filter((i) => i.box.x0 > bike.wheelbase_mm * 0.8).sort((a, b) => a.cy - b.cy)
  const row = rest.filter((i) => !front.includes(i)).sort((a, b) => a.cx - b.cx)
  const wanted = row.map((i) => ({ at: i.cx, half: (i.carrier.name.length + 7) * 3 }))
  const lines = wanted.reduce((sum, { half }) => sum + 2 * half, 0) > width - 12 ? 2 : 1
  const onLine = Array.from({ length: lines }, (_, line) => spread(wanted.filter((_w, k) => k % lines === line), 6, width - 6))
  const rowY = Math.max(160, view.y(1010) - 44)
  const frontY = front.reduce<number[]>((ys, i) => [...ys, Math.max((ys.at(-1) ?? rowY + 16) + 44, i.cy)], [])
    .map((y, k) => Math.min(y, view.ground - 84 - 44 * (front.length - 1 - k)))
  return (
    <g>
      {plates.map((i) => (
        <g key={i.carrier.id}>
          <rect x={i.cx - 42} y={i.cy - 23} width={84} height={46} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1} />
          <text x={i.cx} y={i.cy - 9} fontSize={12} fontWeight={600} textAnchor="middle" style={{ fontStretch: '82%' }}>{i.carrier.name}</text>
          <text x={i.cx} y={i.cy + 6} fontSize={15} fontWeight={720} textAnchor="middle" style={{ fontStretch: '90%' }}>{i.kg}</text>
          <text x={i.cx} y={i.cy + 18.5} fontSize={12} textAnchor="middle" style={{ fontStretch: '82%', fill: 'var(--ink2)' }}>{i.litres}</text>
        </g>
      ))}
      {row.map((i, k) => {
        const x = onLine[k % lines]?.[Math.floor(k / lines)] ?? i.cx
        const y = rowY + (k % lines) * 16
        return (
          <g key={i.carrier.id}>
            <path d={`M${x.toFixed(1)} ${y + 4}L${i.cx.toFixed(1)} ${i.cy.toFixed(1)}`} stroke="var(--ink)" strokeWidth={1} />
            <circle cx={i.cx} cy={i.cy} r={2.2} fill="var(--ink)" />
            <text x={x} y={y} fontSize={12} textAnchor="middle" style={{ fontStretch: '80%' }}>
              {i.carrier.name} <tspan fontWeight={720}>{i.kg}</tspan>
            </text>
          </g>
        )
      })}
      {front.map((i, k) => {
        const y = frontY[k] ?? i.cy
        const anchor = ahead ? 'end' : 'start'
        const x = sideEdge
        const elbow = ahead ? width - 92 : 92
        return (
          <g key={i.carrier.id}>
            <path d={`M${elbow} ${y - 4}L${i.cx.toFixed(1)} ${i.cy.toFixed(1)}`} stroke="var(--ink)" strokeWidth={1} />
            <circle cx={i.cx} cy={i.cy} r={2.2} fill="var(--ink)" />
            <text x={x} y={y - 8} fontSize={12} fontWeight={600} textAnchor={anchor} style={{ fontStretch: '84%' }}>{i.carrier.name}</text>
            <text x={x} y={y + 8} fontSize={14} fontWeight={720} textAnchor={anchor} style={{ fontStretch: '90%' }}>{i.kg}</text>
            <text x={x} y={y + 21} fontSize={12} textAnchor={anchor} style={{ fontStretch: '82%', fill: 'var(--ink2)' }}>{i.litres}</text>
          </g>
        )
      })}
    </g>
  )
}

/** Places labels side by side as near as they can stand to what they name. */
function spread(wanted: { at: number; half: number }[], low: number, high: number): number[] {
  const places: number[] = []
  let edge = low
  for (const { at, half } of wanted) {
    const x = Math.max(at, edge + half)
    places.push(x)
    edge = x + half
  }
  let right = high
  for (let i = places.length - 1; i >= 0; i -= 1) {
    const half = wanted[i]?.half ?? 0
    places[i] = Math.min(places[i] ?? 0, right - half)
    right = (places[i] ?? 0) - half
  }
  return places
}

function Tabs({ findings, rects }: { findings: Finding[]; rects: (Placed & { rect: Rect })[] }) {
  return findings.map((finding) => {
    const found = rects.find((r) => r.carrier.id === finding.carrier_id)
    if (!found) return null
    return <NumberTab key={finding.id} finding={finding} x={found.rect.x + found.rect.w - 4} y={found.rect.y - 10} />
  })
}
