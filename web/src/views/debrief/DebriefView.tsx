/** The debrief: planned and ridden over the days, things against their use, rates learned, and the list for next time. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, Problem } from '../../api/client'
import { useDesk } from '../../api/tour'
import { LoadHistory } from '../../instruments/LoadHistory'
import { RiddenRibbon, useRiddenCourse } from '../../instruments/RiddenRibbon'
import { Ribbon } from '../../instruments/Ribbon'
import { note, useWaiting } from '../../offline/queue'
import { useAuthor } from '../../offline/useAuthor'
import { Button, Muted, RailLine } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { Icon } from '../../ui/icons'
import { Loading, Notice } from '../../ui/notices'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { useHeight, useNarrow } from '../../ui/usePhone'
import { useDiary } from '../diary/useDiary'
import { Rates } from './Rates'
import { LoadSteps } from './LoadSteps'
import { BUTTONS_PX, Stories } from './Stories'
import { OF_BAGS, OF_RULES } from './verdicts'

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
const NextLines = styled.ul`
  li {
    display: grid;
    grid-template-columns: 74px 1fr auto;
    gap: 10px;
    padding: 7px 0;
    border-bottom: 1px solid var(--hair);
  }
  b {
    font-stretch: 112%;
    font-weight: 750;
  }
`
const DEEDS = { leave: 'Leave', post: 'Post', replace: 'Replace', take: 'Take' } as const

export function DebriefView() {
  const { tour, sheet } = useDesk()
  const units = useUnits()
  const queries = useQueryClient()
  const narrowed = useNarrow()
  const wide = useHeight() === 'enough' && !narrowed
  const diary = useDiary()
  const { waiting } = useWaiting()
  const [author] = useAuthor()
  const { data: tours } = useQuery({ queryKey: ['tours'], queryFn: api.tours })
  const others = (tours?.tours ?? []).filter((t) => t.id !== tour.id)
  const [into, setInto] = useState('')
  const target = others.find((t) => t.id === into) ?? others[0]
  const key = ['debrief', tour.id, target?.id ?? '', target?.revision ?? 0]
  const { data, error } = useQuery({ queryKey: key, queryFn: () => api.debrief(tour.id, target?.id ?? ''), placeholderData: (before) => before })
  const course = useRiddenCourse(wide ? diary.now : undefined)
  const [said, setSaid] = useState<{ words: string; trouble: boolean } | null>(null)
  if (!data || !diary.now) return error ? <Notice urgent>{String(error.message)}</Notice> : <Loading />
  const now = diary.now
  const judge = (about: string, word: string) => void note(tour.id, { verb: 'verdict', about, word, author })
  const tell = async (call: () => Promise<{ remarks: string[] }>) => {
    try {
      const { remarks } = await call()
      setSaid({ words: remarks.join(' '), trouble: false })
      await Promise.all([
        queries.invalidateQueries({ queryKey: ['tours'] }),
        queries.invalidateQueries({ queryKey: ['tour'] }),
        queries.invalidateQueries({ queryKey: ['glance'] }),
      ])
    } catch (e) {
      setSaid({ words: e instanceof Problem ? `${e.body.detail}. ${e.body.mend ?? ''}` : String(e), trouble: true })
    }
  }
  // A verdict on its way holds here already.
  const pending = new Map(waiting.filter((w) => w.tour === tour.id && w.entry.verb === 'verdict').map((w) => [w.entry.about, w.entry.word]))
  const bags = sheet.rig.bikes.flatMap((b) => b.carriers).filter((c) => data.stories.some((s) => s.bag === c.name))
  const verdictOf = (about: string) => pending.get(about) ?? data.lessons.find((l) => l.about === about)?.verdict ?? ''
  if (!now.begun && !data.stories.some((s) => s.verdict)) {
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
        {data.days} days, {units.show(data.km, 'distance')}: {data.unpacked} of {data.stories.length} things unpacked
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
        stories={data.stories}
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
            rates={data.rates}
            target={target?.name}
            onTake={(rate) => target && void tell(() => api.takeRate(tour.id, target.id, target.revision, rate))}
          />
        </section>
        <section aria-label="For next time">
          <RailLine>
            <Icon name="kit" size={17} />
            For next time
            <em>
              {units.show(data.kg, 'mass')}, {units.show(data.litres, 'volume')}, {units.show(data.minutes_a_day, 'minutes')} a day less
            </em>
          </RailLine>
          <NextLines>
            {data.next_time.map((line) => (
              <li key={line.deed}>
                <b>{DEEDS[line.deed]}</b>
                <span>{line.names.join(', ')}</span>
                <span>
                  {line.kg > 0 ? '+' : ''}
                  {units.show(line.kg, 'mass')}
                </span>
              </li>
            ))}
          </NextLines>
          {data.next_time.length === 0 && <Muted>Nothing yet: say of each thing how it did.</Muted>}
          <p style={{ margin: '10px 0' }}>
            <Button $wanted onPress={() => void tell(() => api.handOn(tour.id))}>
              Hand it to the library{target ? ` and ${target.name}` : ''}
            </Button>
          </p>
          <Muted>The tour is then over. Its things say at the next choice what this tour taught; nothing leaves a tour by itself.</Muted>
          <RailLine style={{ marginTop: 14 }}>
            <Icon name="pack" size={17} />
            Bags
          </RailLine>
          {bags.map((bag) => (
            <Judged key={bag.id} name={bag.name} value={verdictOf(bag.id)} options={OF_BAGS} onChange={(word) => judge(bag.id, word)} />
          ))}
          <RailLine style={{ marginTop: 14 }}>
            <Icon name="tick" size={17} />
            Rules
          </RailLine>
          {Object.entries({ nights: 'Nights', clothes: 'Clothes', water: 'Water', food: 'Food', fuel: 'Fuel', packing: 'Packing' }).map(
            ([about, name]) => (
              <Judged key={about} name={name} value={verdictOf(about)} options={OF_RULES} onChange={(word) => judge(about, word)} />
            ),
          )}
          {data.lessons.length > 0 && (
            <ul style={{ marginTop: 8 }}>
              {data.lessons.map((l) => (
                <li key={l.about} style={{ padding: '3px 0' }}>
                  {units.say(l.words)}
                </li>
              ))}
            </ul>
          )}
        </section>
      </Two>
    </Stage>
  )
}

const Judge = styled.div`
  display: grid;
  grid-template-columns: 1fr 190px;
  align-items: center;
  gap: 10px;
  padding: 3px 0;
`

function Judged({
  name,
  value,
  options,
  onChange,
}: {
  name: string
  value: string
  options: Record<string, string>
  onChange: (word: string) => void
}) {
  return (
    <Judge>
      <span>{name}</span>
      <Choice
        label={`Verdict on ${name}`}
        hidden
        value={value in options ? value : 'none'}
        options={[{ id: 'none', text: 'Not said' }, ...Object.entries(options).map(([id, text]) => ({ id, text }))]}
        onChange={(word) => word !== 'none' && onChange(word)}
      />
    </Judge>
  )
}
