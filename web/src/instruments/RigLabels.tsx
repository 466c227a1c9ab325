/** What each bag holds, told beside it and never on it: at the rear and the front in columns, what is between in a row above. */
import { type Bike, pick } from '../api/client'
import { useShown } from '../api/tour'
import type { useUnits } from '../ui/preferences'
import { colourOf } from '../ui/Swatch'
import { beside, LETTER_PX, spread } from './labels'
import { namesOf } from './loadEdits'
import { type Placed, type RigView, sideRect } from './rigView'
import { statesInWords } from './states'

const COLUMN_STEP = 44
const PLATE = { w: 36, h: 20 }

interface Label extends Placed {
  name: string
  rect: ReturnType<typeof sideRect>
  cx: number
  cy: number
  kg: string
  litres: string
}

export function RigLabels({
  placed,
  view,
  moment,
  width,
  compact,
  units,
  bike,
}: {
  placed: Placed[]
  view: RigView
  moment: number
  width: number
  compact: boolean
  units: ReturnType<typeof useUnits>
  bike: Bike
}) {
  const { sheet } = useShown()
  const names = namesOf(sheet)
  const labels: Label[] = placed.map((p) => {
    const rect = sideRect(view, p.box)
    const { colour } = p.carrier
    const name = (names.get(p.carrier.id) ?? p.carrier.name).replace(/ \([^)]*\)$/, '')
    return {
      ...p,
      name: [name, colour && !colourOf(colour) && colour, statesInWords(p.trace.states)].filter(Boolean).join(', '),
      rect,
      cx: rect.x + rect.w / 2,
      cy: rect.y + rect.h / 2,
      kg: units.show(pick(p.trace.kg, moment), 'mass'),
      litres: `${units.figure(pick(p.trace.litres, moment), 'volume')} of ${units.show(p.trace.room_l, 'volume')}`,
    }
  })
  if (compact) {
    const plates = beside(
      labels.map((l) => l.rect),
      PLATE,
      { x: 0, y: 0, w: width, h: view.ground },
    )
    return labels.map((label, k) => {
      const at = plates[k]
      return (
        at && (
          <g key={label.carrier.id}>
            <rect {...{ x: at.x, y: at.y, width: at.w, height: at.h }} fill="var(--tag)" stroke="var(--ink)" />
            <text x={at.x + at.w / 2} y={at.y + 15} fontSize="var(--size-text)" fontWeight={700} textAnchor="middle">
              {label.kg.split('\u00a0')[0]}
            </text>
          </g>
        )
      )
    })
  }
  const ahead = view.x(1000) > view.x(0)
  const rowTop = Math.max(160, view.y(1010) - 44)
  const most = Math.max(1, Math.floor((view.ground - 84 - rowTop - 16) / COLUMN_STEP))
  const high = (a: Label, b: Label) => a.cy - b.cy
  const front = labels
    .filter((l) => l.box.x0 > bike.wheelbase_mm * 0.8)
    .sort(high)
    .slice(0, most)
  const rear = labels
    .filter((l) => l.box.x1 < bike.wheelbase_mm * 0.35 && !front.includes(l))
    .sort(high)
    .slice(0, most)
  const row = labels.filter((l) => !front.includes(l) && !rear.includes(l)).sort((a, b) => a.cx - b.cx)
  const wanted = row.map((l) => ({ at: l.cx, half: (l.name.length + 7) * 3 + (colourOf(l.carrier.colour) ? 6 : 0) }))
  const lines = Math.max(1, Math.ceil(wanted.reduce((sum, { half }) => sum + 2 * half, 0) / (width - 12)))
  const onLine = Array.from({ length: lines }, (_, line) =>
    spread(
      wanted.filter((_w, k) => k % lines === line),
      6,
      width - 6,
    ),
  )
  return (
    <g>
      {row.map((l, k) => {
        const x = onLine[k % lines]?.[Math.floor(k / lines)] ?? l.cx
        const y = rowTop + (k % lines) * 16
        return (
          <g key={l.carrier.id}>
            <Leader label={l} x={x} y={y + 4} />
            <text x={x} y={y} fontSize="var(--size-fine)" textAnchor="middle" style={{ fontStretch: 'var(--width-narrow)' }}>
              {l.name} <tspan fontWeight={720}>{l.kg}</tspan>
            </text>
            <Dot colour={l.carrier.colour} x={x - (wanted[k]?.half ?? 0) + 4} y={y - 4} />
          </g>
        )
      })}
      <Column labels={front} atRight={ahead} top={rowTop + 16 * lines} ground={view.ground} width={width} />
      <Column labels={rear} atRight={!ahead} top={rowTop + 16 * lines} ground={view.ground} width={width} />
    </g>
  )
}

/** Labels one under the other at an edge of the drawing, each as near to its bag's height as it can stand. */
function Column({ labels, atRight, top, ground, width }: { labels: Label[]; atRight: boolean; top: number; ground: number; width: number }) {
  const ys = labels
    .reduce<number[]>((found, l) => [...found, Math.max((found.at(-1) ?? top - COLUMN_STEP / 2) + COLUMN_STEP, l.cy)], [])
    .map((y, k) => Math.min(y, ground - 84 - COLUMN_STEP * (labels.length - 1 - k)))
  const x = atRight ? width - 4 : 4
  const anchor = atRight ? 'end' : 'start'
  return labels.map((l, k) => {
    const y = ys[k] ?? l.cy
    const end = Math.max(80, l.name.length * LETTER_PX + 8)
    return (
      <g key={l.carrier.id}>
        <Leader label={l} x={atRight ? width - end : end} y={y - 12} />
        <Dot colour={l.carrier.colour} x={atRight ? width - end - 6 : end + 6} y={y - 12} />
        <text x={x} y={y - 8} fontSize="var(--size-fine)" fontWeight={600} textAnchor={anchor} style={{ fontStretch: 'var(--width-narrow)' }}>
          {l.name}
        </text>
        <text x={x} y={y + 8} fontSize="var(--size-text)" fontWeight={720} textAnchor={anchor} style={{ fontStretch: 'var(--width-text)' }}>
          {l.kg}
        </text>
        <text x={x} y={y + 21} fontSize="var(--size-fine)" textAnchor={anchor} style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}>
          {l.litres}
        </text>
      </g>
    )
  })
}

function Leader({ label, x, y }: { label: Label; x: number; y: number }) {
  return (
    <>
      <path d={`M${x.toFixed(1)} ${y.toFixed(1)}L${label.cx.toFixed(1)} ${label.cy.toFixed(1)}`} stroke="var(--ink)" strokeWidth={1} />
      <circle cx={label.cx} cy={label.cy} r={2.2} fill="var(--ink)" />
    </>
  )
}

function Dot({ colour, x, y }: { colour: string; x: number; y: number }) {
  const fill = colourOf(colour)
  return fill ? <circle cx={x} cy={y} r={4.5} fill={fill} stroke="var(--ink)" strokeWidth={1.2} /> : null
}
