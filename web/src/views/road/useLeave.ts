/** Another first day, tried like a mend. */
import type { Mend } from '../../api/client'
import { useTrial } from '../../api/tour'
import { shortDate } from '../../ui/dates'

const said = (words: string) => ({ words, figures: {}, names: {} })
const NOTHING_ELSE = { moves: [], food: null, things: [], gone: [], stores: null, carriers: [], stops: [], nights: null, starts: [], cut: null }

export function useLeave() {
  const { trial, attempt } = useTrial()
  const leave = (start_date: string, words = '') => {
    const mend: Mend = {
      ...NOTHING_ELSE,
      name: said(`Leave ${words}${words && ', '}on ${shortDate(start_date)}`),
      consequence: said('other weather, other light, other seasons of water and shops'),
      start_date,
    }
    return attempt(mend, mend.name.words)
  }
  return { leave, trial: trial?.mend.start_date && trial.name.startsWith('Leave ') ? trial : null }
}
