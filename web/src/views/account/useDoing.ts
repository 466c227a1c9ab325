/** One thing at a time that is asked of the server, and what came of it in words. */
import { useState } from 'react'
import { Problem } from '../../api/client'

export function useDoing() {
  const [trouble, setTrouble] = useState('')
  const [told, setTold] = useState('')
  const [busy, setBusy] = useState(false)
  const run = async (what: () => Promise<unknown>) => {
    setTrouble('')
    setTold('')
    setBusy(true)
    try {
      const words = await what()
      setTold(typeof words === 'string' ? words : '')
    } catch (error) {
      // A browser that asks for a passkey says in its own words why there is none.
      const { detail, mend = '' } = error instanceof Problem ? error.body : { detail: error instanceof Error ? error.message : String(error) }
      setTrouble(`${detail}${/[.!?]$/.test(detail) ? '' : '.'} ${mend}`.trim())
    } finally {
      setBusy(false)
    }
  }
  return { trouble, told, busy, run: (what: () => Promise<unknown>) => void run(what) }
}
