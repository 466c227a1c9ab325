/** What is said of keeping or leaving a thing, in words, and in which order it is worth looking at. */
import type { Ranking } from '../../api/client'

export type Verdict = Ranking['things'][number]['verdict']

export const VERDICT_WORDS: Record<Verdict, string> = {
  probably_not: 'probably not',
  post_home: 'post it home',
  post_ahead: 'post it ahead',
  buy_there: 'buy it there',
  comfort: 'comfort',
  insurance: 'insurance',
  comes: 'comes',
  must_come: 'must come',
  not_said: 'nobody said what for',
}
export const VERDICTS = Object.keys(VERDICT_WORDS) as Verdict[]
