/** Who notes things on this device: chosen there, else who the signed-in rider is on the tour. */
import { useState } from 'react'
import { useCompany } from '../api/company'
import { useDesk } from '../api/tour'
import { keep, kept } from '../ui/kept'

export function useAuthor(): [string, (name: string) => void] {
  const { sheet } = useDesk()
  const { told } = useCompany()
  const [name, setName] = useState(() => kept('author') ?? '')
  const me = sheet.riders.find((r) => r.id === told?.is_rider) ?? sheet.riders[0]
  const known = sheet.riders.some((r) => r.name === name) ? name : (me?.name ?? '')
  return [
    known,
    (next) => {
      keep('author', next)
      setName(next)
    },
  ]
}
