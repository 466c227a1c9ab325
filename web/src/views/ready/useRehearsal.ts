/** The tour played many times: what is kept of it, else played now and shown while it is refined. */
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type Rehearsal } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'

interface Rehearsed {
  told: Rehearsal
  /** How many plays there are to be. */
  wanted: number
  more: number
}

export function useRehearsal() {
  const { tour, assessment } = useDesk()
  const queries = useQueryClient()
  const [surer, setSurer] = useState(false)
  const about = surer ? ['surer'] : []
  const { data, error, isFetching } = useWorkedOut<Rehearsed | null>(
    'rehearsal',
    async (id, signal) => {
      const { rehearsal: kept, usual, more } = await api.keptRehearsal(id, signal)
      const wanted = surer ? more : usual
      const news = (told: Rehearsal): Rehearsed => ({ told, wanted: Math.max(wanted, told.plays), more })
      if (kept && kept.plays >= wanted) return news(kept)
      const show = (told: Rehearsal) => queries.setQueryData(['rehearsal', id, tour.revision, ...about], news(told))
      if (kept) show(kept)
      // What is kept is better than the first few of more plays.
      const answer = await api.rehearse(id, wanted, (told) => told.plays > (kept?.plays ?? 0) && show(told), signal)
      // Findings cite it from now on.
      if (answer) queries.setQueryData(['kept rehearsal', id, tour.revision], { rehearsal: answer, usual, more })
      return answer && news(answer)
    },
    { about, meanwhile: true, wanted: assessment.days.length > 0 },
  )
  return { data, error, playing: isFetching, surer: () => setSurer(true) }
}
