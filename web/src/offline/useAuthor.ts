/** Who notes things on this device: chosen there, else who the signed-in rider is on the tour. */
import { useEffect, useState } from 'react'
import { useCompany } from '../api/company'
import { useDesk } from '../api/tour'
import { keep, kept } from '../ui/kept'

export function useAuthor(): [string, (name: string) => void] {
  const { sheet } = useDesk()
  const { told } = useCompany()
  const [name, setName] = useState(() => kept('author') ?? '')
  const me = sheet.riders.find((rider) => rider.id === told?.is_rider)?.name ?? ''
  // Kept on the device, it holds where there is no network to ask.
  useEffect(() => {
    if (me && !kept('author')) keep('author', me)
  }, [me])
  const chosen = name || me
  const known = sheet.riders.some((r) => r.name === chosen) ? chosen : me || (sheet.riders[0]?.name ?? '')
  return [
    known,
    (next) => {
      keep('author', next)
      setName(next)
    },
  ]
}
