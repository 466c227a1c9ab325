/** Whether the window is as narrow as the theme's media queries say. */
import { useSyncExternalStore } from 'react'
import { low, narrow, phone, veryLow } from './theme'

function watching(media: string): () => boolean {
  const query = window.matchMedia(media.replace('@media ', ''))
  const listen = (tell: () => void) => {
    query.addEventListener('change', tell)
    return () => query.removeEventListener('change', tell)
  }
  return () => useSyncExternalStore(listen, () => query.matches)
}

export const usePhone = watching(phone)
export const useNarrow = watching(narrow)

const useLow = watching(low)
const useVeryLow = watching(veryLow)

/** How much height there is. */
export function useHeight(): 'least' | 'low' | 'enough' {
  const [isLow, isVeryLow] = [useLow(), useVeryLow()]
  return isVeryLow ? 'least' : isLow ? 'low' : 'enough'
}
