import { type RefCallback, useLayoutEffect, useState } from 'react'

/** Gives an element its measure: a ref to hang on it, and its size in pixels, whenever it comes and however it changes. */
export function useSize<T extends Element>(): [RefCallback<T>, { width: number; height: number }] {
  const [element, setElement] = useState<T | null>(null)
  const [size, setSize] = useState({ width: 0, height: 0 })
  useLayoutEffect(() => {
    if (!element) return
    const read = () => {
      const box = element.getBoundingClientRect()
      setSize({ width: Math.round(box.width), height: Math.round(box.height) })
    }
    read()
    const observer = new ResizeObserver(read)
    observer.observe(element)
    return () => observer.disconnect()
  }, [element])
  return [setElement, size]
}
