/** The bike from above, on the same x-axis and scale, its near side nearest the elevation, with a level beside it. */
import { LETTER_PX } from './labels'
import { type Bike, type BikeTrace, type Box, type Carrier, type CarrierTrace, pick } from '../api/client'
import { useUnits } from '../ui/preferences'
import { layersOf } from './Bag'
import { planRect, type RigView, seenFrom } from './rigView'
import { statesInWords } from './states'

interface Props {
  bike: Bike
  trace: BikeTrace
  placed: { carrier: Carrier; trace: CarrierTrace; box: Box }[]
  view: RigView
  centre: number
  moment: number
  leftSide: boolean
  width: number
}

export function Plan({ bike, trace, placed, view, centre, moment, leftSide, width }: Props) {
  const units = useUnits()
  const k = view.scale
  const f = trace.frame
  const wheel = (x: number, r: number, w: number) => (
    <rect x={Math.min(view.x(x - r), view.x(x + r))} y={centre - (w * k) / 2} width={2 * r * k} height={w * k} rx={4} fill="var(--tyre)" />
  )
  const tube = (d: string, w = 3) => (
    <>
      <path d={d} stroke="var(--ink)" strokeWidth={w + 1.6} strokeLinecap="round" fill="none" />
      <path d={d} stroke="var(--tag)" strokeWidth={w - 0.6} strokeLinecap="round" fill="none" />
    </>
  )
  const z = leftSide ? -1 : 1
  const at = (x: number, side: number) => `${view.x(x).toFixed(1)} ${(centre + z * side * k).toFixed(1)}`
  const bar = (s: number) =>
    `M${at(f.bar.x, 0)}L${at(f.bar.x + 5, s * 150)}C${at(f.bar.x + 8, s * 205)} ${at(f.bar.x + 55, s * 212)} ${at(f.bar.x + 85, s * 216)}`
  const order = placed.filter((p) => !p.trace.rigid_water).sort((a, b) => a.box.y1 - b.box.y1)
  const trailer = bike.supports.find((s) => s.trailer)?.trailer
  const far = placed.filter((p) => !seenFrom(p.carrier, leftSide))
  return (
    <g>
      {wheel(0, trace.radius_mm, bike.tyre_width_mm)}
      {wheel(bike.wheelbase_mm, trace.radius_mm, bike.tyre_width_mm)}
      {trailer && wheel(-trailer.hitch_to_axle_mm, trailer.wheel_radius_mm, 40)}
      {trailer &&
        tube(
          `M${at(0, 70)}L${at(-390, 90)}L${at(-trailer.hitch_to_axle_mm, 60)}M${at(0, -70)}L${at(-390, -90)}L${at(-trailer.hitch_to_axle_mm, -60)}`,
        )}
      {tube(`M${at(0, 66)}L${at(f.seat_cluster.x, 14)}M${at(0, -66)}L${at(f.seat_cluster.x, -14)}M${at(0, 66)}L${at(0, -66)}`)}
      {tube(
        `M${at(bike.wheelbase_mm, 54)}L${at(f.head_bottom.x, 40)}M${at(bike.wheelbase_mm, -54)}L${at(f.head_bottom.x, -40)}M${at(bike.wheelbase_mm, 54)}L${at(bike.wheelbase_mm, -54)}`,
      )}
      {tube(`M${at(f.bottom_bracket.x, 80)}L${at(f.bottom_bracket.x + 158, 86)}M${at(f.bottom_bracket.x, -80)}L${at(f.bottom_bracket.x - 158, -86)}`)}
      {tube(`M${at(f.seat_cluster.x, 0)}L${at(f.head_top.x, 0)}`, 7)}
      {order.map((p) => (
        <PlanBag key={p.carrier.id} {...p} view={view} centre={centre} moment={moment} leftSide={leftSide} />
      ))}
      <path d={bar(1) + bar(-1)} fill="none" stroke="var(--ink)" strokeWidth={6} strokeLinecap="round" />
      <path d={bar(1) + bar(-1)} fill="none" stroke="var(--metal)" strokeWidth={3.4} strokeLinecap="round" />
      <path
        d={`M${at(f.saddle.x - 150, -66)}C${at(f.saddle.x - 60, -70)} ${at(f.saddle.x - 20, -26)} ${at(f.saddle.x + 130, -16)}L${at(f.saddle.x + 130, 16)}C${at(f.saddle.x - 20, 26)} ${at(f.saddle.x - 60, 70)} ${at(f.saddle.x - 150, 66)}Z`}
        fill="var(--ink)"
      />
      {far.map((p) => (
        <FarLabel
          key={p.carrier.id}
          {...p}
          view={view}
          centre={centre}
          moment={moment}
          leftSide={leftSide}
          units={units}
          middle={view.x(bike.wheelbase_mm / 2)}
          bar={Math.min(view.x(f.bar.x), view.x(f.bar.x + 90))}
        />
      ))}
      <Level trace={trace} moment={moment} x={width - 96} units={units} leftSide={leftSide} />
      <ScaleBar view={view} units={units} />
    </g>
  )
}

function PlanBag({ trace, box, view, centre, moment, leftSide }: Props['placed'][number] & Pick<Props, 'view' | 'centre' | 'moment' | 'leftSide'>) {
  const rect = planRect(view, box, centre, leftSide)
  const bands = layersOf(trace, moment).reduce<{ material: string; from: number; share: number }[]>((list, layer) => {
    const last = list.at(-1)
    const from = last ? last.from + last.share : 0
    return [...list, { material: layer.material, from, share: Math.min(layer.share, Math.max(0, 1 - from)) }]
  }, [])
  return (
    <g>
      <rect {...size(rect)} fill="var(--tag)" />
      {bands.map((b) => (
        <rect
          key={b.material}
          x={leftSide ? rect.x + rect.w * (1 - b.from - b.share) : rect.x + rect.w * b.from}
          y={rect.y}
          width={rect.w * b.share}
          height={rect.h}
          fill={`url(#${b.material})`}
          stroke="var(--ink)"
          strokeWidth={0.8}
        />
      ))}
      <rect {...size(rect)} fill="none" stroke="var(--ink)" strokeWidth={1.8} rx={2} />
    </g>
  )
}

const size = (r: { x: number; y: number; w: number; h: number }) => ({ x: r.x, y: r.y, width: r.w, height: r.h })

/** In a drawing that is wide enough a label may reach beyond the middle: the other is seldom as long. */
const [OVER_MIDDLE_PX, WIDE_PX] = [24, 76]

/** A far bag's label stands inside the plan, beside the frame, where there is always room. */
function FarLabel({
  carrier,
  trace,
  box,
  view,
  centre,
  moment,
  leftSide,
  units,
  middle,
  bar,
}: Props['placed'][number] &
  Pick<Props, 'view' | 'centre' | 'moment' | 'leftSide'> & { units: ReturnType<typeof useUnits>; middle: number; bar: number }) {
  const rect = planRect(view, box, centre, leftSide)
  const before = rect.x + rect.w / 2 < middle
  const anchor = before ? 'start' : 'end'
  const x = before ? rect.x + rect.w + 7 : Math.min(rect.x, rect.x < bar + 30 ? bar : rect.x) - 14
  const y = 14
  const half = Math.abs(middle - x)
  const room = half - 4 + (half > WIDE_PX ? OVER_MIDDLE_PX : 0)
  const fitting = (words: string) => (words.length * LETTER_PX <= room ? words : `${words.slice(0, Math.max(Math.floor(room / LETTER_PX) - 1, 0))}…`)
  const corner = before ? rect.x + rect.w - 6 : rect.x + 6
  return (
    <g>
      {rect.y > 40 && <path d={`M${x} 34L${corner} ${rect.y + 6}`} stroke="var(--ink)" />}
      <text x={x} y={y} fontSize="var(--size-fine)" fontWeight={600} textAnchor={anchor} style={{ fontStretch: 'var(--width-narrow)' }}>
        {fitting([carrier.name, statesInWords(trace.states)].filter(Boolean).join(', '))}
      </text>
      <text x={x} y={y + 15} fontSize="var(--size-text)" fontWeight={720} textAnchor={anchor} style={{ fontStretch: 'var(--width-text)' }}>
        {units.show(pick(trace.kg, moment), 'mass')}
      </text>
      <text x={x} y={y + 28} fontSize="var(--size-fine)" textAnchor={anchor} style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}>
        {fitting(`${units.figure(pick(trace.litres, moment), 'volume')} of ${units.show(trace.room_l, 'volume')}`)}
      </text>
    </g>
  )
}

const PX_PER_KG = 14

/** A spirit level across the less even axle: the bubble goes to the lighter side, the words name the heavier one. */
function Level({
  trace,
  moment,
  x,
  units,
  leftSide,
}: {
  trace: BikeTrace
  moment: number
  x: number
  units: ReturnType<typeof useUnits>
  leftSide: boolean
}) {
  const left = pick(trace.left_kg, moment)
  const right = pick(trace.right_kg, moment)
  if (left === 0 && right === 0) return null
  const axles = (['front', 'rear'] as const).map((axle) => ({ axle, off: pick(trace.right_over_left_kg[axle], moment) }))
  const worst = axles.reduce((a, b) => (Math.abs(b.off) > Math.abs(a.off) ? b : a))
  const off = worst.off
  const top = 12
  const high = 124
  const middle = top + high / 2
  const up = leftSide ? -1 : 1
  const bubble = middle + Math.max(-46, Math.min(46, -off * PX_PER_KG * up))
  const words = Math.abs(off) < 0.05 ? 'level' : `${off > 0 ? 'right' : 'left'} ${units.show(Math.abs(off), 'mass')}`
  return (
    <g>
      <rect x={x} y={top} width={16} height={high} rx={8} fill="var(--tag)" stroke="var(--ink)" strokeWidth={2} />
      <path d={`M${x} ${middle - 9}h16M${x} ${middle + 9}h16`} stroke="var(--ink)" strokeWidth={1.2} />
      <ellipse cx={x + 8} cy={bubble} rx={5.5} ry={8} fill="var(--now)" stroke="var(--onnow)" strokeWidth={1.6} />
      <text x={x + 22} y={top + 10} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)' }}>
        {leftSide ? 'Right' : 'Left'} {units.show(leftSide ? right : left, 'mass')}
      </text>
      <text x={x + 22} y={middle} fontSize="var(--size-fine)" fontWeight={720} style={{ fontStretch: 'var(--width-narrow)' }}>
        {words}
      </text>
      {Math.abs(off) >= 0.05 && (
        <text x={x + 22} y={middle + 14} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)' }}>
          heavier, {worst.axle}
        </text>
      )}
      <text x={x + 22} y={top + high} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)' }}>
        {leftSide ? 'Left' : 'Right'} {units.show(leftSide ? left : right, 'mass')}
      </text>
    </g>
  )
}

function ScaleBar({ view, units }: { view: RigView; units: ReturnType<typeof useUnits> }) {
  const mm = units.system === 'metric' ? 300 : 304.8
  return (
    <g>
      <path d={`M8 138v4h${(mm * view.scale).toFixed(1)}v-4`} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
      <text x={12} y={136} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}>
        {units.system === 'metric' ? '0.3\u00a0m' : '1\u00a0ft'}
      </text>
    </g>
  )
}
