/** The bike on the scale, a board under its other wheel, the live reading under it, and the last seconds of readings. */
import styled from 'styled-components'
import type { Bike, WeighLine } from '../../api/client'
import { useShown } from '../../api/tour'
import { Bag } from '../../instruments/Bag'
import { BicycleBefore, BicycleBehind } from '../../instruments/Bicycle'
import { fit, type Placed, seenFrom } from '../../instruments/rigView'
import { useSize } from '../../instruments/useSize'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { type Reading, SECONDS } from './useScale'

const Stage = styled.div`
  height: min(44dvh, 380px);
  min-height: 240px;
  ${phone} {
    height: 300px;
  }
`
const BOARD_PX = 20

/** The laden bike as it stands for the weighing of one of its wheels; null: of something else. */
export function ScaleDrawing({
  bike,
  wheel,
  board,
  rear,
  front,
}: {
  bike: Bike
  wheel: 'front' | 'rear' | null
  board: boolean
  rear?: WeighLine
  front?: WeighLine
}) {
  const { assessment } = useShown()
  const units = useUnits()
  const [box, { width, height }] = useSize<HTMLDivElement>()
  const trace = assessment.bikes.find((b) => b.bike_id === bike.id)
  if (!trace) return null
  const all: Placed[] = bike.carriers.flatMap((carrier) => {
    const held = trace.carriers.find((c) => c.carrier_id === carrier.id)
    const outer = trace.boxes[carrier.id]
    const shape = trace.shapes[carrier.id]
    return held && outer && shape && !held.on_rider ? [{ carrier, trace: held, box: outer, shape }] : []
  })
  const near = all.filter((p) => seenFrom(p.carrier, false))
  const view = fit(bike, trace.radius_mm, all, width, height - BOARD_PX, true, false)
  const under = (which: 'front' | 'rear') => {
    const x = view.x(which === 'front' ? bike.wheelbase_mm : 0)
    const weighed = wheel === which
    if (wheel === null || (!weighed && !board)) return null
    return (
      <g key={which}>
        {weighed ? (
          <path
            d={`M${x - 46} ${view.ground}h92v5h-14l-8 ${BOARD_PX - 5}h-48l-8 -${BOARD_PX - 5}h-14z`}
            fill="var(--now)"
            stroke="var(--onnow)"
            strokeWidth={2}
          />
        ) : (
          <>
            <rect x={x - 46} y={view.ground} width={92} height={BOARD_PX} fill="var(--tag)" stroke="var(--ink)" strokeWidth={2} />
            <path d={`M${x - 46} ${view.ground + BOARD_PX / 2}h92`} stroke="var(--ink)" />
          </>
        )}
      </g>
    )
  }
  const told = (line: WeighLine | undefined, x: number, name: string) =>
    line?.scale_kg != null && (
      <text
        x={x}
        y={view.ground + 40}
        textAnchor="middle"
        fontSize="var(--size-small)"
        fontWeight={650}
        style={{ fontStretch: 'var(--width-narrow)' }}
      >
        {name} {units.show(line.scale_kg, 'mass', 2)}
      </text>
    )
  return (
    <Stage ref={box}>
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`${bike.name} ${wheel ? `with its ${wheel} wheel on the scale` : 'beside the scale'}`}
        >
          <path d={`M0 ${view.ground + (wheel ? BOARD_PX : 0)}H${width}`} stroke="var(--ink)" strokeWidth={2} />
          <BicycleBehind bike={bike} trace={trace} view={view} />
          {near.map((p) => (
            <Bag key={p.carrier.id} {...p} view={view} moment={0} state="rest" id={`weigh-${p.carrier.id}`} />
          ))}
          <BicycleBefore bike={bike} trace={trace} view={view} />
          {under('rear')}
          {under('front')}
          {told(rear, view.x(0), 'rear')}
          {told(front, view.x(bike.wheelbase_mm), 'front')}
        </svg>
      )}
    </Stage>
  )
}

const STATES: Record<Reading['state'], string> = {
  stable: 'still',
  moving: 'settling',
  too_much: 'too much for this scale',
  lost: 'link lost, tried again',
  none: 'no scale',
}

const Board = styled.div`
  background: var(--now);
  color: var(--onnow);
  border: 2px solid var(--onnow);
  padding: 6px 14px 8px;
  min-width: 220px;
  p {
    display: flex;
    justify-content: space-between;
    gap: 16px;
    font-size: var(--size-note);
    font-weight: 650;
    font-stretch: var(--width-narrow);
  }
  strong {
    font-size: 40px;
    line-height: 44px;
    font-weight: 720;
    font-stretch: var(--width-text);
  }
`

/** The live reading, with its word. */
export function LiveBoard({ name, now }: { name: string; now: Reading | null }) {
  const units = useUnits()
  const state = now?.state ?? 'lost'
  const shown = now?.kg != null && (state === 'stable' || state === 'moving')
  return (
    <Board>
      <p>
        <span>{name}</span>
        <span role="status">{now ? STATES[state] : 'one moment'}</span>
      </p>
      <strong data-reading={state}>{shown ? units.show(now.kg ?? 0, 'mass', 2) : '–'}</strong>
    </Board>
  )
}

/** Readings of the last seconds, those that were taken marked; a gap where the link was lost. */
export function ReadingTrace({ past, taken, band }: { past: Reading[]; taken: { at: number; kg: number }[]; band: number }) {
  const units = useUnits()
  const [box, { width }] = useSize<HTMLDivElement>()
  const height = 92
  const end = past.at(-1)?.at ?? 0
  const known = past.filter((r) => r.kg !== null)
  const last = known.at(-1)?.kg ?? 0
  const around = known.map((r) => r.kg ?? 0)
  const low = Math.min(...around, last - band) - 0.05
  const high = Math.max(...around, last + band) + 0.05
  const x = (at: number) => 8 + ((at - end + SECONDS) / SECONDS) * (width - 90)
  const y = (kg: number) => 20 + (1 - (kg - low) / (high - low || 1)) * (height - 44)
  let line = ''
  let broken = true
  for (const reading of past) {
    if (reading.kg === null) broken = true
    else {
      line += `${broken ? 'M' : 'L'}${x(reading.at).toFixed(1)} ${y(reading.kg).toFixed(1)}`
      broken = false
    }
  }
  const lost = past.filter((r) => r.state === 'lost')
  return (
    <div ref={box} style={{ height }}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={`Readings of the last ${SECONDS} seconds`}>
          <path d={`M8 ${y(last - band / 2)}H${width - 82}M8 ${y(last + band / 2)}H${width - 82}`} stroke="var(--ink3)" strokeDasharray="4 4" />
          <path d={line} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
          {lost[0] && (
            <text x={x(lost[0].at)} y={height - 26} fontSize="var(--size-fine)" style={{ fill: 'var(--ink2)' }}>
              link lost
            </text>
          )}
          {taken
            .filter((t) => t.at > end - SECONDS)
            .map((t) => (
              <g key={t.at}>
                <path d={`M${x(t.at)} ${y(t.kg) - 12}v24`} stroke="var(--ink)" strokeWidth={2} />
                <text x={x(t.at)} y={14} textAnchor="middle" fontSize="var(--size-fine)" fontWeight={650}>
                  {units.figure(t.kg, 'mass', 2)}
                </text>
              </g>
            ))}
          {known.length > 0 && <circle cx={x(end)} cy={y(last)} r={5} fill="var(--now)" stroke="var(--onnow)" strokeWidth={2} />}
          <text x={width - 76} y={y(last) + 4} fontSize="var(--size-fine)" style={{ fill: 'var(--ink2)' }}>
            still: ±{units.show(band / 2, 'mass', 2)}
          </text>
          <path d={`M8 ${height - 16}H${width - 82}`} stroke="var(--ink)" />
          <text x={8} y={height - 3} fontSize="var(--size-fine)">
            {SECONDS} s ago
          </text>
          <text x={width - 82} y={height - 3} fontSize="var(--size-fine)" textAnchor="end">
            now
          </text>
        </svg>
      )}
    </div>
  )
}
