/** Pads under the wheels, a beam between, and a plumb line from the centre of gravity to its foot on the beam. */
import { type Bike, type BikeTrace, pick } from '../api/client'
import { useUnits } from '../ui/preferences'
import type { RigView } from './rigView'

export function Weighbridge({
  bike,
  trace,
  view,
  moment,
  riderOn,
  width,
  compact,
}: {
  bike: Bike
  trace: BikeTrace
  view: RigView
  moment: number
  riderOn: boolean
  width: number
  compact: boolean
}) {
  const units = useUnits()
  const { ground } = view
  const share = pick(trace.front_share, moment)
  const footX = view.x(share * bike.wheelbase_mm)
  const centreY = view.y(pick(trace.centre_y_mm, moment))
  const beam = ground + 20
  const ahead = view.x(1000) > view.x(0)
  const trailer = bike.supports.find((s) => s.trailer)?.trailer
  const loads = [
    {
      name: 'Rear wheel',
      kg: pick(trace.rear_kg, moment),
      rider: trace.rider_rear_kg,
      x: view.x(-trace.radius_mm),
      behind: true,
    },
    {
      name: 'Front wheel',
      kg: pick(trace.front_kg, moment),
      rider: trace.rider_front_kg,
      x: view.x(bike.wheelbase_mm + trace.radius_mm),
      behind: false,
    },
  ]
  const percent = units.show(share, 'share')
  return (
    <g>
      <Beam {...{ bike, trace, view, footX, centreY, beam }} />
      {compact ? (
        <text x={width / 2} y={beam + 31} fontSize="var(--size-text)" textAnchor="middle" fontWeight={650}>
          rear {units.show((riderOn ? trace.rider_rear_kg : 0) + pick(trace.rear_kg, moment), 'mass')} · {percent} front · front{' '}
          {units.show((riderOn ? trace.rider_front_kg : 0) + pick(trace.front_kg, moment), 'mass')}
        </text>
      ) : (
        <>
          <Balance {...{ bike, trace, view, moment }} y={beam + (trailer ? 65 : 26)} />
          {loads.map((load) => {
            const outward = load.behind === ahead ? -1 : 1
            const x = load.x + outward * 8
            const y = ground - 44
            const anchor = outward < 0 ? 'end' : 'start'
            const main = riderOn ? load.kg + load.rider : load.kg
            const other = riderOn ? `${units.show(load.kg, 'mass')} without rider` : `${units.show(load.kg + load.rider, 'mass', 0)} with rider`
            if (trailer && load.behind)
              return (
                <TrailerLoads
                  key={load.name}
                  trace={trace}
                  moment={moment}
                  main={main}
                  other={other}
                  view={view}
                  axle={-trailer.hitch_to_axle_mm}
                  beam={beam}
                />
              )
            return (
              <g key={load.name}>
                <text x={x} y={y} fontSize="var(--size-fine)" fontWeight={600} textAnchor={anchor} style={{ fontStretch: 'var(--width-narrow)' }}>
                  {load.name}
                </text>
                <text x={x} y={y + 20} fontSize="var(--size-head)" fontWeight={720} textAnchor={anchor} style={{ fontStretch: 'var(--width-text)' }}>
                  {units.show(main, 'mass')}
                </text>
                <text
                  x={x}
                  y={y + 35}
                  fontSize="var(--size-fine)"
                  textAnchor={anchor}
                  style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}
                >
                  {other}
                </text>
              </g>
            )
          })}
        </>
      )}
    </g>
  )
}

interface Standing {
  bike: Bike
  trace: BikeTrace
  view: RigView
}

/** The pads, the beam with the share that the front bears and where it should lie, and the plumb line of the centre of gravity. */
function Beam({ bike, trace, view, footX, centreY, beam }: Standing & { footX: number; centreY: number; beam: number }) {
  const { ground } = view
  const on = (s: number) => view.x(s * bike.wheelbase_mm)
  const range = [Math.min(...trace.front_share), Math.max(...trace.front_share)] as const
  return (
    <>
      {[0, bike.wheelbase_mm].map((mm) => (
        <g key={mm}>
          <rect x={view.x(mm) - 28} y={ground} width={56} height={6} fill="var(--ink)" />
          <rect x={view.x(mm) - 4} y={ground + 6} width={8} height={15} fill="var(--ink)" />
        </g>
      ))}
      <path d={`M${view.x(0)} ${beam}H${view.x(bike.wheelbase_mm)}`} stroke="var(--ink)" strokeWidth={3} />
      {Array.from({ length: 19 }, (_, i) => (i + 1) / 20).map((s) => (
        <path key={s} d={`M${on(s)} ${beam}v${s === 0.5 ? 8 : 5}`} stroke="var(--ink)" strokeWidth={1} />
      ))}
      <path d={`M${on(range[0])} ${beam - 5}H${on(range[1])}`} stroke="var(--metal)" strokeWidth={4} />
      <path d={`M${on(trace.steady_low)} ${beam + 8}v5H${on(trace.steady_high)}v-5`} fill="none" stroke="var(--ink)" strokeWidth={2} />
      <path d={`M${footX} ${centreY}V${beam - 8}`} stroke="var(--onnow)" strokeWidth={4.5} />
      <path d={`M${footX} ${centreY}V${beam - 8}`} stroke="var(--now)" strokeWidth={2.5} />
      <path d={`M${footX - 7} ${beam - 12}h14l-7 12z`} fill="var(--now)" stroke="var(--onnow)" strokeWidth={1.6} />
      <g transform={`translate(${footX.toFixed(1)} ${centreY.toFixed(1)})`}>
        <circle r={11.6} fill="var(--sky)" />
        <circle r={10} fill="var(--now)" stroke="var(--onnow)" strokeWidth={1.8} />
        <path d="M0 0V-10A10 10 0 0 1 10 0ZM0 0V10A10 10 0 0 1 -10 0Z" fill="var(--onnow)" />
      </g>
    </>
  )
}

/** What the front bears and how high the centre lies, in words. */
function Balance({ bike, trace, view, moment, y }: Standing & { moment: number; y: number }) {
  const units = useUnits()
  const percent = units.show(pick(trace.front_share, moment), 'share')
  return (
    <text x={view.x(bike.wheelbase_mm / 2)} y={y} fontSize="var(--size-small)" textAnchor="middle" style={{ fontStretch: 'var(--width-narrow)' }}>
      <tspan fontWeight={720}>front {percent}</tspan>,{' '}
      {units.system === 'metric'
        ? `${(pick(trace.centre_y_mm, moment) / 1000).toFixed(2)}\u00a0m`
        : units.show(pick(trace.centre_y_mm, moment), 'length', 0)}{' '}
      high
      <tspan x={view.x(bike.wheelbase_mm / 2)} dy={14}>
        steady {units.figure(trace.steady_low, 'share')} to {units.show(trace.steady_high, 'share')}
      </tspan>
    </text>
  )
}

/** With a trailer the rear wheel stands in the middle: its load goes under the beam, the trailer's own under its wheel. */
function TrailerLoads({
  trace,
  moment,
  main,
  other,
  view,
  axle,
  beam,
}: {
  trace: BikeTrace
  moment: number
  main: number
  other: string
  view: RigView
  axle: number
  beam: number
}) {
  const units = useUnits()
  const x = view.x(axle)
  const figures = (at: number, name: string, value: number, note: string) => (
    <g>
      <text x={at} y={beam + 18} fontSize="var(--size-fine)" fontWeight={600} textAnchor="middle" style={{ fontStretch: 'var(--width-narrow)' }}>
        {name}
      </text>
      <text x={at} y={beam + 37} fontSize="var(--size-head)" fontWeight={720} textAnchor="middle" style={{ fontStretch: 'var(--width-text)' }}>
        {units.show(value, 'mass')}
      </text>
      <text x={at} y={beam + 51} fontSize="var(--size-fine)" textAnchor="middle" style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}>
        {note}
      </text>
    </g>
  )
  return (
    <g>
      <rect x={x - 22} y={view.ground} width={44} height={6} fill="var(--ink)" />
      <rect x={x - 4} y={view.ground + 6} width={8} height={15} fill="var(--ink)" />
      <path d={`M${x} ${beam}H${view.x(0)}`} stroke="var(--ink)" strokeWidth={1.6} strokeDasharray="5 4" />
      {figures(x, 'Trailer wheel', pick(trace.trailer_kg, moment), `on the hitch ${units.show(pick(trace.hitch_kg, moment), 'mass')}`)}
      {figures(view.x(0), 'Rear wheel', main, other)}
    </g>
  )
}
