/** Icons: 20 px box, round ends; the five moments of use stand on one ground line. */
const PATHS = {
  riding: 'M8 4.4a5.6 5.6 0 1 0 0 11.2a5.6 5.6 0 1 0 0-11.2M15.5 7l3 3-3 3M1.5 17.5h17',
  stop: 'M7 3.5v10.5M13 3.5v10.5M6.4 3.5v10.5M13.6 3.5v10.5M1.5 17.5h17',
  camp: 'M2.5 15L10 3l7.5 12M10 9.5L6.8 15h6.4zM1.5 17.5h17',
  night: 'M13.5 12.2A6 6 0 0 1 8 3.2a6 6 0 1 0 7.4 7.6 5 5 0 0 1-1.9 1.4zM1.5 17.5h17',
  breaks: 'M8.5 3.2A6 6 0 0 0 8 14.6M11.5 3.2A6 6 0 0 1 12 14.6M9 6l2 2.4-2 1.6 1.6 2.4M1.5 17.5h17',
  sun: 'M10 6.4a3.6 3.6 0 1 0 0 7.2a3.6 3.6 0 1 0 0-7.2M10 1.8v2M10 16.2v2M1.8 10h2M16.2 10h2M4.2 4.2l1.4 1.4M14.4 14.4l1.4 1.4M15.8 4.2l-1.4 1.4M5.6 14.4l-1.4 1.4',
  moon: 'M16.5 12.4A7.2 7.2 0 0 1 7.6 3.5a7.2 7.2 0 1 0 8.9 8.9z',
  undo: 'M4 8h8.2a4.3 4.3 0 0 1 0 8.6H8M4 8l3.6-3.6M4 8l3.6 3.6',
  redo: 'M16 8H7.8a4.3 4.3 0 0 0 0 8.6H12M16 8l-3.6-3.6M16 8l-3.6 3.6',
  more: 'M3 6h14M3 10h14M3 14h14',
  left: 'M13 4l-6 6 6 6',
  right: 'M7 4l6 6-6 6',
  down: 'M4 7l6 6 6-6',
  flip: 'M3 7h12l-3-3M17 13H5l3 3',
  rider: 'M11.8 1.6a2 2 0 1 0 0 4a2 2 0 1 0 0-4M4 13.2L8.6 7.4l3.2 3.2 4.4.2M1.5 17.5h17',
  plus: 'M10 4v12M4 10h12',
  tick: 'M3.5 10.5l4.5 4.5 8.5-10',
  pin: 'M7 3h6M8 3v6l-2.5 3h9L12 9V3M10 12v5.5',
  pack: 'M4 7h12l-1 10.5H5zM6 7l1-3.5h6L14 7M4.5 12h11',
  load: 'M4.6 10.4a3.2 3.2 0 1 0 0 6.4a3.2 3.2 0 1 0 0-6.4M15.4 10.4a3.2 3.2 0 1 0 0 6.4a3.2 3.2 0 1 0 0-6.4M4.6 13.6L8 7h5.6l1.8 6.6M2 8h4.4',
  road: 'M2 16V9l3.5 3V6l4 4V4l8.5 9v3z',
  kit: 'M3 5h14M3 10h14M3 15h9',
  stores: 'M6 2.5h8M7 2.5v3L4.5 8.5V17h11V8.5L13 5.5v-3M4.5 11.5h11',
  diary: 'M5 2.5h11v15H5zM5 2.5v15M3.5 6h3M3.5 10h3M3.5 14h3M9 7h4.5M9 10h4.5',
  debrief: 'M4 17V6l6-3.5L16 6v11M4 11h12M10 2.5V17',
  print: 'M6 7V3h8v4M6 14H3.5V7h13v7H14M6 11.5h8V17H6z',
} as const

export type IconName = keyof typeof PATHS

export function Icon({ name, size = 20 }: { name: IconName; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.75}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
      focusable="false"
    >
      <path d={PATHS[name]} />
    </svg>
  )
}

export function Mark({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 26 26" aria-hidden="true">
      <circle cx="13" cy="10.5" r="7.6" fill="none" stroke="currentColor" strokeWidth="3.4" />
      <path d="M13 10.5V22M2 24.2h22" stroke="currentColor" strokeWidth="2.2" />
      <path d="M13 18.2l3 5.2h-6z" fill="currentColor" />
    </svg>
  )
}

/** Steepness: how bad a finding is, by slope, fill and word. */
export function Wedge({ grade, size = 22 }: { grade: 'stops_you' | 'slows_you' | 'worth_knowing'; size?: number }) {
  const rise = { stops_you: 0.92, slows_you: 0.63, worth_knowing: 0.35 }[grade]
  const fill = { stops_you: 'var(--ink)', slows_you: 'url(#hatch)', worth_knowing: 'none' }[grade]
  return (
    <svg width={size} height={size} viewBox={`-1 ${1 - size} ${size} ${size}`} aria-hidden="true">
      <path d={`M0 0H${size - 3}V${-rise * (size - 3)}Z`} fill={fill} stroke="var(--ink)" strokeWidth={1.6} strokeLinejoin="round" />
    </svg>
  )
}

/** Of one, and of several. */
export const GRADES_COUNTED = {
  stops_you: ['stops you', 'stop you'],
  slows_you: ['slows you', 'slow you'],
  worth_knowing: ['worth knowing', 'worth knowing'],
} as const
export const GRADE_WORDS = { stops_you: 'stops you', slows_you: 'slows you', worth_knowing: 'worth knowing' } as const
export const REACH_WORDS = {
  riding: 'Reach while riding',
  stop: 'At a stop',
  camp: 'On arrival in camp',
  night: 'Overnight',
  breaks: 'Only if something breaks',
} as const

/** Textures of the materials, once a page. */
export function Textures() {
  return (
    <svg width="0" height="0" aria-hidden="true" className="unseen">
      <defs>
        <pattern id="water" width="10" height="5" patternUnits="userSpaceOnUse">
          <rect width="10" height="5" fill="var(--water-t)" />
          <rect y="1.5" width="10" height="1.8" fill="var(--water)" />
        </pattern>
        <pattern id="food" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" fill="var(--food-t)" />
          <rect width="2" height="6" fill="var(--food)" />
        </pattern>
        <pattern id="fuel" width="6" height="6" patternUnits="userSpaceOnUse">
          <rect width="6" height="6" fill="var(--fuel-t)" />
          <circle cx="1.5" cy="1.5" r="1.35" fill="var(--fuel)" />
          <circle cx="4.5" cy="4.5" r="1.35" fill="var(--fuel)" />
        </pattern>
        <pattern id="kit" width="8" height="8" patternUnits="userSpaceOnUse">
          <rect width="8" height="8" fill="var(--kit-t)" />
        </pattern>
        <pattern id="power" width="7" height="7" patternUnits="userSpaceOnUse">
          <rect width="7" height="7" fill="var(--power-t)" />
          <path d="M3.5 1V6M1 3.5H6" stroke="var(--power)" strokeWidth="1.4" />
        </pattern>
        <pattern id="over" width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" fill="var(--tag)" />
          <path d="M0 0L5 5M5 0L0 5" stroke="var(--ink)" strokeWidth="1" />
        </pattern>
        <pattern id="hatch" width="3.4" height="3.4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="3.4" height="3.4" fill="var(--tag)" />
          <rect width="1.7" height="3.4" fill="var(--ink)" />
        </pattern>
      </defs>
    </svg>
  )
}

/** Which of several is chosen, for the eye; `aria-pressed` says it to the ear, and state is no part of a name. */
export const Dot = ({ on }: { on: boolean }) => (
  <span aria-hidden="true">
    {on ? '●' : '○'}
    {'\u00a0'}
  </span>
)
