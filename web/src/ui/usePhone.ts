import { useSyncExternalStore } from 'react'
import { phone } from './theme'

const query = window.matchMedia(phone.replace('@media ', ''))

function listen(changed: () => void) {
  query.addEventListener('change', changed)
  return () => query.removeEventListener('change', changed)
}

/** Whether the window is as narrow as a phone, where less is drawn, not only drawn smaller. */
export const usePhone = (): boolean => useSyncExternalStore(listen, () => query.matches)
