/** The stores: what to do at this stop, and what is on board of everything along the tour. */
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import type { AtStop, Deed, StoreStep } from '../../api/client'
import { useDesk } from '../../api/tour'
import { stopAt, useMoment } from '../../instruments/moment'
import { Ribbon } from '../../instruments/Ribbon'
import { useSize } from '../../instruments/useSize'
import { Button, Muted } from '../../ui/controls'
import { phone } from '../../ui/theme'
import { usePhone } from '../../ui/usePhone'
import { AtStopStrip } from './AtStopStrip'
import { BestPlan } from './BestPlan'
import { EatingDialog } from './EatingDialog'
import { StoreTables } from './StoreTables'

const Page = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  ${phone} {
    overflow-y: auto;
    display: block;
  }
  @media print {
    display: block;
  }
`
const Tools = styled.div`
  display: flex;
  gap: 6px 10px;
  align-items: center;
  flex-wrap: wrap;
  padding: 5px 20px;
  border-bottom: 2px solid var(--ink);
  ${phone} {
    padding: 8px 14px;
  }
`
const Lanes = styled.div`
  flex: 1;
  min-height: 0;
  ${phone} {
    height: 620px;
  }
`

/** The steps of the stores with one set otherwise, or let go where no amount is given. */
function withStep(steps: StoreStep[], supply: string, stop_id: string | null, amount: number | null): StoreStep[] {
  const others = steps.filter((step) => step.supply !== supply || step.stop_id !== stop_id)
  return amount === null ? others : [...others, { supply, stop_id, amount: Math.round(amount * 1000) / 1000 }]
}

export function StoresView() {
  const { sheet, assessment, change } = useDesk()
  const { moment } = useMoment()
  const [box, { height }] = useSize<HTMLDivElement>()
  const small = usePhone()
  const [tables, setTables] = useState(false)
  const [eating, setEating] = useState(false)
  const { stores: told, moments } = assessment
  if (!told || !moments) {
    return (
      <>
        <Muted style={{ margin: 'auto', padding: 20 }}>
          Water, food, fuel and power are planned along a road with a rider on it. <Link to="../road">Say where you ride</Link>
        </Muted>
        <Ribbon />
      </>
    )
  }
  const here = stopAt(told.stops, moments, moment)
  const km = moments.km[moment] ?? 0
  const stop: AtStop | undefined = here ?? told.stops.find((s) => s.at_km > km) ?? told.stops.at(-1)
  const set = (deed: Deed, amount: number | null) => {
    const at = stop?.stop_id ?? null
    const what =
      amount === null ? `Plan ${deed.lane} at ${stop?.name} again` : `Take ${Math.round(amount * 100) / 100} of ${deed.lane} at ${stop?.name}`
    void change(what.slice(0, 200), { stores: { ...sheet.stores, steps: withStep(sheet.stores.steps, deed.lane, at, amount) } })
  }
  return (
    <Page>
      {stop && <AtStopStrip stop={stop} here={here !== undefined} onSet={set} />}
      <Tools className="no-print">
        <BestPlan />
        {sheet.stores.steps.length > 0 && (
          <Button $small onPress={() => void change('Let all fixed steps go', { stores: { ...sheet.stores, steps: [] } })}>
            Let {sheet.stores.steps.length} fixed go
          </Button>
        )}
        <Button $small onPress={() => setEating(true)}>
          How you eat
        </Button>
        <Button $small aria-pressed={tables} onPress={() => setTables(!tables)}>
          {tables ? 'Draw the lanes' : 'Lists and tables'}
        </Button>
      </Tools>
      {tables ? (
        <>
          <StoreTables />
          {!small && (
            <div className="no-print">
              <Ribbon height={168} skylineHeight={34} lane="land" />
            </div>
          )}
        </>
      ) : (
        <Lanes className="no-print" ref={box}>
          {height > 0 && <Ribbon lane="stores" height={height} skylineHeight={38} onSet={(deed, amount) => set(deed, amount)} />}
        </Lanes>
      )}
      {eating && <EatingDialog onClose={() => setEating(false)} />}
    </Page>
  )
}
