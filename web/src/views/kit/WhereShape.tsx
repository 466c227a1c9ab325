/** Where a thing is, by shape; each shape has its word. */
import type { Whereabouts } from '../../api/client'
import { HOW_WORDS } from './WhereFields'

const SHAPES: Record<Whereabouts['how'], string> = {
  packed: 'M8 3.2a4.8 4.8 0 1 0 0 9.6a4.8 4.8 0 1 0 0-9.6',
  pocket: 'M3 3.5h10v4.5a5 5 0 0 1-10 0zM3 6h10',
  worn: 'M5.5 2.8L2 5l1.4 2.6 1.4-.7v6.3h6.4V6.9l1.4.7L14 5l-3.5-2.2a2.6 2.6 0 0 1-5 0z',
  fixed: 'M1 8h3.5M11.5 8H15M4.5 4.5h7v7h-7z',
  posted: 'M2.5 4.5h11v7.5h-11zM5.5 8.2h5',
  waiting: 'M2.5 4.5h11v7.5h-11zM5.5 8.2h5',
  home: 'M8 3.2a4.8 4.8 0 1 0 0 9.6a4.8 4.8 0 1 0 0-9.6',
}

export function WhereShape({ how, size = 16 }: { how: Whereabouts['how']; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" fill="none" stroke="currentColor" strokeWidth={1.6} strokeLinejoin="round" aria-hidden="true">
      <path d={SHAPES[how]} strokeDasharray={how === 'home' ? '2.2 2' : undefined} />
    </svg>
  )
}

/** What each shape means. */
export function WhereLegend({ used }: { used: Whereabouts['how'][] }) {
  return (
    <>
      {(Object.keys(SHAPES) as Whereabouts['how'][])
        .filter((how) => used.includes(how))
        .map((how) => (
          <span key={how}>
            <WhereShape how={how} /> {HOW_WORDS[how]}
          </span>
        ))}
    </>
  )
}
