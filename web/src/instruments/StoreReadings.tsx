/** What every lane holds at the playhead: its figure in the gutter, a dot on the lane, and a handle where the amount can be set. */
import { type PointerEvent, useState } from 'react'
import { type Deed, pick, type StoresTold } from '../api/client'
import type { useUnits } from '../ui/preferences'
import { amount, isThread, laneRows, yOf } from './StoreLanes'

interface Props {
  told: StoresTold
  moment: number
  x: number
  top: number
  foot: number
  small: boolean
  units: ReturnType<typeof useUnits>
  /** What can be set where the playhead stands, by lane. */
  deeds: Deed[]
  onSet: (deed: Deed, amount: number) => void
}

export function StoreReadings({ told, moment, x, top, foot, small, units, deeds, onSet }: Props) {
  const [held, setHeld] = useState<{ lane: string; amount: number } | null>(null)
  return (
    <g>
      {laneRows(told, top, foot).map((row) => {
        const { lane } = row
        const value = pick(lane.stock, moment)
        const deed = deeds.find((d) => d.lane === lane.key)
        const pulled = held?.lane === lane.key ? held.amount : null
        const before = deed ? value - deed.amount : value
        const dot = yOf(row, Math.min(pulled === null ? value : before + pulled, row.most))
        const set = (e: PointerEvent<SVGCircleElement>) => {
          const box = e.currentTarget.ownerSVGElement?.getBoundingClientRect()
          const wanted = ((row.foot - (e.clientY - (box?.top ?? 0))) / (row.foot - row.top)) * row.most - before
          setHeld({ lane: lane.key, amount: Math.max(0, Math.min(wanted, deed?.most ?? Infinity)) })
        }
        return (
          <g key={lane.key}>
            {!isThread(lane) && <Gutter row={row} lane={lane} value={value} moment={moment} small={small} units={units} />}
            {deed && lane.group !== 'power' && (
              <circle
                data-mark
                cx={x}
                cy={dot}
                r={12}
                fill="transparent"
                style={{ cursor: 'ns-resize', touchAction: 'none', pointerEvents: 'all' }}
                onPointerDown={(e) => {
                  e.currentTarget.setPointerCapture(e.pointerId)
                  set(e)
                }}
                onPointerMove={(e) => held && set(e)}
                onPointerUp={() => {
                  if (held) onSet(deed, held.amount)
                  setHeld(null)
                }}
                onPointerCancel={() => setHeld(null)}
              >
                <title>{`Drag to set what is taken of ${lane.name} here`}</title>
              </circle>
            )}
            <circle cx={x} cy={dot} r={isThread(lane) ? 3.5 : 5.5} fill="var(--now)" stroke="var(--onnow)" strokeWidth={1.8} pointerEvents="none" />
            {pulled !== null && (
              <text
                x={x + 10}
                y={dot + 4}
                fontSize="var(--size-small)"
                fontWeight={700}
                style={{ paintOrder: 'stroke', stroke: 'var(--sky)', strokeWidth: 5 }}
              >
                take {amount(units, lane.unit, pulled)}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}

function Gutter({
  row,
  lane,
  value,
  moment,
  small,
  units,
}: {
  row: { top: number; foot: number }
  lane: StoresTold['lanes'][number]
  value: number
  moment: number
  small: boolean
  units: Props['units']
}) {
  const days = pick(lane.days_left, moment)
  const holds = lane.capacity ? ` of ${amount(units, lane.unit, pick(lane.capacity, moment))}` : ''
  if (small) {
    return (
      <text
        x={16}
        y={row.top + 2}
        fontSize="var(--size-text)"
        fontWeight={720}
        style={{ paintOrder: 'stroke', stroke: 'var(--sky)', strokeWidth: 5 }}
      >
        {lane.name} {amount(units, lane.unit, value)}
      </text>
    )
  }
  const rate = amount(units, lane.unit, lane.a_day, lane.unit === 'mass' && lane.a_day < 0.1 ? 3 : undefined)
  const y = row.top - 12
  return (
    <g>
      <rect x={20} y={y + 5} width={13} height={13} fill={`url(#${lane.group})`} stroke="var(--ink)" strokeWidth={1.2} />
      <text
        x={39}
        y={y + 16}
        fontSize="var(--size-text)"
        fontWeight={750}
        style={{ fontFamily: 'Archivo Variable', fontStretch: 'var(--width-sign)' }}
      >
        {lane.name}
      </text>
      <text x={20} y={y + 37} fontSize="var(--size-head)" fontWeight={720} style={{ fontStretch: 'var(--width-text)' }}>
        {amount(units, lane.unit, value)}
        <tspan fontSize="var(--size-note)" fontWeight={550} style={{ fontStretch: 'var(--width-narrow)' }}>
          {holds}
        </tspan>
      </text>
      <text x={20} y={y + 53} fontSize="var(--size-fine)" style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}>
        {days >= 0.05 ? `${units.figure(days, 'count')} ${days === 1 ? 'day' : 'days'} at ${rate}` : `${rate} a day`}
      </text>
    </g>
  )
}
