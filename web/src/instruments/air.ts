/** How figures of the air are told: nobody said what the weather is, so they are guesses. */
import type { Assessment } from '../api/client'

export const airIsGuessed = ({ climate }: Pick<Assessment, 'climate'>) => climate !== null && !climate.known
/** What stands before such a figure. */
export const aboutAir = (assessment: Pick<Assessment, 'climate'>) => (airIsGuessed(assessment) ? '~ ' : '')
