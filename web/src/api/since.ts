/** An answer that tells only what is otherwise than its reader has it, put together with what the reader has. */
import type { components } from './schema'

type Otherwise = components['schemas']['Otherwise']
type Step = string | number

/** What is there, otherwise at some places; what did not change stays the very same object. */
export function otherwise<T>(had: T, changes: readonly Otherwise[]): T {
  return changes.reduce<unknown>((now, change) => put(now, change.at, 0, change), had) as T
}

function put(now: unknown, at: readonly Step[], depth: number, change: Otherwise): unknown {
  const step = at[depth]
  if (step === undefined) return change.items ? change.items.map((item) => (typeof item === 'number' ? entry(now, item) : item)) : change.to
  if (Array.isArray(now)) return now.map((value: unknown, i) => (i === step ? put(value, at, depth + 1, change) : value))
  const { [step]: there, ...rest } = now as Record<Step, unknown>
  if (depth === at.length - 1 && change.gone) return rest
  // Its place among the others is kept: some lists are drawn in the order of their names.
  return { ...(now as object), [step]: put(there, at, depth + 1, change) }
}

function entry(list: unknown, position: number): unknown {
  if (!Array.isArray(list) || position >= list.length) throw new Error(`an answer names entry ${position} of what is no such list`)
  return list[position]
}
