/** Stops of which something is guessed by their size: what a rider says of one is no guess any more. */
import type { Stop } from '../../api/client'

/** A stop of which a part is said. */
export const said = (stop: Stop, part: Partial<Stop>): Stop => ({
  ...stop,
  ...part,
  guessed: stop.guessed.filter((one) => !(one in part) || JSON.stringify(part[one]) === JSON.stringify(stop[one])),
})

/** What stands before a guess. */
export const about = (stop: Stop, part: Stop['guessed'][number]) => (stop.guessed.includes(part) ? '~ ' : '')
