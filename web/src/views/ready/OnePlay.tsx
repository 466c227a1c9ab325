/** A play opened: what happened in it, and how it stands where the playhead is. */
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import styled from 'styled-components'
import { api, type PlayTold, type Rehearsal } from '../../api/client'
import { useDesk, useShown } from '../../api/tour'
import { useGoToKm, useMoment } from '../../instruments/moment'
import { Button, Muted } from '../../ui/controls'
import { Dot } from '../../ui/icons'
import { clock } from '../../ui/dates'
import { useUnits } from '../../ui/preferences'

const Choices = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 6px 0;
`
const Happened = styled.ul`
  font-size: var(--size-small);
  line-height: 18px;
  max-height: 200px;
  overflow-y: auto;
  button {
    text-align: left;
    min-height: 24px;
    text-decoration: underline;
    text-underline-offset: 2px;
  }
  @media print {
    max-height: none;
  }
`
const RANKS = { middling: 'A middling one', bad: 'A bad one', worst: 'The worst', asked: '' }

export function OnePlay({ told, play, onPlay }: { told: Rehearsal; play: PlayTold | null; onPlay: (play: PlayTold | null) => void }) {
  const { tour } = useDesk()
  const units = useUnits()
  const goToKm = useGoToKm()
  const [number, setNumber] = useState<number | null>(null)
  const { data, isFetching, error } = useQuery({
    queryKey: ['play', tour.id, tour.revision, number],
    queryFn: ({ signal }) => api.onePlay(tour.id, number ?? 0, signal),
    enabled: number !== null,
    staleTime: Infinity,
  })
  useEffect(() => onPlay(number === null ? null : (data ?? null)), [data, number, onPlay])
  return (
    <>
      <Choices className="no-print">
        {told.told.map((one) => (
          <Button key={one.rank} $small aria-pressed={number === one.number} onPress={() => setNumber(number === one.number ? null : one.number)}>
            <Dot on={number === one.number} />
            {RANKS[one.rank]}, {one.number}
          </Button>
        ))}
        <Button $small onPress={() => setNumber(((number ?? -1) + 1) % told.plays)}>
          Another
        </Button>
      </Choices>
      {isFetching && <p role="status">Playing it again …</p>}
      {error && <p role="alert">{error.message}</p>}
      {!play && !isFetching && <Muted>Open one, and scrub it on the ribbon like a tour that was ridden.</Muted>}
      {play && (
        <>
          <Reading play={play} />
          <Happened>
            {play.events.map((event) => (
              <li key={`${event.km}${event.words.words}`}>
                <button type="button" onClick={() => goToKm(event.km)}>
                  Day {Math.floor(event.day) + 1}, {units.show(event.km, 'distance')}
                </button>
                : {units.say(event.words)}
              </li>
            ))}
            {play.events.length === 0 && <li>Nothing went wrong{play.told.days_late > 0 ? ` but ${play.told.days_late} days late` : ''}.</li>}
          </Happened>
        </>
      )}
    </>
  )
}

/** How the play stands where the playhead is. */
function Reading({ play }: { play: PlayTold }) {
  const { assessment } = useShown()
  const { moment } = useMoment()
  const units = useUnits()
  const km = assessment.moments?.km[moment] ?? 0
  const next = play.km.findIndex((at) => at >= km)
  const i = next < 0 ? play.km.length - 1 : next
  const when = play.when[i] ?? 0
  const fuel = play.fuel_kg[i] ?? 0
  return (
    <p role="status" style={{ fontSize: 'var(--size-small)' }}>
      <b>
        {units.show(km, 'distance')}: day {Math.floor(when) + 1}, {clock((when % 1) * 24)}
      </b>
      , {units.show(play.water_l[i] ?? 0, 'volume')} of water, {units.show(play.food_kg[i] ?? 0, 'mass')} of food
      {fuel > 0 && `, ${units.show(fuel, 'mass', 2)} of fuel`} on board
    </p>
  )
}
