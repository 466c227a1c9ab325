/** Keeps the focus where the hand is: when what had it is gone after a change, what stands in its place gets it. */
import { useEffect, useRef } from 'react'

const FOCUSABLE = 'a[href], button:not([disabled]), input:not([disabled]), select, textarea, [tabindex="0"]'
const HIDDEN = '[aria-hidden="true"], [inert]'

interface Held {
  element: Element
  /** Around it from the nearest outwards, each with which of its focusable elements it is. */
  around: { ancestor: Element; at: number }[]
}

const focusables = (within: Element) => [...within.querySelectorAll<HTMLElement>(FOCUSABLE)].filter((e) => !e.closest(HIDDEN))

function holding(element: Element): Held {
  const around: Held['around'] = []
  // In the order of the page those within an ancestor stand together: the first of them lies so far before it.
  const all = focusables(document.body)
  const own = all.indexOf(element as HTMLElement)
  let first = own
  for (let ancestor = element.parentElement; ancestor && ancestor.tagName !== 'BODY'; ancestor = ancestor.parentElement) {
    while (first > 0 && ancestor.contains(all[first - 1] ?? null)) first -= 1
    around.push({ ancestor, at: own - first })
  }
  return { element, around }
}

/** Looks after each change of a value, once the page stands, whether the focus has fallen off it. */
export function useFocusKept(changed: unknown) {
  const held = useRef<Held | null>(null)
  useEffect(() => {
    const note = (e: FocusEvent) => {
      const element = e.target as Element
      if (element.closest('main') && !element.closest('[role=dialog], [role=menu], [role=listbox]')) held.current = holding(element)
    }
    document.addEventListener('focusin', note)
    return () => document.removeEventListener('focusin', note)
  }, [])
  useEffect(() => {
    const look = () => {
      const last = held.current
      if (!last || last.element.isConnected || document.activeElement !== document.body) return
      for (const { ancestor, at } of last.around) {
        if (!ancestor.isConnected) continue
        const there = focusables(ancestor)
        const next = there[Math.min(Math.max(at, 0), there.length - 1)]
        if (next) return next.focus()
      }
    }
    // A menu gives the focus back only after it has closed.
    const timer = window.setTimeout(look, 60)
    return () => window.clearTimeout(timer)
  }, [changed])
}
