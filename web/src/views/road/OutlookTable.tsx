/** What a weather service tells of the days from the playhead on, beside what was planned for. */
import { dayMonth } from '../../ui/dates'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, Problem } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useMoment } from '../../instruments/moment'
import { Button, Muted, RailLine, Row } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../../ui/sheet'

export function OutlookTable() {
  const { tour, assessment } = useDesk()
  const { moment } = useMoment()
  const units = useUnits()
  const here = assessment.moments?.day[moment] ?? 1
  const [day, setDay] = useState<number | null>(null)
  const { data, error, isFetching, refetch } = useQuery({
    queryKey: ['outlook', tour.id, tour.revision, day],
    queryFn: () => api.outlook(tour.id, day ?? 1),
    enabled: day !== null,
    retry: false,
    staleTime: Infinity,
  })
  const ask = () => (day === here ? void refetch() : setDay(here))
  return (
    <>
      <RailLine>Five days ahead</RailLine>
      <Row $min={220}>
        <Button onPress={ask} isDisabled={isFetching || !tour.has_track}>
          {isFetching ? 'Asking the service …' : `Ask for day ${here} and the four after it`}
        </Button>
        <Muted>
          {tour.has_track
            ? 'As told on the morning of the day under the playhead; nights at the height of the camp.'
            : 'An outlook is told for a place: bring a track first.'}
        </Muted>
      </Row>
      {error instanceof Problem && (
        <p role="alert">
          <b>{error.message}.</b> {error.body.mend}
        </p>
      )}
      {data && (
        <>
          {data.trouble && (
            <p role="alert">
              <b>{data.trouble}.</b>{' '}
              {data.stale && data.told_at
                ? `Below is what it told at ${new Date(data.told_at).toLocaleString('en-GB')}: old, judge for yourself.`
                : 'Go by the plan, and ask again later.'}
            </p>
          )}
          {data.days.length > 0 && (
            <Sheet>
              <thead>
                <tr>
                  <th className="n">Day</th>
                  <th>Date</th>
                  <th className="n">Night’s low</th>
                  <th className="n">planned</th>
                  <th className="n">Day’s high</th>
                  <th className="n">planned</th>
                  <th className="n">Rain, if it comes</th>
                  <th className="n">Wind</th>
                  <th>Beyond the plan</th>
                </tr>
              </thead>
              <tbody>
                {data.days.map((d) => (
                  <tr key={d.number}>
                    <td className="n">{d.number}</td>
                    <td>{dayMonth(d.date)}</td>
                    <td className="n">{units.show(d.low_c, 'temperature')}</td>
                    <td className="n">
                      <Muted as="span">{units.show(d.planned_low_c, 'temperature')}</Muted>
                    </td>
                    <td className="n">{units.show(d.high_c, 'temperature')}</td>
                    <td className="n">
                      <Muted as="span">{units.show(d.planned_high_c, 'temperature')}</Muted>
                    </td>
                    <td className="n">
                      {units.show(d.rain_chance, 'share')}, {d.rain_mm.toFixed(0)}
                      {'\u00a0'}mm
                    </td>
                    <td className="n">
                      {d.wind_ms.toFixed(1)}
                      {'\u00a0'}m/s
                    </td>
                    <td>{[d.colder && 'colder', d.hotter && 'hotter'].filter(Boolean).join(', ')}</td>
                  </tr>
                ))}
              </tbody>
            </Sheet>
          )}
          {data.told_by && <Muted>Told by {data.told_by}.</Muted>}
        </>
      )}
    </>
  )
}
