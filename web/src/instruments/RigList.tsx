/** The list twin of the drawing: the same carriers, figures and actions, as text. */
import styled from 'styled-components'
import { type Bike, type BikeTrace, pick } from '../api/client'
import { Button } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { fixtureWords } from './Fixtures'
import { useFocus, useHand, useMoment } from './moment'
import { statesInWords } from './states'
import { usePlaces, useStow } from './useStow'

const Table = styled.table`
  width: 100%;
  font-size: var(--size-small);
  th {
    text-align: left;
    font-weight: 650;
    border-bottom: 2px solid var(--ink);
    padding: 4px 6px;
    font-size: var(--size-note);
  }
  td {
    border-bottom: 1px solid var(--hair);
    padding: 4px 6px;
    height: 40px;
  }
  .n {
    text-align: right;
    white-space: nowrap;
  }
`
const Scroll = styled.div`
  flex: 1;
  overflow: auto;
  padding: 8px 12px 48px;
`

export function RigList({ bike, trace }: { bike: Bike; trace: BikeTrace }) {
  const { moment } = useMoment()
  const { inHand } = useHand()
  const { setCarrier } = useFocus()
  const { stow } = useStow()
  const places = usePlaces(inHand)
  const units = useUnits()
  const at = (column: number[]) => pick(column, moment)
  const apart = (off: number) => `${off > 0 ? 'right' : 'left'} heavier by ${units.show(Math.abs(off), 'mass')}`
  return (
    <Scroll>
      <p>
        {bike.name}: {units.show(at(trace.total_kg), 'mass')} without rider, front wheel {units.show(at(trace.front_kg), 'mass')}, rear wheel{' '}
        {units.show(at(trace.rear_kg), 'mass')}
        {at(trace.trailer_kg) > 0 &&
          `, trailer wheel ${units.show(at(trace.trailer_kg), 'mass')}, on the hitch ${units.show(at(trace.hitch_kg), 'mass')}`}
        ; left {units.show(at(trace.left_kg), 'mass')}, right {units.show(at(trace.right_kg), 'mass')}
        {Math.abs(at(trace.right_over_left_kg.front)) >= 0.05 && `, at the front ${apart(at(trace.right_over_left_kg.front))}`}
        {Math.abs(at(trace.right_over_left_kg.rear)) >= 0.05 && `, at the rear ${apart(at(trace.right_over_left_kg.rear))}`}.
      </p>
      <Table>
        <thead>
          <tr>
            <th>Bag</th>
            <th className="n">Mass</th>
            <th className="n">Limit</th>
            <th className="n">Volume</th>
            <th className="n">Holds</th>
            <th>Reach, dry</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {bike.carriers.map((carrier) => {
            const found = trace.carriers.find((c) => c.carrier_id === carrier.id)
            if (!found) return null
            const place = places.get(carrier.id)
            return (
              <tr key={carrier.id}>
                <td>
                  {carrier.name}
                  {found.states.length > 0 && <small> ({statesInWords(found.states)})</small>}
                </td>
                <td className="n">{units.show(at(found.kg), 'mass')}</td>
                <td className="n">{units.show(carrier.limit_kg, 'mass')}</td>
                <td className="n">{units.show(at(found.litres), 'volume')}</td>
                <td className="n">{units.show(found.room_l, 'volume')}</td>
                <td>
                  {carrier.reach}, {carrier.dryness}
                </td>
                <td>
                  {inHand.length ? (
                    <Button $small onPress={() => stow(carrier.id)}>
                      Stow here{place ? (place.fits ? ', fits' : place.reason ? `, ${units.say(place.reason)}` : '') : ''}
                    </Button>
                  ) : (
                    <Button $small onPress={() => setCarrier(carrier.id)}>
                      Open
                    </Button>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </Table>
      {trace.fixtures.length > 0 && <p>Not in a bag: {trace.fixtures.map((f) => fixtureWords(f, units)).join('; ')}.</p>}
      <p>
        {bike.supports.map((support) => {
          const found = trace.limits.find((l) => l.kind === 'support' && l.owner_id === support.id)
          return found ? `${support.name}: ${units.show(found.worst, 'mass')} of ${units.show(support.limit_kg, 'mass')} at its heaviest. ` : ''
        })}
      </p>
    </Scroll>
  )
}
