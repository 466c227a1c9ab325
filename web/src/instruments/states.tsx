/** What is to be said of a carrier, each state with a word and a shape of its own. */
import type { CarrierState } from '../api/client'

export const STATE_WORDS: Record<CarrierState, string> = {
  over: 'over its limit',
  too_full: 'too full',
  pressed: 'pressed',
  full: 'full',
  leaks: 'leaks',
  improvised: 'tied on',
  pinned: 'pinned',
}

/** In a box of 14: a weight on a bending line, a lid that stands up, arrows that press, a brim, a crossed drop, a knot, a pin. */
const SHAPES: Record<CarrierState, string> = {
  over: 'M4.5 2.5h5v4h-5zM2 8c2 3.6 8 3.6 10 0',
  too_full: 'M2.5 7.5v4.5h9V7.5M2.5 6L11 2.5M5 9.5h4',
  pressed: 'M7 1.5v3.5M5.2 3.6L7 5.4l1.8-1.8M7 12.5V9M5.2 10.4L7 8.6l1.8 1.8M2.5 7h9',
  full: 'M2.5 3v9h9V3M2.5 4.5h9M2.5 7h9M2.5 9.5h9',
  leaks: 'M7 2.2C4.6 5.4 3.8 6.8 3.8 8.4a3.2 3.2 0 0 0 6.4 0C10.2 6.8 9.4 5.4 7 2.2zM2 12L12 3',
  improvised: 'M2 10c3-8 7-8 10 0M2 4c3 8 7 8 10 0',
  pinned: 'M5 2h4M5.6 2v4L3.8 8.4h6.4L8.4 6V2M7 8.4v4',
}
const SIZE = 16

export const statesInWords = (states: CarrierState[]): string => states.map((s) => STATE_WORDS[s]).join(', ')

/** The shapes in a row from a point, each on a plate. */
export function StateMarks({ states, x, y }: { states: CarrierState[]; x: number; y: number }) {
  return (
    <g>
      {states.map((state, i) => (
        <g key={state} transform={`translate(${(x + i * (SIZE + 1)).toFixed(1)} ${y.toFixed(1)})`}>
          <title>{STATE_WORDS[state]}</title>
          <rect width={SIZE} height={SIZE} rx={2} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1} />
          <path
            d={SHAPES[state]}
            transform="translate(1 1)"
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.5}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        </g>
      ))}
    </g>
  )
}
