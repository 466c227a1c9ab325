/** Another first day, tried like a mend. */
import type { Mend } from '../../api/client'
import { useTrial } from '../../api/tour'
import { shortDate } from '../../ui/dates'

/** Words without figures. */
export const plain = (words: string) => ({ words, figures: {}, names: {} })
/** A change that changes nothing. */
export const nothingElse = {
  moves: [],
  food: null,
  things: [],
  gone: [],
  stores: null,
  carriers: [],
  parts: [],
  stops: [],
  nights: null,
  starts: [],
  cut: null,
  start_date: null,
}

export function useLeave() {
  const { trial, attempt } = useTrial()
  const leave = (start_date: string, words = '') => {
    const mend: Mend = {
      ...nothingElse,
      name: plain(`Leave ${words}${words && ', '}on ${shortDate(start_date)}`),
      consequence: plain('other weather, other light, other seasons of water and shops'),
      start_date,
    }
    return attempt(mend, mend.name.words)
  }
  return { leave, trial: trial?.mend.start_date && trial.name.startsWith('Leave ') ? trial : null }
}
