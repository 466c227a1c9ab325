/** The stores as lists: what to get where, and every lane as a table. */
import styled from 'styled-components'
import { type Lane, pick } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useGoToKm } from '../../instruments/moment'
import { amount } from '../../instruments/StoreLanes'
import { Tabs } from '../../ui/Tabs'
import { Button, Muted } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { Sheet } from '../../ui/sheet'
import { shortDate } from '../../ui/dates'
import { clock } from '../../ui/dates'
import { VERBS } from './AtStopStrip'

const Frame = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  padding: 4px 20px 0;
  ${phone} {
    padding: 4px 14px 20px;
  }
  ul {
    line-height: 17px;
  }
  @media print {
    display: block;
    [role='tablist'] {
      display: none;
    }
  }
`

export function StoreTables() {
  const { assessment } = useDesk()
  const lanes = assessment.stores?.lanes ?? []
  return (
    <Frame>
      <Tabs
        label="Lists"
        tabs={[
          { id: 'shopping', name: 'Shopping list', content: <ShoppingList /> },
          ...lanes.map((lane) => ({ id: lane.key, name: lane.name, content: <LaneTable lane={lane} /> })),
        ]}
      />
    </Frame>
  )
}

function ShoppingList() {
  const { assessment, sheet } = useDesk()
  const goToKm = useGoToKm()
  const units = useUnits()
  const stops = (assessment.stores?.stops ?? []).filter((stop) => stop.deeds.some((d) => d.amount > 0) || stop.bin_kg >= 0.05)
  const money = stops.flatMap((s) => s.deeds).reduce((sum, d) => sum + (d.amount > 0 ? (d.money ?? 0) : 0), 0)
  return (
    <>
      <Muted>
        {stops.length} stops with something to do{money > 0 ? `, ${Math.round(money)} ${sheet.money} in all where prices are known` : ''}.{' '}
        <Button $small className="no-print" onPress={() => window.print()}>
          <Icon name="print" size={15} />
          Print
        </Button>
      </Muted>
      <Sheet>
        <thead>
          <tr>
            <th className="n">Day</th>
            <th>Where</th>
            <th>What</th>
            <th className="n">{sheet.money}</th>
          </tr>
        </thead>
        <tbody>
          {stops.map((stop) => (
            <tr key={`${stop.at_km}${stop.name}`}>
              <td className="n" style={{ verticalAlign: 'top' }}>
                {stop.day}
              </td>
              <td style={{ verticalAlign: 'top', whiteSpace: 'nowrap' }}>
                <button type="button" className="plain" onClick={() => goToKm(stop.at_km)}>
                  {stop.name}
                </button>
                <br />
                <small>
                  {shortDate(stop.date)}, {clock(stop.hour)}, {units.show(stop.at_km, 'distance')}
                </small>
              </td>
              <td>
                <ul>
                  {stop.deeds
                    .filter((d) => d.amount > 0)
                    .map((d) => (
                      <li key={d.lane}>
                        ☐ <b>{VERBS[d.verb]}</b> {units.say(d.words)}
                        {d.verb === 'buy' && d.items.length > 0 && (
                          <>: {d.items.map((i) => `${i.packs} × ${i.name}${i.eat_first ? ' (eat first)' : ''}`).join(', ')}</>
                        )}
                        {d.note && <small> {units.say(d.note)}</small>}
                      </li>
                    ))}
                  {stop.bin_kg >= 0.05 && <li>☐ Empty the bin bag, {units.show(stop.bin_kg, 'mass')}</li>}
                </ul>
              </td>
              <td className="n" style={{ verticalAlign: 'top' }}>
                {stop.deeds.some((d) => d.money !== null && d.amount > 0) &&
                  stop.deeds.reduce((sum, d) => sum + (d.amount > 0 ? (d.money ?? 0) : 0), 0).toFixed(2)}
              </td>
            </tr>
          ))}
        </tbody>
      </Sheet>
    </>
  )
}

/** One lane at every place where something is taken, gone or short. */
function LaneTable({ lane }: { lane: Lane }) {
  const { assessment } = useDesk()
  const goToKm = useGoToKm()
  const units = useUnits()
  const { moments, stores } = assessment
  if (!moments || !stores) return null
  const places = moments.km.map((_, i) => i).filter((i) => moments.leaving[i] && moments.place[i] !== '')
  return (
    <>
      <Muted>
        {amount(units, lane.unit, lane.a_day, 2)} a day. {lane.notes.map((n) => units.say(n.words)).join('; ')}
        {lane.gone.length > 0 && ` Gone: ${lane.gone.map((g) => `${units.say(g.words)} to day ${g.to_day}`).join('; ')}.`}
      </Muted>
      <Sheet>
        <thead>
          <tr>
            <th className="n">Day</th>
            <th>Leaving</th>
            <th className="n">At</th>
            <th className="n">Arriving with</th>
            <th className="n">Taken</th>
            <th className="n">Leaving with</th>
            <th className="n">Lasts</th>
            <th className="n">Short</th>
          </tr>
        </thead>
        <tbody>
          {places.map((i) => {
            const deed = stores.stops.find((s) => Math.abs(s.at_km - (moments.km[i] ?? 0)) < 0.01)?.deeds.find((d) => d.lane === lane.key)
            const short = pick(lane.short, i)
            const arriving = i > 0 ? pick(lane.stock, i - 1) : 0
            return (
              <tr key={i}>
                <td className="n">{moments.day[i]}</td>
                <td>
                  <button type="button" className="plain" onClick={() => goToKm(moments.km[i] ?? 0)}>
                    {moments.place[i]}
                  </button>
                  {deed?.fixed && ' (fixed)'}
                </td>
                <td className="n">{units.show(moments.km[i] ?? 0, 'distance')}</td>
                <td className="n">{amount(units, lane.unit, arriving)}</td>
                <td className="n">{deed && deed.amount > 0 ? amount(units, lane.unit, deed.amount) : ''}</td>
                <td className="n">{amount(units, lane.unit, pick(lane.stock, i))}</td>
                <td className="n">{lane.key === 'waste' ? '' : `${units.figure(pick(lane.days_left, i), 'count')} days`}</td>
                <td className="n">{short > 0 ? amount(units, lane.unit, short) : ''}</td>
              </tr>
            )
          })}
        </tbody>
      </Sheet>
    </>
  )
}
