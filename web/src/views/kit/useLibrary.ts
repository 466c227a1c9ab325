/** A rider's own things, found, taken along and changed; and what to tell of what was done. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { api, type Owned, Problem } from '../../api/client'
import { useDesk } from '../../api/tour'

export function useLibrary() {
  const { tour, sheet, ask } = useDesk()
  const queries = useQueryClient()
  const [typed, setTyped] = useState('')
  const [kit, setKit] = useState('')
  const [first, setFirst] = useState(0)
  const [told, setTold] = useState<string[]>([])
  const find = useDeferredValue(typed.trim())
  const { data, error } = useQuery({
    queryKey: ['library', find, kit, first, tour.id, tour.revision],
    queryFn: () => api.library(find, kit, first, tour.id),
    placeholderData: (before) => before,
  })
  const things = data?.things ?? []
  const here = new Set(sheet.kit.map((t) => t.library_id))
  const again = () => queries.invalidateQueries({ queryKey: ['library'] })
  /** Takes things along. */
  const take = (owned: Owned[], what: string) =>
    void ask(what, (id, revision) =>
      api.choose(
        id,
        revision,
        owned.map((o) => o.id),
      ),
    ).then(again)
  /** Tells what came of it; whether it was kept. */
  const tell = async (work: Promise<unknown>) => {
    try {
      const answer = await work
      const remarks = (answer as { remarks?: string[] } | undefined)?.remarks
      if (remarks) setTold(remarks)
      await again()
      await queries.invalidateQueries({ queryKey: ['tour'] })
      return true
    } catch (trouble) {
      setTold([trouble instanceof Problem ? `${trouble.body.detail} ${trouble.body.mend ?? ''}` : 'It was not kept.'])
      return false
    }
  }
  /** Keeps things of the tour here as well. */
  const put = (ids: string[]) => void ask('Keep things in the library', (id, revision) => api.putInLibrary(id, revision, ids)).then(again)
  return {
    ...{ data, error, told, tell, take, put, typed, kit, setKit, first, setFirst },
    find: (text: string) => {
      setTyped(text)
      setFirst(0)
    },
    home: things.filter((o) => !here.has(o.id)),
    along: things.filter((o) => here.has(o.id)),
    here: here.size - (here.has(null) ? 1 : 0),
    loose: sheet.kit.filter((t) => t.library_id === null),
    turned: { back: first > 0, on: data !== undefined && data.total > first + things.length },
  }
}

export type Library = ReturnType<typeof useLibrary>
