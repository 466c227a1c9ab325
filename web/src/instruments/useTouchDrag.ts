/** Dragging with a finger: a tag held for a moment follows it, and is dropped where the finger lifts. */
import { type RefObject, useEffect, useRef } from 'react'

const HOLD_MS = 220
const WANDER_PX = 9

/** The carrier under a point, or null for the shelf; undefined where nothing takes things. */
function targetAt(x: number, y: number): { id: string | null; element: Element } | undefined {
  const under = document.elementFromPoint(x, y)
  const carrier = under?.closest<HTMLElement>('[data-carrier]')
  if (carrier) return { id: carrier.dataset.carrier ?? null, element: carrier }
  const shelf = under?.closest('[data-shelf]')
  return shelf ? { id: null, element: shelf } : undefined
}

export function useTouchDrag(tag: RefObject<HTMLElement | null>, onPick: () => void, onDrop: (to: string | null) => void) {
  const latest = useRef({ onPick, onDrop })
  useEffect(() => {
    latest.current = { onPick, onDrop }
  })
  useEffect(() => {
    const element = tag.current
    if (!element) return
    let timer = 0
    let from = { x: 0, y: 0 }
    let ghost: HTMLElement | null = null
    let over: Element | null = null
    const aim = (next: Element | null) => {
      over?.removeAttribute('data-over')
      next?.setAttribute('data-over', '')
      over = next
    }
    const follow = (touch: Touch) => {
      if (ghost) ghost.style.transform = `translate(${touch.clientX - ghost.offsetWidth / 2}px, ${touch.clientY - 64}px)`
    }
    const end = () => {
      window.clearTimeout(timer)
      ghost?.remove()
      ghost = null
      aim(null)
    }
    const start = (e: TouchEvent) => {
      const touch = e.touches[0]
      if (e.touches.length !== 1 || !touch) return end()
      from = { x: touch.clientX, y: touch.clientY }
      timer = window.setTimeout(() => {
        ghost = element.cloneNode(true) as HTMLElement
        ghost.setAttribute('aria-hidden', 'true')
        Object.assign(ghost.style, {
          position: 'fixed',
          left: '0',
          top: '0',
          width: '220px',
          pointerEvents: 'none',
          zIndex: '20',
        })
        document.body.append(ghost)
        follow(touch)
        latest.current.onPick()
      }, HOLD_MS)
    }
    const wander = (e: TouchEvent) => {
      const touch = e.touches[0]
      if (!touch) return
      if (ghost) {
        e.preventDefault()
        follow(touch)
        aim(targetAt(touch.clientX, touch.clientY)?.element ?? null)
      } else if (Math.hypot(touch.clientX - from.x, touch.clientY - from.y) > WANDER_PX) {
        end()
      }
    }
    const lift = (e: TouchEvent) => {
      const touch = e.changedTouches[0]
      const dragged = ghost !== null
      end()
      if (!dragged || !touch) return
      e.preventDefault()
      const target = targetAt(touch.clientX, touch.clientY)
      if (target) latest.current.onDrop(target.id)
    }
    element.addEventListener('touchstart', start, { passive: true })
    element.addEventListener('touchmove', wander, { passive: false })
    element.addEventListener('touchend', lift)
    element.addEventListener('touchcancel', end)
    return () => {
      end()
      element.removeEventListener('touchstart', start)
      element.removeEventListener('touchmove', wander)
      element.removeEventListener('touchend', lift)
      element.removeEventListener('touchcancel', end)
    }
  }, [tag])
}
