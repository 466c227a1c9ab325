/** Stops of which something is guessed by their size or taken from a map: what a rider says of one is neither any more. */
import { STOP_FIELDS } from '../../api/bounds'
import type { Stop } from '../../api/client'

type Part = Stop['guessed'][number]

/** A stop of which a part is said. */
export function said(stop: Stop, part: Partial<Stop>): Stop {
  const isSaid = (one: Part) => STOP_FIELDS[one].some((field) => field in part && JSON.stringify(part[field]) !== JSON.stringify(stop[field]))
  const left = (parts: Part[]) => parts.filter((one) => !isSaid(one))
  return { ...stop, ...part, guessed: left(stop.guessed), mapped: stop.mapped && { ...stop.mapped, parts: left(stop.mapped.parts) } }
}

/** What stands before a guess. */
export const about = (stop: Stop, part: Part) => (stop.guessed.includes(part) ? '~ ' : '')
