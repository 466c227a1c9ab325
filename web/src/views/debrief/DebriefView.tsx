/** The debrief: planned and ridden over the days, things against their use, rates learned, and the list for next time. */
import styled from 'styled-components'
import { api } from '../../api/client'
import { useDesk } from '../../api/tour'
import { LoadHistory } from '../../instruments/LoadHistory'
import { RiddenRibbon, useRiddenCourse } from '../../instruments/RiddenRibbon'
import { Ribbon } from '../../instruments/Ribbon'
import { Muted, RailLine } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { Icon } from '../../ui/icons'
import { Loading, Notice } from '../../ui/notices'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { useHeight, useNarrow } from '../../ui/usePhone'
import { useDiary } from '../diary/useDiary'
import { LoadSteps } from './LoadSteps'
import { NextTime } from './NextTime'
import { Rates } from './Rates'
import { BUTTONS_PX, Stories } from './Stories'
import { useDebrief } from './useDebrief'

const Stage = styled.div`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 8px 20px 24px;
  ${phone} {
    padding: 8px 14px 20px;
  }
`
/** The ribbon from the edge of the page, and beside it, over the verdicts, what changed the load. */
const Top = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${BUTTONS_PX}px;
  margin-left: -20px;
`
const Two = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 440px), 1fr));
  gap: 26px;
  margin-top: 16px;
`
export function DebriefView() {
  const { tour } = useDesk()
  const units = useUnits()
  const narrowed = useNarrow()
  const wide = useHeight() === 'enough' && !narrowed
  const { now } = useDiary()
  const debrief = useDebrief()
  const { told, error, others, target, setInto, said, setSaid, judge, tell, pending } = debrief
  const course = useRiddenCourse(wide ? now : undefined)
  if (!told || !now) return error ? <Notice urgent>{String(error.message)}</Notice> : <Loading />
  if (!now.begun && !told.stories.some((s) => s.verdict)) {
    return (
      <Stage>
        <Muted>
          This tour is not ridden yet. Its diary begins under Diary with Set out; when it is over, each thing is unpacked here with one touch.
        </Muted>
        <Ribbon />
      </Stage>
    )
  }
  return (
    <Stage>
      {said && (
        <Notice urgent={said.trouble} onClose={() => setSaid(null)}>
          {said.words}
        </Notice>
      )}
      <RailLine>
        <Icon name="load" size={17} />
        {told.days} days, {units.show(told.km, 'distance')}: {told.unpacked} of {told.stories.length} things unpacked
        <em>dashed planned, filled ridden, diamonds weighed</em>
      </RailLine>
      {wide ? (
        <Top>
          <RiddenRibbon now={now} course={course} />
          <LoadSteps history={now.history} />
        </Top>
      ) : (
        <LoadHistory history={now.history} days={Math.max(now.days.length, 1)} today={now.day} height={150} />
      )}
      <Stories
        stories={told.stories}
        days={Math.max(now.days.length, 1)}
        along={wide ? course?.days : undefined}
        pending={pending}
        onJudge={(thing, verdict) => judge(thing, verdict)}
      />
      <Two>
        <section aria-label="What your days say">
          <RailLine>
            <Icon name="stores" size={17} />
            What your days say
            <em>bar: nine in ten; ring: what was assumed</em>
          </RailLine>
          {others.length > 0 && target && (
            <Choice label="Offered to" value={target.id} options={others.map((t) => ({ id: t.id, text: t.name }))} onChange={setInto} />
          )}
          <Rates
            rates={told.rates}
            target={target?.name}
            onTake={(rate) => target && void tell(() => api.takeRate(tour.id, target.id, target.revision, rate))}
          />
        </section>
        <NextTime debrief={{ ...debrief, told }} />
      </Two>
    </Stage>
  )
}
