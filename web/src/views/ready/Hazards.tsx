/** What stretches ask to be reckoned with, over the days; and until where what they ask for is wanted. */
import { useShown } from '../../api/tour'
import { HAZARD_WORDS, rowsOf } from '../../instruments/RibbonHazards'
import { dayOfKm, type Scale } from '../../instruments/ribbonScale'

const ROW = 18
const CLOSED_ROW = 13
const ROWS = 6
const CLOSED_ROWS = 2
const LETTER_PX = 5.6

export function Hazards({ scale, width, open }: { scale: Scale; width: number; open: boolean }) {
  const { assessment, sheet } = useShown()
  const hazards = [...sheet.road.hazards].sort((a, b) => a.from_km - b.from_km)
  if (!hazards.length) return <svg width={width} height={20} aria-hidden="true" />
  const xOf = (km: number) => scale.x(km, dayOfKm(assessment.days, km))
  // A word takes its room besides its stretch, so that words do not cover each other.
  const kmOf = (px: number) => (px / Math.max(width, 1)) * (assessment.road?.length_km ?? 0)
  const wide = hazards.map((h) => ({ ...h, to_km: Math.max(h.to_km, h.from_km + kmOf(HAZARD_WORDS[h.kind].length * LETTER_PX + 14)) }))
  const rows = rowsOf(wide, open ? ROWS : CLOSED_ROWS)
  const tall = open ? ROW : CLOSED_ROW
  const height = (Math.max(...rows) + 1) * tall + 4
  const written: number[] = []
  return (
    <svg width={width} height={height} role="img" aria-label={`${hazards.length} stretches with hazards`}>
      {hazards.map((hazard, i) => {
        const [x0, x1] = [xOf(hazard.from_km), Math.max(xOf(hazard.to_km), xOf(hazard.from_km) + 4)]
        const row = rows[i] ?? 0
        const top = row * tall + 2
        const from = Math.min(x0 + 5, width - HAZARD_WORDS[hazard.kind].length * LETTER_PX - 4)
        const says = from >= (written[row] ?? 0)
        if (says) written[row] = from + HAZARD_WORDS[hazard.kind].length * LETTER_PX + 6
        return (
          <g key={i}>
            <rect x={x0} y={top} width={x1 - x0} height={tall - 3} fill="url(#hatch)" opacity={0.35} />
            <path d={`M${x0} ${top}V${top + tall - 3}M${x1} ${top}V${top + tall - 3}`} stroke="var(--ink)" strokeWidth={1.6} />
            {says && (
              <text
                x={from}
                y={top + tall - 6}
                fontSize="var(--size-fine)"
                fontWeight={620}
                stroke="var(--sky)"
                strokeWidth={3}
                style={{ paintOrder: 'stroke' }}
              >
                {HAZARD_WORDS[hazard.kind]}
                <title>{hazard.note || HAZARD_WORDS[hazard.kind]}</title>
              </text>
            )}
          </g>
        )
      })}
    </svg>
  )
}
