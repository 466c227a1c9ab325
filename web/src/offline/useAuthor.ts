/** Who notes things on this device. */
import { useState } from 'react'
import { useDesk } from '../api/tour'
import { keep, kept } from '../ui/kept'

export function useAuthor(): [string, (name: string) => void] {
  const { sheet } = useDesk()
  const [name, setName] = useState(() => kept('author') ?? '')
  const known = sheet.riders.some((r) => r.name === name) ? name : (sheet.riders[0]?.name ?? '')
  return [
    known,
    (next) => {
      keep('author', next)
      setName(next)
    },
  ]
}
