/** What a ridden tour taught, what was judged, and handing it on to another tour. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type Debrief, Problem } from '../../api/client'
import { useDesk } from '../../api/tour'
import { note, useWaiting } from '../../offline/queue'
import { useAuthor } from '../../offline/useAuthor'

export function useDebrief() {
  const { tour } = useDesk()
  const queries = useQueryClient()
  const { waiting } = useWaiting()
  const [author] = useAuthor()
  const [said, setSaid] = useState<{ words: string; trouble: boolean } | null>(null)
  const { data: tours } = useQuery({ queryKey: ['tours'], queryFn: api.tours })
  const others = (tours?.tours ?? []).filter((t) => t.id !== tour.id)
  const [into, setInto] = useState('')
  const target = others.find((t) => t.id === into) ?? others[0]
  const key = ['debrief', tour.id, target?.id ?? '', target?.revision ?? 0]
  const { data, error } = useQuery({ queryKey: key, queryFn: () => api.debrief(tour.id, target?.id ?? ''), placeholderData: (before) => before })
  const judge = (about: string, word: string) => void note(tour.id, { verb: 'verdict', about, word, author })
  const tell = async (call: () => Promise<{ remarks: string[] }>) => {
    try {
      const { remarks } = await call()
      setSaid({ words: remarks.join(' '), trouble: false })
      await Promise.all([
        queries.invalidateQueries({ queryKey: ['tours'] }),
        queries.invalidateQueries({ queryKey: ['tour'] }),
        queries.invalidateQueries({ queryKey: ['glance'] }),
      ])
    } catch (e) {
      setSaid({ words: e instanceof Problem ? `${e.body.detail}. ${e.body.mend ?? ''}` : String(e), trouble: true })
    }
  }
  // A verdict on its way holds here already.
  const pending = new Map(waiting.filter((w) => w.tour === tour.id && w.entry.verb === 'verdict').map((w) => [w.entry.about, w.entry.word]))
  const verdictOf = (about: string) => pending.get(about) ?? data?.lessons.find((l) => l.about === about)?.verdict ?? ''
  return { told: data, error, others, target, setInto, said, setSaid, judge, tell, pending, verdictOf }
}

/** A debrief of which something is told. */
export type Debriefing = ReturnType<typeof useDebrief> & { told: Debrief }
