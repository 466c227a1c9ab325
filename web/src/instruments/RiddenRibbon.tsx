/** The ribbon of a tour as it was ridden, with what was planned over it. */
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, type Now, type RiddenCourse } from '../api/client'
import { DrawnAs, useDesk } from '../api/tour'
import { LoadHistory } from './LoadHistory'
import { momentAt, PlayheadProvider } from './moment'
import { Ribbon } from './Ribbon'

const RIDDEN_PX = 252

/** The tour as it went, asked anew whenever something was noted that changes it. */
export function useRiddenCourse(now: Now | undefined): RiddenCourse | undefined {
  const { tour } = useDesk()
  const { data } = useQuery({
    queryKey: ['course', tour.id, tour.revision, now?.at_km, now?.sentence, now?.history],
    queryFn: () => api.riddenCourse(tour.id),
    enabled: now !== undefined,
    placeholderData: (before) => before,
  })
  return data
}

/** With a playhead of its own, which stands where the party is. Without an answer yet: the days alone. */
export function RiddenRibbon({ now, course }: { now: Now; course: RiddenCourse | undefined }) {
  const { sheet, assessment } = useDesk()
  const drawn = useMemo(
    () => ({ sheet, assessment: { ...assessment, findings: [], passings: [], ...(course && { days: course.days, moments: course.moments }) } }),
    [sheet, assessment, course],
  )
  if (!course?.moments || !assessment.moments)
    return <LoadHistory history={now.history} days={Math.max(now.days.length, 1)} today={now.day} height={RIDDEN_PX} />
  return (
    <DrawnAs value={drawn}>
      <PlayheadProvider first={momentAt(course.moments, course.at_km)}>
        <Ribbon height={RIDDEN_PX} skylineHeight={38} told={{ planned: assessment.moments, history: now.history, at_km: course.at_km }} />
      </PlayheadProvider>
    </DrawnAs>
  )
}
