/** Whether what is shown came from the server just now, or from what this device kept of it. */
import { useSyncExternalStore } from 'react'

let fromMemory = false
const listeners = new Set<() => void>()

/** Told by whoever talks to the network, after each answer. */
export function answered(memory: boolean): void {
  if (memory === fromMemory) return
  fromMemory = memory
  for (const listen of listeners) listen()
}

export function useFromMemory(): boolean {
  return useSyncExternalStore(
    (then) => {
      listeners.add(then)
      return () => void listeners.delete(then)
    },
    () => fromMemory,
  )
}
