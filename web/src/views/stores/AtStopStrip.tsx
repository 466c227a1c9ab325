/** What to do where the playhead stands: fill, buy, refuel, charge and the small things, each with what it takes to change it. */
import { useState } from 'react'
import styled from 'styled-components'
import type { AtStop, Deed } from '../../api/client'
import { useDesk } from '../../api/tour'
import { amount } from '../../instruments/StoreLanes'
import { Dialog } from '../../ui/Dialog'
import { Button, Muted, Row } from '../../ui/controls'
import { Measure } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { phone, sign } from '../../ui/theme'
import { isQuantity } from '../../ui/units'
import { clock } from '../../ui/dates'
import { Vessels } from './Vessels'

export const VERBS: Record<Deed['verb'], string> = { fill: 'Fill', buy: 'Buy', refuel: 'Refuel', charge: 'Charge', restock: 'Small things' }
const ORDER: Deed['verb'][] = ['fill', 'buy', 'refuel', 'charge', 'restock']

const Strip = styled.section`
  display: grid;
  grid-template-columns: 148px repeat(5, minmax(0, 1fr));
  border-bottom: 2px solid var(--ink);
  min-height: 92px;
  ${phone} {
    grid-template-columns: 1fr;
  }
  > header {
    padding: 8px 8px 6px 20px;
    h2 {
      font-family: ${sign};
      font-stretch: var(--width-sign);
      font-weight: 780;
      font-size: var(--size-lead);
      line-height: 19px;
    }
    ${phone} {
      padding: 8px 14px;
    }
  }
  > button {
    padding: 7px 8px 6px 12px;
    border-left: 1px solid var(--hair);
    text-align: left;
    display: flex;
    flex-direction: column;
    gap: 1px;
    min-width: 0;
    &:hover {
      background: var(--tag);
    }
    &:focus-visible {
      outline-offset: -4px;
    }
    &:disabled {
      cursor: default;
      background: none;
    }
    ${phone} {
      &:disabled {
        display: none;
      }
      border-left: 0;
      border-top: 1px solid var(--hair);
      padding: 10px 14px;
      min-height: 56px;
    }
  }
  .verb {
    display: flex;
    align-items: center;
    gap: 8px;
    height: 30px;
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 750;
    font-size: var(--size-text);
  }
  b {
    font-weight: 660;
    font-size: var(--size-text);
    line-height: 17px;
    font-stretch: var(--width-text);
  }
  small {
    font-size: var(--size-note);
    line-height: 15px;
    font-stretch: var(--width-narrow);
    color: var(--ink2);
    overflow: hidden;
    display: -webkit-box;
    -webkit-line-clamp: 2;
    -webkit-box-orient: vertical;
  }
`

/** Who decants a jar for less? */
const WORTH_DECANTING_L = 0.3

export function AtStopStrip({ stop, here, onSet }: { stop: AtStop; here: boolean; onSet: (deed: Deed, amount: number | null) => void }) {
  const units = useUnits()
  const [open, setOpen] = useState<Deed['verb'] | null>(null)
  const facts = [
    `day ${stop.day}, ${stop.stop_id === null ? 'at the start' : clock(stop.hour)}`,
    stop.stays ? 'overnight' : stop.minutes > 0 ? `${stop.minutes}\u00a0min in all` : '',
  ]
  return (
    <Strip aria-label={`At ${stop.name}`}>
      <header>
        <h2>
          {here ? 'At ' : 'Next: '}
          {stop.name}
        </h2>
        <Muted>{facts.filter(Boolean).join(', ')}</Muted>
        {stop.bin_kg >= 0.05 && <Muted>{units.show(stop.bin_kg, 'mass')} into the bin</Muted>}
      </header>
      {ORDER.map((verb) => {
        const deeds = stop.deeds.filter((d) => d.verb === verb)
        const some = deeds.filter((d) => d.amount > 0)
        const fixed = deeds.some((d) => d.fixed)
        return (
          <button key={verb} type="button" aria-haspopup="dialog" disabled={!deeds.length} onClick={() => setOpen(verb)}>
            <span className="verb">
              {VERBS[verb]}
              {deeds[0] && verb !== 'restock' && <Vessels deed={deeds[0]} />}
            </span>
            <b>
              {!deeds.length ? NONE[verb] : some.length ? some.map((d) => units.say(d.words)).join('; ') : 'nothing'}
              {fixed && ' (fixed)'}
            </b>
            <small>{deeds.flatMap((d) => (d.note ? [units.say(d.note)] : [])).join('; ')}</small>
          </button>
        )
      })}
      {open && <DeedDialog stop={stop} verb={open} onClose={() => setOpen(null)} onSet={onSet} />}
    </Strip>
  )
}

const NONE: Record<Deed['verb'], string> = {
  fill: 'no sure water',
  buy: 'no open shop',
  refuel: 'none sold',
  charge: 'no plug',
  restock: 'none sold',
}

const Items = styled.table`
  width: 100%;
  font-size: var(--size-small);
  td,
  th {
    padding: 3px 8px 3px 0;
    border-bottom: 1px solid var(--hair);
    text-align: left;
  }
  .n {
    text-align: right;
    white-space: nowrap;
  }
`

/** What is taken here, in full, and set otherwise: skipped, a vessel more, or any amount. */
function DeedDialog({
  stop,
  verb,
  onClose,
  onSet,
}: {
  stop: AtStop
  verb: Deed['verb']
  onClose: () => void
  onSet: (deed: Deed, amount: number | null) => void
}) {
  const { sheet } = useDesk()
  const units = useUnits()
  return (
    <Dialog title={`${VERBS[verb]}, ${stop.name}`} open onClose={onClose} wide>
      {stop.deeds
        .filter((d) => d.verb === verb)
        .map((deed) => {
          const vessel = deed.vessels.find((v) => v.filled < v.holds - 0.01)
          const more = vessel ? vessel.holds : verb === 'buy' ? 1 : (deed.items[0]?.pack ?? 0)
          const most = deed.most ?? 10_000
          const thing = sheet.kit.find((t) => t.id === deed.lane)
          return (
            <section key={deed.lane} aria-label={thing?.name ?? VERBS[verb]}>
              <p>
                <b>{units.say(deed.words)}</b>
                {deed.fixed ? ', as you fixed it' : ', as planned'}. On board on leaving: {amount(units, deed.unit, deed.leaves)}; asked for:{' '}
                {amount(units, deed.unit, deed.asked)}.{deed.minutes > 0 && ` ${Math.round(deed.minutes)} min by hand.`}
                {deed.money !== null && ` ${deed.money.toFixed(2)} ${sheet.money}.`}
              </p>
              {deed.note && <Muted>{units.say(deed.note)}</Muted>}
              {deed.vessels.length > 0 && (
                <Items aria-label="Vessels">
                  <tbody>
                    {deed.vessels.map((v) => (
                      <tr key={v.thing_id}>
                        <td>
                          {v.count > 1 ? `${v.count} × ` : ''}
                          {v.name}
                        </td>
                        <td className="n">
                          {amount(units, deed.unit, v.filled)} of {amount(units, deed.unit, v.holds)}
                        </td>
                        <td>{v.filled > 0.01 ? '' : v.until_day ? `empty to day ${v.until_day}` : 'stays empty'}</td>
                      </tr>
                    ))}
                  </tbody>
                </Items>
              )}
              {deed.items.length > 0 && verb === 'buy' && (
                <Items aria-label="Shopping list">
                  <tbody>
                    {deed.items.map((item) => (
                      <tr key={item.id}>
                        <td>{item.name}</td>
                        <td className="n">
                          {item.packs} × {item.pack} {item.unit}
                        </td>
                        <td className="n">{units.show(item.litres, 'volume')}</td>
                        <td className="n">
                          {item.sold_litres > item.litres + WORTH_DECANTING_L ? `${units.show(item.sold_litres, 'volume')} as sold: decant` : ''}
                        </td>
                        <td>{item.eat_first ? 'eat first' : ''}</td>
                        <td className="n">{item.price === null ? '' : `${item.price.toFixed(2)} ${sheet.money}`}</td>
                      </tr>
                    ))}
                  </tbody>
                </Items>
              )}
              {verb !== 'charge' && (
                <Row $min={130}>
                  <Measure
                    label="Take"
                    value={deed.amount}
                    quantity={isQuantity(deed.unit) ? deed.unit : 'count'}
                    decimals={2}
                    range={[0, most]}
                    onChange={(value) => onSet(deed, value)}
                  />
                  <Button onPress={() => (deed.amount > 0 || !deed.fixed) && onSet(deed, 0)}>Skip it here</Button>
                  {more > 0 && (
                    <Button onPress={() => deed.amount < most && onSet(deed, Math.min(deed.amount + more, most))}>
                      {amount(units, deed.unit, more)} more
                    </Button>
                  )}
                  <Button onPress={() => deed.fixed && onSet(deed, null)}>As planned</Button>
                </Row>
              )}
            </section>
          )
        })}
      <Muted>
        {verb === 'fill' &&
          'Litres are a size for vessels, never a drinking target: drink to thirst. Sources that are not sure count as none. Treat what is not tap water.'}
        {verb === 'refuel' && 'No fuel aboard aircraft. Never light a stove in a closed tent; keep fuel away from food.'}
        {verb === 'charge' && 'Spare lithium cells ride in the cabin on flights, within 100 Wh; ask the carrier.'}
        {verb === 'buy' && 'Amounts follow from power, rest and cold of each rider; hunger decides.'}
      </Muted>
    </Dialog>
  )
}
