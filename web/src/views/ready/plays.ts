/** How plays are counted and told. */
import type { Counted, RehearsedOutcome } from '../../api/client'
import type { useUnits } from '../../ui/preferences'

const percent = (share: number) => `${Math.round(share * 100)}`

/** How many of how many, and between which shares that lies. */
export const countedWords = (counted: Counted) =>
  `${counted.count} of ${counted.of} (${counted.count === 0 ? `up to ${percent(counted.high)}` : counted.count === counted.of ? `at least ${percent(counted.low)}` : `${percent(counted.low)} to ${percent(counted.high)}`} %)`

/** How bad it was, with what is counted. */
export function badWords(value: number, outcome: Pick<RehearsedOutcome, 'quantity' | 'noun'>, units: ReturnType<typeof useUnits>) {
  if (outcome.quantity !== 'count') return units.show(value, outcome.quantity, outcome.quantity === 'hours' && value >= 10 ? 0 : undefined)
  const noun = value === 1 ? outcome.noun.replace(/s$/, '') : outcome.noun
  return `${units.show(value, 'count')} ${noun}`
}
