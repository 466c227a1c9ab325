import { useEffect } from 'react'
import { useNavigate } from 'react-router'
import { useDesk } from '../api/tour'
import { useFocus, useHand, useMoment } from '../instruments/moment'
import { usePreferences } from '../ui/preferences'
import type { LETTERS } from './Keys'
import { VIEWS } from './views'

/** Keys that work everywhere; single letters only where nothing is being typed, and only if the rider likes them. */
export function useKeys(showKeys: () => void) {
  const { step, assessment } = useDesk()
  const { letters, toggleTheme } = usePreferences()
  const { setInHand } = useHand()
  const { moment, setMoment } = useMoment()
  const { setCarrier } = useFocus()
  const navigate = useNavigate()
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = (e.target as Element).matches('input, textarea, select, [role=option], [role=menuitem]')
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z' && !typing) {
        e.preventDefault()
        step(e.shiftKey ? 'redo' : 'undo')
      } else if (e.altKey && /^[1-9]$/.test(e.key)) {
        const view = VIEWS[Number(e.key) - 1]
        if (view) {
          e.preventDefault()
          void navigate(view.path)
        }
      } else if (e.key === 'Escape') {
        setInHand([])
        setCarrier(null)
      } else if (letters && !typing && !e.ctrlKey && !e.metaKey && !e.altKey) {
        const moments = assessment.moments
        const events = moments ? moments.km.map((_, i) => i).filter((i) => moments.place[i] !== '' && moments.leaving[i]) : []
        const focus = (selector: string) => document.querySelector<HTMLElement>(selector)?.focus()
        const keys: Record<keyof typeof LETTERS, () => void> = {
          '[': () => setMoment(events.findLast((i) => i < moment) ?? 0),
          ']': () => setMoment(events.find((i) => i > moment) ?? moment),
          t: toggleTheme,
          s: () => focus('#shelf [data-thing]'),
          r: () => focus('[data-carrier]'),
          f: () => focus('#findings button'),
          '?': showKeys,
        }
        if (e.key in keys) keys[e.key as keyof typeof LETTERS]()
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [showKeys, step, letters, toggleTheme, navigate, setInHand, setCarrier, assessment.moments, moment, setMoment])
}
