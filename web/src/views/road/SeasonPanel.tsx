/** When to go: the same tour begun every second week of a year, both ways, a small drawing for each thing that decides. */
import { useState } from 'react'
import styled from 'styled-components'
import { api, type Quantity, type SeasonStart } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { Button, Muted } from '../../ui/controls'
import { fullDate, shortDate } from '../../ui/dates'
import { useUnits } from '../../ui/preferences'

import { phone } from '../../ui/theme'
import { useLeave } from './useLeave'

const COLD_NIGHTS = 'Nights too cold for the bag'
/** What is drawn of each start; `bad` says which end of it is the worse one. */
const DRAWN: { name: string; quantity: Quantity; bad: 'low' | 'high'; of: (start: SeasonStart) => number }[] = [
  { name: 'Coldest night', quantity: 'temperature', bad: 'low', of: (s) => s.coldest_night_c },
  { name: 'Hottest day feels', quantity: 'temperature', bad: 'high', of: (s) => s.hottest_feels_c },
  { name: 'Wet days', quantity: 'count', bad: 'high', of: (s) => s.wet_days },
  { name: 'Least light', quantity: 'hours', bad: 'low', of: (s) => s.light_h },
  { name: 'Days that end in the dark', quantity: 'count', bad: 'high', of: (s) => s.dark_days },
  { name: 'Most water', quantity: 'volume', bad: 'high', of: (s) => s.most_water_l },
  { name: COLD_NIGHTS, quantity: 'count', bad: 'high', of: (s) => s.cold_nights ?? 0 },
  { name: 'Passes under snow', quantity: 'count', bad: 'high', of: (s) => s.shut.length },
]
const [WIDE, HIGH, EDGE, AXIS] = [260, 74, 6, 13]
/** Months that are named under each drawing. */
const QUARTERS = [
  { month: '01', name: 'Jan' },
  { month: '04', name: 'Apr' },
  { month: '07', name: 'Jul' },
  { month: '10', name: 'Oct' },
]

/** Room at the right for the highest and the lowest figure. */
const FIGURES = 26

const Small = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 12px 18px;
  figure {
    margin: 0;
  }
  figcaption {
    display: flex;
    justify-content: space-between;
    font-size: var(--size-small);
    font-stretch: var(--width-text);
  }
  svg {
    width: 100%;
    height: auto;
    cursor: pointer;
    display: block;
  }
  .fine {
    font-size: 10px;
    font-stretch: var(--width-narrow);
    fill: var(--ink3);
  }
`
const Chosen = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin: 10px 0;
  label {
    display: flex;
    gap: 8px;
    align-items: center;
    flex: 1 1 240px;
  }
  input {
    flex: 1;
    accent-color: var(--ink);
    min-height: 24px;
  }
  ${phone} {
    input {
      min-height: 44px;
    }
  }
`

export function SeasonPanel() {
  const { sheet, tour } = useDesk()
  const units = useUnits()
  const { data, error } = useWorkedOut('season', api.season, { meanwhile: true })
  const [at, setAt] = useState(0)
  if (error) return <p role="alert">The year could not be worked out: {error.message}</p>
  if (!data) return <p role="status">Riding the tour from every second week of a year, both ways …</p>
  if (!data.starts.length) return <Muted>Say where you ride and who rides: then every start of a year is tried.</Muted>
  const ways = (['as_planned', 'reversed'] as const).map((way) => data.starts.filter((start) => start.way === way))
  const [planned, turned] = ways as [SeasonStart[], SeasonStart[]]
  const start = planned[Math.min(at, planned.length - 1)]
  const other = turned[Math.min(at, turned.length - 1)]
  if (!start || !other) return null
  const drawn = DRAWN.filter((row) => data.starts.some((one) => row.of(one) !== 0))
  const never = DRAWN.filter((row) => !drawn.includes(row) && (row.name !== COLD_NIGHTS || start.cold_nights !== null))
  return (
    <>
      <Muted>
        Filled: as planned. Hollow: ridden the other way. {data.leaves_out.map((one) => one[0]?.toUpperCase() + one.slice(1)).join('. ')}.
      </Muted>
      <Chosen>
        <label>
          Leave on
          <input
            type="range"
            min={0}
            max={planned.length - 1}
            value={at}
            aria-valuetext={fullDate(start.start_date)}
            onChange={(e) => setAt(Number(e.target.value))}
          />
        </label>
        <b>{fullDate(start.start_date)}</b>
        {start.start_date === sheet.start_date ? <span>the date of the tour</span> : <TryStart date={start.start_date} />}
        {tour.has_track && <TurnRound date={start.start_date} />}
      </Chosen>
      <Small>
        {drawn.map((row) => (
          <Multiple key={row.name} {...{ row, planned, turned, at }} onChoose={setAt} />
        ))}
      </Small>
      {never.length > 0 && <Muted>None all year: {never.map((row) => row.name.toLowerCase()).join(', ')}.</Muted>}
      {[start, other].map((one) => (
        <p key={one.way}>
          <b>{one.way === 'as_planned' ? 'As planned' : 'The other way'}:</b> coldest night {units.show(one.coldest_night_c, 'temperature')} on day{' '}
          {one.coldest_day}, hottest day {units.show(one.hottest_c, 'temperature')}
          {one.short_l > 0 && `, ${units.show(one.short_l, 'volume')} of water short`}
          {one.shut.map((words) => `, ${units.say(words)}`).join('')}.
        </p>
      ))}
    </>
  )
}

/** One figure over the year, both ways; a press chooses a start. */
function Multiple({
  row,
  planned,
  turned,
  at,
  onChoose,
}: {
  row: (typeof DRAWN)[number]
  planned: SeasonStart[]
  turned: SeasonStart[]
  at: number
  onChoose: (at: number) => void
}) {
  const units = useUnits()
  const all = [...planned, ...turned].map(row.of)
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const x = (n: number) => EDGE + (n / Math.max(planned.length - 1, 1)) * (WIDE - 2 * EDGE - FIGURES)
  const y = (value: number) => HIGH - AXIS - EDGE - ((value - low) / Math.max(high - low, 1e-9)) * (HIGH - AXIS - 2 * EDGE)
  const line = (starts: SeasonStart[]) => starts.map((s, n) => `${n ? 'L' : 'M'}${x(n).toFixed(1)} ${y(row.of(s)).toFixed(1)}`).join('')
  const [now, other] = [planned[at], turned[at]]
  if (!now || !other) return null
  const told = `${units.show(row.of(now), row.quantity, row.quantity === 'count' ? 0 : undefined)}, other way ${units.show(row.of(other), row.quantity, row.quantity === 'count' ? 0 : undefined)}`
  return (
    <figure>
      <figcaption>
        <span>{row.name}</span>
        <b>{told}</b>
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        role="img"
        aria-label={`${row.name} from ${units.show(low, row.quantity)} to ${units.show(high, row.quantity)} over the year; ${told} on ${shortDate(now.start_date)}`}
        onClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect()
          const share = (((e.clientX - box.left) / box.width) * WIDE - EDGE) / (WIDE - 2 * EDGE - FIGURES)
          onChoose(Math.max(0, Math.min(planned.length - 1, Math.round(share * (planned.length - 1)))))
        }}
      >
        <rect x={0.5} y={0.5} width={WIDE - 1} height={HIGH - 1} fill="var(--tag)" stroke="var(--hair)" />
        {QUARTERS.map(({ month, name }) => {
          const n = planned.findIndex((s) => s.start_date.slice(5, 7) === month)
          return n < 0 ? null : (
            <text key={name} x={Math.min(x(n), WIDE - 24)} y={HIGH - 3} className="fine">
              {name}
            </text>
          )
        })}
        <text x={WIDE - 4} y={11} textAnchor="end" className="fine">
          {units.figure(high, row.quantity)}
        </text>
        <text x={WIDE - 4} y={HIGH - AXIS - 2} textAnchor="end" className="fine">
          {units.figure(low, row.quantity)}
        </text>
        <path d={`M${x(at).toFixed(1)} 1V${HIGH - 1}`} stroke="var(--now)" strokeWidth={4} />
        <path d={line(turned)} fill="none" stroke="var(--ink)" strokeWidth={1.2} strokeDasharray="3 2" />
        <path d={line(planned)} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        <circle cx={x(at)} cy={y(row.of(other))} r={3.2} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.4} />
        <circle cx={x(at)} cy={y(row.of(now))} r={3.2} fill="var(--ink)" />
      </svg>
    </figure>
  )
}

/** The other way, begun on the date that is looked at. */
function TurnRound({ date }: { date: string }) {
  const { ask } = useDesk()
  const { busy } = useWork()
  const turn = () => void ask('Turning round', (id, revision) => api.shapeTrack(id, revision, 'reverse', 0, null, date))
  return (
    <Button $small isDisabled={busy !== ''} onPress={turn}>
      Go the other way then
    </Button>
  )
}

/** The start that is looked at, tried like a mend or kept. */
function TryStart({ date }: { date: string }) {
  const { change } = useDesk()
  const { busy } = useWork()
  const { leave } = useLeave()
  return (
    <>
      <Button $small isDisabled={busy !== ''} onPress={() => void leave(date)}>
        Try it
      </Button>
      <Button $small isDisabled={busy !== ''} onPress={() => void change('Leave on another day', { start_date: date })}>
        Leave then
      </Button>
    </>
  )
}
