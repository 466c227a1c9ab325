/** The bare bicycle and trailer in millimetres, drawn from the frame's corner points: computed, never artwork. */
import { memo } from 'react'
import type { Bike, BikeTrace } from '../api/client'

export interface View {
  x: (mm: number) => number
  y: (mm: number) => number
  scale: number
}

interface At {
  x: number
  y: number
}

const mix = (a: At, b: At, t: number): At => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t })

function pen(view: View) {
  const at = (p: At) => `${view.x(p.x).toFixed(1)} ${view.y(p.y).toFixed(1)}`
  return {
    at,
    tube: (a: At, b: At, wide: number, end = wide) => {
      const long = Math.hypot(b.x - a.x, b.y - a.y) || 1
      const n = { x: -(b.y - a.y) / long, y: (b.x - a.x) / long }
      const corner = (p: At, w: number) => at({ x: p.x + n.x * w, y: p.y + n.y * w })
      return `M${corner(a, wide / 2)}L${corner(b, end / 2)}L${corner(b, -end / 2)}L${corner(a, -wide / 2)}Z`
    },
    line: (...points: At[]) => `M${points.map(at).join('L')}`,
  }
}

const Tube = ({ d }: { d: string }) => <path d={d} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.2} strokeLinejoin="round" />
const Rod = ({ d, width = 2.6 }: { d: string; width?: number }) => (
  <>
    <path d={d} fill="none" stroke="var(--ink)" strokeWidth={width + 1.4} strokeLinecap="round" strokeLinejoin="round" />
    <path d={d} fill="none" stroke="var(--tag)" strokeWidth={width} strokeLinecap="round" strokeLinejoin="round" />
  </>
)

function Wheel({ view, centre, radius, tyre, spokes = 32 }: { view: View; centre: At; radius: number; tyre: number; spokes?: number }) {
  const cx = view.x(centre.x)
  const cy = view.y(centre.y)
  const k = view.scale
  const rim = (radius - tyre) * k
  const wires = Array.from({ length: spokes }, (_, i) => {
    const a = (i / spokes) * 2 * Math.PI + 0.05
    const h = a + (i % 2 ? 1.1 : -1.1)
    const hub = 26 * k
    return `M${(cx + hub * Math.cos(h)).toFixed(1)} ${(cy + hub * Math.sin(h)).toFixed(1)}L${(cx + (rim - 3) * Math.cos(a)).toFixed(1)} ${(cy + (rim - 3) * Math.sin(a)).toFixed(1)}`
  }).join('')
  return (
    <g fill="none">
      <circle cx={cx} cy={cy} r={(radius - tyre / 2) * k} stroke="var(--tyre)" strokeWidth={Math.max(tyre * k, 2)} />
      <circle cx={cx} cy={cy} r={rim - 2} stroke="var(--metal)" strokeWidth={2.4} />
      <path d={wires} stroke="var(--metal)" strokeWidth={0.55} />
      <circle cx={cx} cy={cy} r={30 * k} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1} />
      <circle cx={cx} cy={cy} r={2.4} fill="var(--ink)" />
    </g>
  )
}

/** Wheels, racks and frame: everything behind the bags. */
export const BicycleBehind = memo(function BicycleBehind({ bike, trace, view }: { bike: Bike; trace: BikeTrace; view: View }) {
  const f = trace.frame
  const k = view.scale
  const { tube, line } = pen(view)
  const r = trace.radius_mm
  const tyre = bike.tyre_width_mm
  const crank = (sign: number): At => ({ x: f.bottom_bracket.x + sign * 158, y: f.bottom_bracket.y - sign * 62 })
  const kinds = new Set(bike.supports.map((s) => s.kind))
  const top = 2 * r + 50
  return (
    <g>
      <Tube d={tube(f.bottom_bracket, crank(-1), 22, 17)} />
      <path d={line({ x: crank(-1).x - 48, y: crank(-1).y }, { x: crank(-1).x + 48, y: crank(-1).y })} stroke="var(--metal)" strokeWidth={5} />
      <Wheel view={view} centre={f.rear_axle} radius={r} tyre={tyre} spokes={36} />
      <Wheel view={view} centre={f.front_axle} radius={r} tyre={tyre} />
      {kinds.has('rear_rack') && (
        <>
          <Rod
            d={
              line({ x: -4, y: r + 20 }, { x: -190, y: top - 12 }) +
              line({ x: -4, y: r + 20 }, { x: -60, y: top - 10 }) +
              line({ x: -4, y: r + 20 }, { x: 66, y: top - 10 })
            }
          />
          <Rod d={line({ x: -250, y: top }, { x: 150, y: top }, { x: f.seat_cluster.x - 40, y: top + 20 })} width={3} />
        </>
      )}
      {kinds.has('front_rack') && (
        <Rod
          d={
            line({ x: f.front_axle.x, y: r + 11 }, { x: f.front_axle.x - 50, y: r + 215 }) +
            line({ x: f.front_axle.x, y: r + 11 }, { x: f.front_axle.x + 50, y: r + 215 }) +
            line({ x: f.front_axle.x - 112, y: r + 221 }, { x: f.front_axle.x + 126, y: r + 221 })
          }
        />
      )}
      <Tube d={tube(f.rear_axle, f.bottom_bracket, 20, 24)} />
      <Tube d={tube(f.rear_axle, mix(f.seat_cluster, f.bottom_bracket, 0.06), 15, 16)} />
      <Tube d={tube(f.bottom_bracket, f.seat_cluster, 33)} />
      <Tube d={tube(mix(f.seat_cluster, f.bottom_bracket, 0.05), mix(f.head_top, f.head_bottom, 0.2), 32)} />
      <Tube d={tube(f.bottom_bracket, mix(f.head_top, f.head_bottom, 0.85), 40)} />
      <Tube d={tube(f.head_bottom, f.front_axle, 30, 16)} />
      <Tube d={tube(f.head_bottom, f.head_top, 46)} />
      <Tube d={tube(f.seat_cluster, { x: f.saddle.x + 10, y: f.saddle.y - 34 }, 27)} />
      <Tube d={tube(f.head_top, mix(f.head_top, f.bar, 0.3), 34)} />
      <Tube d={tube({ x: f.head_top.x - 8, y: f.head_top.y + 26 }, f.bar, 30)} />
      <g fill="none" stroke="var(--ink)">
        <path
          d={
            line({ x: f.bottom_bracket.x + 4, y: f.bottom_bracket.y + 92 }, { x: 2, y: r + 52 }) +
            line({ x: f.bottom_bracket.x - 4, y: f.bottom_bracket.y - 92 }, { x: 60, y: r - 160 })
          }
          strokeWidth={1.8}
        />
        {[52, 40, 28].map((g) => (
          <circle key={g} cx={view.x(0)} cy={view.y(r)} r={g * k} stroke="var(--metal)" strokeWidth={1.1} />
        ))}
        <path
          d={line({ x: 10, y: r - 22 }, { x: 30, y: r - 96 }, { x: 60, y: r - 150 })}
          strokeWidth={3.4}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
        <circle cx={view.x(f.bottom_bracket.x)} cy={view.y(f.bottom_bracket.y)} r={93 * k} strokeWidth={2.4} />
        <circle cx={view.x(f.bottom_bracket.x)} cy={view.y(f.bottom_bracket.y)} r={63 * k} strokeWidth={1.5} />
      </g>
      <Tube d={tube(f.bottom_bracket, crank(1), 24, 18)} />
      <path d={line({ x: crank(1).x - 50, y: crank(1).y }, { x: crank(1).x + 50, y: crank(1).y })} stroke="var(--ink)" strokeWidth={6} />
      <Trailer bike={bike} radius={trace.radius_mm} view={view} />
    </g>
  )
})

/** Saddle and bar: drawn over the bags. */
export const BicycleBefore = memo(function BicycleBefore({ bike, trace, view }: { bike: Bike; trace: BikeTrace; view: View }) {
  const f = trace.frame
  const { at, line } = pen(view)
  const s = f.saddle
  const saddle = `M${at({ x: s.x - 154, y: s.y + 4 })}C${at({ x: s.x - 120, y: s.y + 22 })} ${at({ x: s.x - 60, y: s.y - 4 })} ${at({ x: s.x + 126, y: s.y + 2 })}C${at({ x: s.x + 140, y: s.y })} ${at({ x: s.x + 140, y: s.y - 14 })} ${at({ x: s.x + 120, y: s.y - 14 })}C${at({ x: s.x + 20, y: s.y - 8 })} ${at({ x: s.x - 40, y: s.y - 50 })} ${at({ x: s.x - 120, y: s.y - 48 })}C${at({ x: s.x - 160, y: s.y - 40 })} ${at({ x: s.x - 165, y: s.y - 10 })} ${at({ x: s.x - 154, y: s.y + 4 })}Z`
  const b = f.bar
  const bar = bike.drop_bar
    ? `M${at(b)}C${at({ x: b.x + 40, y: b.y + 5 })} ${at({ x: b.x + 78, y: b.y + 2 })} ${at({ x: b.x + 84, y: b.y - 26 })}C${at({ x: b.x + 96, y: b.y - 70 })} ${at({ x: b.x + 80, y: b.y - 128 })} ${at({ x: b.x - 20, y: b.y - 132 })}`
    : line(b, { x: b.x - 30, y: b.y + 12 }, { x: b.x - 90, y: b.y + 8 })
  return (
    <g>
      <path d={saddle} fill="var(--ink)" />
      <path d={bar} fill="none" stroke="var(--ink)" strokeWidth={8.4} strokeLinecap="round" />
      <path d={bar} fill="none" stroke="var(--metal)" strokeWidth={5.6} strokeLinecap="round" />
      {bike.drop_bar && (
        <path
          d={`M${at({ x: b.x + 50, y: b.y + 6 })}L${at({ x: b.x + 104, y: b.y + 46 })}L${at({ x: b.x + 122, y: b.y + 20 })}L${at({ x: b.x + 84, y: b.y - 24 })}Z`}
          fill="var(--ink)"
        />
      )}
    </g>
  )
})

function Trailer({ bike, radius, view }: { bike: Bike; radius: number; view: View }) {
  const trailer = bike.supports.find((s) => s.trailer)?.trailer
  if (!trailer) return null
  const { line } = pen(view)
  const axle = { x: -trailer.hitch_to_axle_mm, y: trailer.wheel_radius_mm }
  const hitch = { x: 0, y: radius }
  const back = -390
  const floor = 200
  return (
    <g>
      <Wheel view={view} centre={axle} radius={trailer.wheel_radius_mm} tyre={40} spokes={20} />
      <Rod
        d={line(hitch, { x: back, y: hitch.y }, { x: back, y: 250 }, { x: back - 70, y: floor }, { x: axle.x + 210, y: floor }, axle)}
        width={3.2}
      />
      <Rod
        d={
          line({ x: back - 70, y: floor + 104 }, { x: axle.x + 210, y: floor + 104 }, axle) +
          line({ x: back - 70, y: floor }, { x: back - 70, y: floor + 104 }, { x: back, y: 390 })
        }
      />
      <path d={line({ x: axle.x - 205, y: 250 }, { x: axle.x - 205, y: 640 })} stroke="var(--ink)" strokeWidth={1.2} />
      <path
        d={`${line({ x: axle.x - 205, y: 640 }, { x: axle.x - 298, y: 608 }, { x: axle.x - 205, y: 572 })}Z`}
        fill="var(--tag)"
        stroke="var(--ink)"
        strokeWidth={1.2}
      />
    </g>
  )
}
