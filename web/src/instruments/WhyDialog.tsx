/** Why a thing rides where it does: what every other place would cost, all else standing still. */
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { api, type Paid, type Thing } from '../api/client'
import { useDesk } from '../api/tour'
import { Dialog } from '../ui/Dialog'
import { Actions, Button, Muted } from '../ui/controls'
import { useUnits } from '../ui/preferences'
import { useStow } from './useStow'

const Table = styled.table`
  width: 100%;
  font-size: var(--size-small);
  font-stretch: var(--width-text);
  th {
    text-align: left;
    font-size: var(--size-note);
    border-bottom: 2px solid var(--ink);
    padding: 2px 6px;
  }
  td {
    border-bottom: 1px solid var(--hair);
    padding: 3px 6px;
    height: 36px;
  }
  .n {
    text-align: right;
    white-space: nowrap;
    font-weight: 650;
  }
`
const MOST = 8
/** The few aims that weigh most, in the core's words, each with its points as they are to be read. */
export const dearest = (paid: Paid[], least: number, points: (value: number) => string): string =>
  paid
    .filter((p) => Math.abs(p.points) >= least)
    .sort((a, b) => Math.abs(b.points) - Math.abs(a.points))
    .slice(0, 3)
    .map((p) => `${p.words.toLowerCase()} ${points(p.points)}`)
    .join(', ')

export function WhyDialog({ thing, from, onClose }: { thing: Thing; from: string | null; onClose: () => void }) {
  const { tour } = useDesk()
  const { label, move } = useStow()
  const units = useUnits()
  const { data, error } = useQuery({
    queryKey: ['why', tour.id, tour.revision, thing.id, from],
    queryFn: () => api.why(tour.id, thing.id, from),
    // What is on its way to a bag is asked about once it is there.
    enabled:
      tour.sheet.kit.some((t) => t.id === thing.id) &&
      (from === null || tour.sheet.load.placements.some((p) => p.thing_id === thing.id && p.carrier_id === from)),
  })
  const points = (value: number) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`
  const reasons = (paid: Paid[]) => dearest(paid, 0.1, points)
  const open = data?.places.filter((p) => p.against === null && p.carrier_id !== null) ?? []
  const shut = data?.places.filter((p) => p.against !== null) ?? []
  const next = open[0]
  return (
    <Dialog title={from === null ? `Where could ${thing.name} go?` : `Why does ${thing.name} ride here?`} open onClose={onClose} wide>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Muted role="status">Reckoning …</Muted>}
      {data && (
        <>
          <p>
            {from !== null && `It rides in ${label(from)}${data.pinned ? ', pinned there by you' : ''}. `}
            {next
              ? next.points >= 0
                ? from === null
                  ? `The cheapest place is ${label(next.carrier_id)}.`
                  : `The next best place, ${label(next.carrier_id)}, costs ${next.points.toFixed(1)} points more, as the load stands.`
                : `${label(next.carrier_id)} ${from === null ? 'is the best place' : `would be better by ${(-next.points).toFixed(1)} points`}, as the load stands.`
              : 'No other bag can take it as the load stands.'}
          </p>
          <Table>
            <thead>
              <tr>
                <th>Place</th>
                <th className="n">Points</th>
                <th>What speaks</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {open.slice(0, MOST).map((place) => (
                <tr key={place.carrier_id}>
                  <td>{label(place.carrier_id)}</td>
                  <td className="n">{points(place.points)}</td>
                  <td>
                    <Muted as="span">{reasons(place.by_aim)}</Muted>
                  </td>
                  <td className="n">
                    <Button
                      $small
                      onPress={() => {
                        onClose()
                        move([{ thingId: thing.id, count: 1, from }], place.carrier_id)
                      }}
                    >
                      Move it
                    </Button>
                  </td>
                </tr>
              ))}
              {shut.slice(0, MOST).map((place) => (
                <tr key={place.carrier_id}>
                  <td>{label(place.carrier_id)}</td>
                  <td className="n">no</td>
                  <td colSpan={2}>
                    <Muted as="span">{place.against && units.say(place.against)}</Muted>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
          <Muted>One point is about the annoyance of one kilogram carried 5{'\u00a0'}cm too high. Aims and weights stand under Load, Aims.</Muted>
        </>
      )}
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  )
}
