/** How to go: hours a day against days of rest, what each comes to, to be tried. */
import styled from 'styled-components'
import { api, type Ridden } from '../../api/client'
import { useTrial, useWork } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { Muted, RailLine } from '../../ui/controls'
import { clock, shortDate } from '../../ui/dates'
import { Outcome } from '../../instruments/Outcome'
import { useUnits } from '../../ui/preferences'
import { nothingElse, plain } from './useLeave'

const Ways = styled.table`
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  font-stretch: var(--width-text);
  caption {
    text-align: left;
    color: var(--ink2);
    font-size: var(--size-small);
  }
  th {
    text-align: left;
    font-size: var(--size-small);
    padding: 4px;
  }
  tbody th {
    white-space: nowrap;
  }
  col:first-child {
    width: 64px;
  }
  td {
    padding: 2px;
  }
  button {
    width: 100%;
    min-height: 48px;
    padding: 4px 6px;
    text-align: left;
    font: inherit;
    color: var(--ink);
    background: var(--tag);
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    cursor: pointer;
    &[aria-pressed='true'] {
      border: 2.5px solid var(--ink);
    }
    &:disabled {
      cursor: default;
    }
  }
  small {
    display: block;
    font-size: var(--size-small);
    color: var(--ink2);
  }
`
const restWords = (every: number | null) => (every === null ? 'Rest as it is set' : `Rest after ${every} days`)

export function HowToGo() {
  const { data, error } = useWorkedOut('manner', api.manner, { meanwhile: true })
  const { busy } = useWork()
  const { attempt, trial } = useTrial()
  const units = useUnits()
  const rests = [...new Set(data?.ridden.map((one) => one.rest_every))]
  const hours = [...new Set(data?.ridden.map((one) => one.hours))]
  const attemptIt = (way: Ridden) => {
    const name = nameOf(way, units)
    const consequence = plain('the days end elsewhere, and other shops and nights come up')
    void attempt({ ...nothingElse, name: plain(name), consequence, cut: way.cut, nights: way.nights }, name)
  }
  return (
    <>
      <RailLine>How to go</RailLine>
      {error && <p role="alert">It could not be worked out: {error.message}</p>}
      {!data && !error && <p role="status">Riding the tour in shorter and longer days …</p>}
      {data && !data.ridden.length && <Muted>{data.why_none}</Muted>}
      {data && data.ridden.length > 0 && (
        <Ways>
          <caption>Riding a day, pauses apart. A rest lies at the best place with water near then. Press one to try it.</caption>
          <colgroup>
            <col />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">A day</th>
              {rests.map((every) => (
                <th key={every} scope="col">
                  {restWords(every)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {hours.map((h) => (
              <tr key={h}>
                <th scope="row">{units.show(h, 'hours')}</th>
                {data.ridden
                  .filter((one) => one.hours === h)
                  .map((one) => (
                    <td key={one.rest_every}>
                      <button type="button" aria-pressed={one.as_now} disabled={busy !== '' || one.as_now} onClick={() => attemptIt(one)}>
                        <b>{units.show(one.days, 'count')} days</b>, to {shortDate(one.ends_on)}
                        <small>{outcome(one, units)}</small>
                      </button>
                    </td>
                  ))}
              </tr>
            ))}
          </tbody>
        </Ways>
      )}
      {trial && data?.ridden.some((way) => nameOf(way, units) === trial.name) && (
        <>
          <b>{trial.name}</b>
          <Outcome trial={trial} />
        </>
      )}
    </>
  )
}

const nameOf = (way: Ridden, units: ReturnType<typeof useUnits>) =>
  `${units.show(way.hours, 'hours')} a day${way.rest_every === null ? '' : `, rest after ${way.rest_every} days`}`

/** What of a way decides: what is worst of it first. */
const outcome = (one: Ridden, units: ReturnType<typeof useUnits>) =>
  [
    one.as_now && 'as it stands',
    one.short_l > 0 && `${units.show(one.short_l, 'volume')} of water short`,
    one.dark_days > 0 ? `${one.dark_days} end in the dark, at worst ${clock(one.latest_h)}` : `in by ${clock(one.latest_h)}`,
    one.wild_nights > 0 && `${one.wild_nights} wild nights`,
  ]
    .filter(Boolean)
    .join('; ')
