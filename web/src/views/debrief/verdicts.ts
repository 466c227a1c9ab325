/** Verdicts in words. */
import type { ThingStory } from '../../api/client'

export const VERDICTS: Record<
  Exclude<
    NonNullable<ThingStory['verdict']>,
    'good' | 'wet' | 'too_small' | 'sways' | 'hard_to_reach' | 'too_cold' | 'too_wet' | 'ran_out' | 'too_much_left' | 'too_slow'
  >,
  string
> = {
  daily: 'Daily',
  some_days: 'Some days',
  never: 'Never',
  insurance: 'Insurance',
  wrong_one: 'The wrong one',
  wore_out: 'Wore out',
  broke: 'Broke',
  lost: 'Lost',
  given_away: 'Given away',
  wished_for: 'Wished for',
  bought: 'Bought on the road',
}
/** Those that one touch says; the others are in the menu. */
export const FIRST = ['daily', 'some_days', 'never'] as const
/** What else can be said of a thing that warms. */
export const OF_WARMTH = { too_cold: 'Too cold' }
export const OF_BAGS = { good: 'Good', wet: 'Let water in', too_small: 'Too small', sways: 'Swayed', hard_to_reach: 'Hard to reach' }
export const OF_RULES = { too_cold: 'Too cold', too_wet: 'Too wet', ran_out: 'Ran out', too_much_left: 'Too much left', too_slow: 'Too slow' }
