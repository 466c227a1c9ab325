import { useEffect, useState } from 'react'
import { flushSync } from 'react-dom'

/** Whether the page is being printed. */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false)
  useEffect(() => {
    const whole = (now: boolean) => () => flushSync(() => setPrinting(now))
    const [before, after] = [whole(true), whole(false)]
    window.addEventListener('beforeprint', before)
    window.addEventListener('afterprint', after)
    return () => {
      window.removeEventListener('beforeprint', before)
      window.removeEventListener('afterprint', after)
    }
  }, [])
  return printing
}
