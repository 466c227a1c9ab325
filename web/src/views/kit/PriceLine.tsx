/** What a thing costs on this tour, and what leaving it would change. */
import styled from 'styled-components'
import { api, type Text, type Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { Muted, RailLine } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'

/** Less than this is told as no time [min]. */
const NO_TIME_MIN = 0.05
const Costs = styled.p`
  font-size: var(--size-lead);
  font-stretch: var(--width-text);
  b {
    font-weight: 720;
  }
`
const MOST = 3
/** Who opens a thing only to change it asks for no price. */
const GLANCE_MS = 300

export function PriceLine({ thing }: { thing: Thing }) {
  const { tour, sheet } = useDesk()
  const units = useUnits()
  const { data } = useWorkedOut('price', (id, signal) => api.price(id, thing.id, signal), {
    about: [thing.id],
    // A thing that is still on its way has no price yet.
    wanted: tour.sheet.kit.some((t) => t.id === thing.id),
    dwell: GLANCE_MS,
  })
  const told = (texts: Text[]) =>
    `${texts
      .slice(0, MOST)
      .map((t) => units.say(t))
      .join(' ')}${texts.length > MOST ? ` And ${texts.length - MOST} more.` : ''}`
  return (
    <section aria-label="Price on this tour">
      <RailLine>Price on this tour</RailLine>
      {!data ? (
        <Muted role="status">Reckoning …</Muted>
      ) : (
        <>
          <Costs>
            <b>{units.show(data.mass_kg, 'mass', 2)}</b>, <b>{units.show(data.volume_l, 'volume')}</b>
            {data.minutes_a_day !== null && (
              <>
                ,{' '}
                {Math.abs(data.minutes_a_day) < NO_TIME_MIN ? (
                  'no time, for another rider is slower, but '
                ) : (
                  <>
                    <b>
                      {data.minutes_a_day.toFixed(1)}
                      {'\u00a0'}min
                    </b>{' '}
                    and{' '}
                  </>
                )}
                <b>
                  {data.kj_a_day?.toFixed(0)}
                  {'\u00a0'}kJ
                </b>{' '}
                a day
              </>
            )}
            {data.days_fewer !== null && data.days_fewer > 0 && <> (and {data.days_fewer} days fewer, cut anew)</>}
            {data.money !== null && (
              <>
                , <b>{data.money.toFixed(0)}</b> {sheet.money || 'of money'}
              </>
            )}
          </Costs>
          <Muted>
            {data.mended.length ? `Left at home, this would be gone: ${told(data.mended)}` : 'Left at home, it would mend nothing.'}
            {data.broken.length > 0 && ` This would come up: ${told(data.broken)}`}
          </Muted>
        </>
      )}
    </section>
  )
}
