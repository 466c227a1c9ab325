/** Where the party is or was moved to, and how something is noted there. */
import { useState } from 'react'
import { api, type Now } from '../../api/client'
import { useDesk } from '../../api/tour'
import type { Draft } from '../../offline/queue'
import type { Diary } from './useDiary'

/** Noted before leaving and after coming home: seen under Pack and Debrief. */
export const AT_HOME = ['weighed', 'checked', 'verdict']

export function useToday(diary: Diary, now: Now) {
  const { sheet, tour } = useDesk()
  const [moved, setMoved] = useState<number | null>(null)
  const [trouble, setTrouble] = useState('')
  const km = moved ?? now.at_km
  const gone = new Set(Object.keys(now.gone))
  for (const one of diary.entries)
    if (one.state === 'waiting' && ['sent_home', 'lost', 'given_away'].includes(one.entry.verb)) gone.add(one.entry.about)
  /** Note it all where the party is; whether this device kept it. */
  const note = async (drafts: Draft[], picture?: Blob) => {
    setTrouble('')
    try {
      for (const [i, draft] of drafts.entries()) await diary.note({ km, ...draft }, i === 0 ? picture : undefined)
      return true
    } catch (e) {
      setTrouble(`This device could not keep it: ${e instanceof Error ? e.message : String(e)}. Note it on paper, and free some room.`)
      return false
    }
  }
  const lay = (file: File) =>
    void api.layTrack(tour.id, file).then(
      (laid) => {
        setMoved(laid.km)
        setTrouble('')
      },
      (e: unknown) => setTrouble(e instanceof Error ? e.message : String(e)),
    )
  const last = diary.entries.findLast((one) => !AT_HOME.includes(one.entry.verb))
  return { sheet, diary, now, km, moved, setMoved, trouble, gone, last, note, lay, road: now.days.length > 0 }
}

export type Today = ReturnType<typeof useToday>
