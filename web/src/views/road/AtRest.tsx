/** Tables that follow the playhead once it has come to rest: a step of it does not draw the whole view anew. */
import { type ComponentProps, useEffect, useState } from 'react'
import type { Road, Stop } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useMoment } from '../../instruments/moment'
import { DaysTable } from './DaysTable'
import { StopsTable } from './StopsTable'

const REST_MS = 120

/** Where the playhead has come to rest, for what need not follow every step of it. */
function useResting() {
  const { assessment } = useDesk()
  const { moment } = useMoment()
  const [at, setAt] = useState(moment)
  useEffect(() => {
    const timer = window.setTimeout(() => setAt(moment), REST_MS)
    return () => window.clearTimeout(timer)
  }, [moment])
  return { km: assessment.moments?.km[at] ?? 0, day: assessment.moments?.day[at] ?? 1 }
}

export function StopsHere({ stops, onChange }: { stops: Stop[]; onChange: ComponentProps<typeof StopsTable>['onChange'] }) {
  return <StopsTable stops={stops} at={useResting().km} onChange={onChange} />
}

export function DaysHere({ road }: { road: Road }) {
  return <DaysTable road={road} now={useResting().day} />
}
