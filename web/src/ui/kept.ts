/** What this machine remembers between visits. */
import { useState } from 'react'

export function kept(key: string): string | null {
  try {
    return localStorage.getItem(key)
  } catch {
    return null
  }
}

export function keep(key: string, value: string) {
  try {
    localStorage.setItem(key, value)
  } catch {
    /* private windows may refuse; the choice then lasts until the page closes */
  }
}

/** A set of words that outlasts the page, one a key. */
export function useKeptSet(key: string): [ReadonlySet<string>, (next: ReadonlySet<string>) => void] {
  const [words, setWords] = useState<ReadonlySet<string>>(() => new Set((kept(key) ?? '').split('\n').filter(Boolean)))
  return [
    words,
    (next) => {
      keep(key, [...next].join('\n'))
      setWords(next)
    },
  ]
}
