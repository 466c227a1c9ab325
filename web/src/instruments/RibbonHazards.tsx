/** What is to be reckoned with, as bars under the skyline: each kind a dash of its own, several in rows. */
import type { Road } from '../api/client'

type Hazard = Road['hazards'][number]

/** What hazards are called on screen. */
export const HAZARD_WORDS: Record<Hazard['kind'], string> = {
  bears: 'large animals',
  insects: 'insects',
  ticks: 'ticks',
  thorns: 'thorns',
  dust: 'dust',
  tunnels: 'tunnels',
  traffic: 'traffic',
  theft: 'theft',
  sun: 'sun, no shade',
  no_signal: 'no signal',
  border: 'a border',
}
const HAZARD_DASHES: Record<Hazard['kind'], string | undefined> = {
  bears: undefined,
  insects: '1.5 2.5',
  ticks: '1.5 4.5',
  thorns: '4 2',
  dust: '1 1.5',
  tunnels: '6 1.5',
  traffic: '9 3',
  theft: '3 3 1 3',
  sun: '5 4',
  no_signal: '2 6',
  border: '1 1',
}
const ROWS = 2
const ROW_PX = 3.5

/** In which row each bar lies, so that those of the first rows do not cover each other. */
export function rowsOf(hazards: Hazard[], rows: number): number[] {
  const ends: number[] = []
  return hazards.map((hazard) => {
    let row = ends.findIndex((end) => end <= hazard.from_km)
    if (row < 0) row = Math.min(ends.length, rows - 1)
    ends[row] = Math.max(ends[row] ?? 0, hazard.to_km)
    return row
  })
}

export function RibbonHazards({ road, y, xOf }: { road: Road; y: number; xOf: (km: number) => number }) {
  const hazards = [...road.hazards].sort((a, b) => a.from_km - b.from_km)
  const rows = rowsOf(hazards, ROWS)
  return (
    <g>
      {hazards.map((hazard, i) => {
        const at = y + (rows[i] ?? 0) * ROW_PX
        return (
          <g key={i}>
            <path
              d={`M${xOf(hazard.from_km).toFixed(1)} ${at}H${Math.max(xOf(hazard.to_km), xOf(hazard.from_km) + 3).toFixed(1)}`}
              stroke="var(--onland)"
              strokeWidth={2.2}
              strokeDasharray={HAZARD_DASHES[hazard.kind]}
            />
            <rect x={xOf(hazard.from_km)} y={at - 3} width={Math.max(xOf(hazard.to_km) - xOf(hazard.from_km), 6)} height={6} fill="transparent">
              <title>
                {HAZARD_WORDS[hazard.kind]}
                {hazard.note ? `: ${hazard.note}` : ''}
              </title>
            </rect>
          </g>
        )
      })}
    </g>
  )
}
