/** Pointers on the ribbon: one moves the playhead or paints a stretch, two pinch to show more or fewer days. */
import { type PointerEvent, useRef, useState } from 'react'

interface Hooks {
  onMove: (x: number) => void
  onZoom: (times: number) => void
  /** Where given, a drag marks a stretch instead of moving the playhead. */
  onStretch?: (fromX: number, toX: number) => void
}

const PINCHED = 1.35

export function useRibbonPointer({ onMove, onZoom, onStretch }: Hooks) {
  const touching = useRef(new Map<number, number>())
  const pinch = useRef(0)
  const [held, setHeld] = useState<{ from: number; to: number } | null>(null)
  const at = (event: PointerEvent<HTMLElement>) => event.clientX - event.currentTarget.getBoundingClientRect().left
  const spread = () => {
    const [a = 0, b = 0] = [...touching.current.values()]
    return Math.max(Math.abs(a - b), 1)
  }
  const end = (event: PointerEvent<HTMLElement>, kept: boolean) => {
    touching.current.delete(event.pointerId)
    if (held && kept && Math.abs(held.to - held.from) > 2) onStretch?.(Math.min(held.from, held.to), Math.max(held.from, held.to))
    setHeld(null)
  }
  return {
    held: onStretch ? held : null,
    handlers: {
      onPointerDown: (event: PointerEvent<HTMLElement>) => {
        if ((event.target as Element).closest('button, [data-mark]')) return
        event.currentTarget.setPointerCapture(event.pointerId)
        touching.current.set(event.pointerId, at(event))
        if (touching.current.size === 2) {
          pinch.current = spread()
          setHeld(null)
          return
        }
        setHeld({ from: at(event), to: at(event) })
        if (!onStretch) onMove(at(event))
      },
      onPointerMove: (event: PointerEvent<HTMLElement>) => {
        if (!touching.current.has(event.pointerId)) return
        touching.current.set(event.pointerId, at(event))
        if (touching.current.size === 2) {
          const times = pinch.current / spread()
          if (times > PINCHED || times < 1 / PINCHED) {
            pinch.current = spread()
            onZoom(times)
          }
        } else if (held) {
          setHeld({ ...held, to: at(event) })
          if (!onStretch) onMove(at(event))
        }
      },
      onPointerUp: (event: PointerEvent<HTMLElement>) => end(event, true),
      onPointerCancel: (event: PointerEvent<HTMLElement>) => end(event, false),
    },
  }
}
