/** The days as the core cut them: how far, when, how hot and cold; nights can be set, moved and followed by rest. */
import { memo } from 'react'
import type { Day, Road } from '../../api/client'
import { useDesk } from '../../api/tour'
import { aboutAir } from '../../instruments/air'
import { useGoToKm } from '../../instruments/moment'
import { Button, Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { useNights } from './nights'
import { useStarts } from './starts'
import { Sheet } from '../../ui/sheet'
import { shortDate } from '../../ui/dates'
import { clock } from '../../ui/dates'
import { campPast } from './words'

const NEAR_KM = 0.3

export const DaysTable = memo(function DaysTable({ road, now }: { road: Road; now: number }) {
  const { assessment } = useDesk()
  const current = assessment.days.find((d) => d.number === now)
  const typed = road.typed_days.length > 0 && assessment.profile?.lat_deg === null
  return (
    <>
      {current && !typed && <DayBars day={current} road={road} last={current.number === assessment.days.length} />}
      <Sheet>
        <thead>
          <tr>
            <th className="n">Day</th>
            <th>Date</th>
            <th className="n">Far</th>
            <th className="n">Up</th>
            <th className="n">Riding</th>
            <th>Arrive</th>
            <th className="n">{aboutAir(assessment)}Cold, hot</th>
            <th className="n">Rain</th>
            <th>Ends at</th>
          </tr>
        </thead>
        <tbody>
          {assessment.days.map((day) => (
            <DayRow key={day.number} day={day} now={day.number === now} />
          ))}
        </tbody>
      </Sheet>
    </>
  )
})

/** What can be said of a day: where its night is, and when it sets out. */
function DayBars({ day: current, road, last }: { day: Day; road: Road; last: boolean }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const { move, free, rest } = useNights()
  const starts = useStarts()
  const set = road.nights.find((n) => Math.abs(n.at_km - current.to_km) < NEAR_KM)
  return (
    <>
      {!last && (
        <div style={{ display: 'flex', gap: 6, flexWrap: 'wrap', alignItems: 'center' }}>
          <Muted as="span">
            Night after day {current.number}, {set ? 'set by you' : 'where the day is full'}:
          </Muted>
          <Button $small onPress={() => move(current, -5)}>
            {units.show(5, 'distance')} earlier
          </Button>
          <Button $small onPress={() => move(current, 5)}>
            {units.show(5, 'distance')} later
          </Button>
          <Button $small onPress={() => rest(current, 1)}>
            Rest a day after it
          </Button>
          {set && set.rest_days > 0 && (
            <Button $small onPress={() => rest(current, -1)}>
              Rest a day less
            </Button>
          )}
          {set && (
            <Button $small onPress={() => free(current)}>
              Let it move again
            </Button>
          )}
        </div>
      )}
      {current.night_around_k > 0 && (
        <Muted>
          Night {current.number}: {aboutAir(assessment)}
          {units.show(current.night_low_c, 'temperature')} planned; nine nights in ten lie between{' '}
          {units.figure(current.mean_min_c - current.night_around_k, 'temperature')} and{' '}
          {units.show(current.mean_min_c + current.night_around_k, 'temperature')}
          {current.width_k > 0 && ', what is not known of the place counted'}.
        </Muted>
      )}
      {!current.rest && (
        <div style={{ display: 'flex', gap: 6, flexWrap: 'wrap', alignItems: 'center', marginTop: 6 }}>
          <Muted as="span">
            Day {current.number} sets out at {clock(current.start_h)}, {starts.own(current) ? 'set by you' : 'as the others'}:
          </Muted>
          <Button $small onPress={() => starts.move(current, -0.5)}>
            Half an hour earlier
          </Button>
          <Button $small onPress={() => starts.move(current, 0.5)}>
            Half an hour later
          </Button>
          {starts.own(current) && (
            <Button $small onPress={() => starts.free(current)}>
              As the others again
            </Button>
          )}
        </div>
      )}
    </>
  )
}

function DayRow({ day, now }: { day: Day; now: boolean }) {
  const { assessment } = useDesk()
  const goToKm = useGoToKm()
  const units = useUnits()
  return (
    <tr aria-current={now}>
      <td className="n">
        <button type="button" className="plain" onClick={() => goToKm(day.from_km)}>
          {day.number}
        </button>
      </td>
      <td style={{ whiteSpace: 'nowrap' }}>{shortDate(day.date)}</td>
      {day.rest ? (
        <td colSpan={4}>rest</td>
      ) : (
        <>
          <td className="n">
            {units.show(day.distance_km, 'distance')}
            {day.detour_km > 0 && ` + ${units.show(day.detour_km, 'distance', 1)} off the road`}
          </td>
          <td className="n">{units.show(day.ascent_m, 'elevation')}</td>
          <td className="n">
            {units.show(day.riding_hours, 'hours')}
            {day.transfer_hours > 0 && ` + ${units.show(day.transfer_hours, 'hours')} not ridden`}
          </td>
          <td title={sun(day)}>
            {clock(day.arrive_h)}
            {day.sun === 'stays_down' ? (
              <b> no sun</b>
            ) : day.dark ? (
              <b> dark</b>
            ) : day.starts_dark ? (
              <b> starts dark</b>
            ) : day.sun === 'stays_up' ? (
              ' sun all night'
            ) : null}
          </td>
        </>
      )}
      <td className="n" title={`mean ${units.show(day.mean_min_c, 'temperature')} to ${units.show(day.mean_max_c, 'temperature')}`}>
        {aboutAir(assessment)}
        {units.figure(day.night_low_c, 'temperature')} to {units.show(day.day_high_c, 'temperature')}
      </td>
      <td className="n">{day.rain_chance > 0 ? units.show(day.rain_chance, 'share', 0) : ''}</td>
      <td>
        {day.night_at || `wild camp${campPast(day, units)}`}
        {!day.night_water && ', no sure water'}
        {day.night_set_km !== null && ' (set)'}
      </td>
    </tr>
  )
}

const sun = (day: Day) =>
  day.sun === 'stays_up'
    ? 'the sun does not set'
    : day.sun === 'stays_down'
      ? 'the sun does not rise'
      : day.sunrise_h === null || day.sunset_h === null
        ? ''
        : `sun ${clock(day.sunrise_h)} to ${clock(day.sunset_h)}${day.dusk_h === null ? '' : `, twilight to ${clock(day.dusk_h)}`}`
