/** How often a finding's trouble came in the rehearsal of the tour as it stands, where there is one. */
import type { Counted, Finding } from '../api/client'
import { api } from '../api/client'
import { useWorkedOut } from '../api/workedOut'
import { Muted } from '../ui/controls'

const inWords = (counted: Counted) => `${counted.count} of ${counted.of}`

export function InPlays({ finding }: { finding: Finding }) {
  const { data } = useWorkedOut('kept rehearsal', api.keptRehearsal)
  const told = data?.rehearsal
  const outcome = told?.outcomes.find((one) => one.speaks_to.includes(finding.kind))
  if (!told || !outcome) return null
  const at = finding.at_km
  const here =
    at === null ? undefined : told.gaps.find((gap) => gap.supply === outcome.supply && gap.place.from_km <= at + 0.1 && at < gap.place.to_km)
  return (
    <Muted>
      Rehearsed: {outcome.name.toLowerCase()} in {here ? `${inWords(here.place.counted)} plays here, ` : ''}
      {inWords(outcome.counted)} anywhere.
    </Muted>
  )
}
