/** The plan against the best there is, proven meanwhile, and against filling up everywhere. */
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, type Schedule } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { useUnits } from '../../ui/preferences'
import { Button } from '../../ui/controls'

const Words = styled.p`
  flex: 1 1 320px;
  min-height: 48px; /* three lines, so that nothing below moves when the proof comes */
  font-size: var(--size-small);
  font-stretch: var(--width-text);
  line-height: 16px;
  b {
    font-weight: 700;
  }
  a {
    color: inherit;
    white-space: nowrap;
  }
`
export function BestPlan() {
  const { sheet, assessment, change } = useDesk()
  const units = useUnits()
  const { data, isFetching } = useWorkedOut('schedule', api.schedule)
  const told = assessment.stores
  const length = assessment.road?.length_km
  if (!told || !length) return null
  const average = (kgKm: number) => units.show(kgKm / length, 'mass', kgKm < 0.1 * length ? 2 : 1)
  const saves = told.everywhere.kg_km - told.plan.kg_km
  const hours = Math.round((told.everywhere.minutes - told.plan.minutes) / 60)
  const money = told.everywhere.money !== null && told.plan.money !== null ? told.everywhere.money - told.plan.money : null
  const longer = data?.longer.map((stay) => `${Math.round(stay.minutes)} minutes longer in ${stay.name}`).join(' and ')
  return (
    <>
      <Words>
        This plan carries <b>{average(told.plan.kg_km)}</b> on average. Filling up everywhere would carry {average(saves)} more
        {hours >= 1 && `, ride ${hours} hours longer`}
        {money !== null && money >= 1 && `, spend ${Math.round(money)} ${sheet.money} more`}.{' '}
        {data ? proof(data, average) : isFetching ? 'Looking for a better one …' : ''}
        {data &&
          longer &&
          (data.runs_down_then === 0
            ? ` So that nothing runs down, stay at the plug ${longer}.`
            : ` At the plug ${longer}: ${data.runs_down - data.runs_down_then} of ${data.runs_down} times less something runs down.`)}{' '}
        <Link to="../ready?rehearsed" className="no-print">
          How often does it run out?
        </Link>
      </Words>
      {data?.better && (
        <Button
          $small
          $wanted
          onPress={() =>
            void change('Take the best plan of the stores', { stores: { ...sheet.stores, steps: merged(sheet.stores.steps, data.steps) } })
          }
        >
          Take the best
        </Button>
      )}
    </>
  )
}

function proof(found: Schedule, average: (kgKm: number) => string): string {
  const sure = found.proven ? 'proven' : `within ${(found.gap * 100).toFixed(1)} %`
  if (!found.better) return `No plan carries less (${sure}).`
  const less = found.stands.kg_km - found.best.kg_km
  return less >= 1 ? `The best carries ${average(less)} less (${sure}).` : `The best runs short of less (${sure}).`
}

const merged = (old: Schedule['steps'], best: Schedule['steps']): Schedule['steps'] => [
  ...old.filter((step) => !best.some((b) => b.supply === step.supply)),
  ...best,
]
