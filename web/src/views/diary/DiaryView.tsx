/** The diary: where the party is, what comes next, four big buttons and more beside; for one hand, gloves and rain. */
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api } from '../../api/client'
import { useDesk } from '../../api/tour'
import { LoadHistory } from '../../instruments/LoadHistory'
import { RiddenRibbon, useRiddenCourse } from '../../instruments/RiddenRibbon'
import { useFromMemory } from '../../offline/kept'
import { useAuthor } from '../../offline/useAuthor'
import { Actions, Button, Muted, RailLine } from '../../ui/controls'
import { daysBetween, shortDate, today } from '../../ui/dates'
import { Dot, Icon, Wedge } from '../../ui/icons'
import { Loading } from '../../ui/notices'
import { useUnits } from '../../ui/preferences'
import { narrow, phone, sign } from '../../ui/theme'
import { useHeight, useNarrow } from '../../ui/usePhone'
import { ComesNext } from './ComesNext'
import { DiaryLand } from './DiaryLand'
import { Entries } from './Entries'
import { type OpenVerb, VerbPanel } from './Panels'
import { Rest } from './Rest'
import { useDiary } from './useDiary'
import { VerbIcon } from './VerbIcon'
import { HERE_KM, Where } from './Where'
import { VERBS, wallOf, wordsOf } from './words'

const Stage = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 390px minmax(0, 1fr) 320px;
  gap: 26px;
  padding: 0 20px;
  > * {
    min-height: 0;
    overflow: auto;
    padding-bottom: 24px;
    scrollbar-width: thin;
  }
  ${narrow} {
    display: block;
    overflow: auto;
    > * {
      overflow: visible;
    }
  }
  ${phone} {
    padding: 0;
    > * {
      padding: 0 14px 20px;
    }
  }
`
/** Days and land below it all, where there is room for them. */
const Page = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
`
const Plate = styled.p`
  display: flex;
  gap: 8px;
  align-items: center;
  border: 1.5px dashed var(--ink);
  padding: 4px 10px;
  margin: 8px 0;
  font-size: var(--size-note);
  font-weight: 620;
  font-stretch: var(--width-narrow);
`
const Board = styled.div`
  display: grid;
  grid-template-columns: 54px 1fr 54px;
  background: var(--now);
  color: var(--onnow);
  border: 2px solid var(--onnow);
  margin: 8px 0 0;
  button {
    display: grid;
    place-items: center;
    min-height: 56px;
  }
  button:disabled {
    opacity: 0.35;
  }
  h2 {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 780;
    font-size: 18px;
    line-height: 22px;
  }
  > div {
    padding: 6px 0;
    text-align: center;
    min-width: 0;
    font-size: var(--size-small);
    font-weight: 600;
  }
  ${phone} {
    margin: 6px -8px 0;
  }
`
const Four = styled.div<{ $row?: boolean }>`
  display: grid;
  grid-template-columns: repeat(${(p) => (p.$row ? 3 : 2)}, 1fr);
  gap: 8px;
  margin-top: 10px;
  > button {
    border: 2px solid var(--ink);
    border-radius: 3px;
    background: var(--tag);
    min-height: ${(p) => (p.$row ? 84 : 92)}px !important;
    padding: 12px 14px;
    display: flex;
    flex-direction: column;
    justify-content: space-between;
    font-size: ${(p) => (p.$row ? 16 : 18)}px;
    font-weight: 680;
    text-align: left;
  }
`
const More = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  gap: 8px;
  margin-top: 8px;
  > button {
    min-height: 52px;
    padding: 0 8px;
  }
`
const Last = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 10px;
  > p {
    flex: 1;
    font-size: var(--size-small);
  }
`
const BIG: OpenVerb[] = ['used', 'sent_home', 'broke', 'ran_out']
const BESIDE: OpenVerb[] = [
  'drank', 'ate', 'filled', 'bought', 'left', 'slept', 'spent', 'charged', 'packed_in', 'lost', 'given_away', 'swapped', 'mended', 'wore', 'pressure', 'oiled',
  'washed', 'wet_through', 'hurt', 'hazard', 'note',
] // prettier-ignore
/** Who has said nothing for longer is not asked where they are [days]. */
const LONGEST_SILENCE = 45
/** Setting out so many days from the planned date moves the tour: that is asked [days]. */
const NEARLY_THEN = 14
/** Noted before leaving and after coming home: seen under Pack and Debrief. */
const AT_HOME = ['weighed', 'checked', 'verdict']

export function DiaryView() {
  const { sheet, tour } = useDesk()
  const units = useUnits()
  const diary = useDiary()
  const memory = useFromMemory()
  const narrowed = useNarrow()
  const wide = useHeight() === 'enough' && !narrowed
  const [author, setAuthor] = useAuthor()
  const [open, setOpen] = useState<OpenVerb | null>(null)
  const [more, setMore] = useState(false)
  const [moved, setMoved] = useState<number | null>(null)
  const [trouble, setTrouble] = useState('')
  const [leaving, setLeaving] = useState(false)
  const off = Math.abs(daysBetween(sheet.start_date, today())) > NEARLY_THEN
  const now = diary.now
  const course = useRiddenCourse(wide ? now : undefined)
  if (!now) return <Loading />
  const km = moved ?? now.at_km
  const silent = now.begun && !now.over ? daysBetween(now.date, today()) : 0
  const road = now.days.length > 0
  const places = [...new Set(sheet.road.stops.map((s) => s.at_km))].sort((a, b) => a - b)
  const before = places.findLast((p) => p < km - 0.5)
  const after = places.find((p) => p > km + 0.5)
  const place = sheet.road.stops.find((s) => Math.abs(s.at_km - km) < HERE_KM)
  const gone = new Set(Object.keys(now.gone))
  for (const one of diary.entries)
    if (one.state === 'waiting' && ['sent_home', 'lost', 'given_away'].includes(one.entry.verb)) gone.add(one.entry.about)
  const last = diary.entries.findLast((one) => !AT_HOME.includes(one.entry.verb))
  const note = async (drafts: Parameters<typeof diary.note>[0][], picture?: Blob) => {
    setTrouble('')
    try {
      for (const [i, draft] of drafts.entries()) await diary.note({ km, ...draft }, i === 0 ? picture : undefined)
      setOpen(null)
      setMore(false)
    } catch (e) {
      setTrouble(`This device could not keep it: ${e instanceof Error ? e.message : String(e)}. Note it on paper, and free some room.`)
    }
  }
  const lay = (file: File) =>
    void api.layTrack(tour.id, file).then(
      (laid) => {
        setMoved(laid.km)
        setTrouble('')
      },
      (e: unknown) => setTrouble(e instanceof Error ? e.message : String(e)),
    )
  const page = (
    <Stage>
      <section aria-label="Today">
        {(diary.waiting > 0 || memory) && (
          <Plate role="status">
            <Icon name="pin" size={16} />
            Kept on this device{diary.waiting > 0 ? `, ${diary.waiting} to send` : ''}
            {memory ? '. What is shown is what was last told.' : '.'}
          </Plate>
        )}
        <Board>
          <button
            type="button"
            aria-label="Back to the place before"
            disabled={before === undefined}
            onClick={() => before !== undefined && setMoved(before)}
          >
            <Icon name="left" />
          </button>
          <div>
            <h2>
              {now.begun ? `Day ${now.day}${place ? `, ${Math.abs(place.at_km - km) < 0.6 ? '' : 'near '}${place.name}` : ''}` : 'Before the start'}
            </h2>
            {shortDate(now.date)}
            {now.wall ? `, ${now.wall.slice(11, 16)}` : ''}
            {road && `, ${units.show(km, 'distance', 0)} of ${units.show(now.days.at(-1)?.to_km ?? 0, 'distance', 0)}`}
          </div>
          <button
            type="button"
            aria-label="On to the next place"
            disabled={after === undefined}
            onClick={() => after !== undefined && setMoved(after)}
          >
            <Icon name="right" />
          </button>
        </Board>
        {!road ? (
          <Muted style={{ marginTop: 8 }}>
            This tour has no road yet, so the diary knows neither places nor what is left. <Link to="../road">Say where you ride</Link>, or note what
            happens all the same.
          </Muted>
        ) : (
          !wide && <DiaryLand now={now} km={km} />
        )}
        <h2 style={{ fontSize: 16, lineHeight: '21px', fontWeight: 680, marginTop: 8 }}>{units.say(now.sentence)}</h2>
        <Muted>{units.say(now.second)}</Muted>
        {silent > 0 && silent <= LONGEST_SILENCE && (
          <p>
            Last noted {silent === 1 ? 'yesterday' : `${silent} days ago`}. Choose the place above, or the kilometre under More, and the rest is
            planned from where you are.
          </p>
        )}
        {moved !== null && Math.abs(moved - now.at_km) > 0.5 && (
          <p style={{ marginTop: 8 }}>
            <Button $wanted onPress={() => void note([{ verb: 'here' }]).then(() => setMoved(null))}>
              I am here: {units.show(km, 'distance')}
            </Button>
          </p>
        )}
        {!now.begun && !now.over && (
          <p style={{ marginTop: 8 }}>
            {leaving && (
              <span role="alert" style={{ display: 'block', marginBottom: 8 }}>
                This tour begins on {shortDate(sheet.start_date)}. Setting out today moves all of its dates.
              </span>
            )}
            <Button
              $wanted
              onPress={() => (off && !leaving ? setLeaving(true) : void note([{ verb: 'set_out' }]))}
              style={{ minHeight: 64, width: '100%' }}
            >
              {leaving ? `Set out today, ${shortDate(today())}` : 'Set out now'}
            </Button>
            {leaving && <Button onPress={() => setLeaving(false)}>Not yet</Button>}
          </p>
        )}
        {trouble && (
          <p role="alert">
            <b>{trouble}</b>
          </p>
        )}
        {open ? (
          <>
            <VerbPanel
              key={open}
              verb={open}
              now={now}
              gone={gone}
              onKeep={(drafts, picture) => void note(drafts, picture)}
              onClose={() => setOpen(null)}
            />
            <Four $row>
              {BIG.filter((v) => v !== open)
                .slice(0, 3)
                .map((v) => (
                  <button key={v} type="button" onClick={() => setOpen(v)}>
                    <VerbIcon verb={v} size={34} />
                    {VERBS[v]}
                  </button>
                ))}
            </Four>
          </>
        ) : (
          <>
            {now.planned.length > 0 && (
              <ComesNext planned={now.planned.slice(0, 3)} entries={diary.entries} onDone={(draft) => void note([draft])} onOther={setOpen} />
            )}
            <Four>
              {BIG.map((v) => (
                <button key={v} type="button" onClick={() => setOpen(v)}>
                  <VerbIcon verb={v} />
                  {VERBS[v]}
                </button>
              ))}
            </Four>
            <Last>
              <p>{last ? `Last: ${wordsOf(last.entry, sheet, units)}, ${wallOf(last.entry).time}` : 'Nothing noted yet.'}</p>
              {last && <Button onPress={() => void diary.undo(last.entry)}>Undo it</Button>}
              <Button aria-expanded={more} onPress={() => setMore(!more)}>
                More
              </Button>
            </Last>
            {now.tonight.length > 0 && (
              <Actions style={{ justifyContent: 'flex-start', marginTop: 8 }}>
                {now.tonight.slice(0, 2).map((q) => (
                  <Button
                    key={q.key}
                    onPress={() =>
                      q.key === 'slept'
                        ? setOpen('slept')
                        : q.key === 'bolts'
                          ? void note([{ verb: 'checked', about: q.about, word: 'done' }])
                          : setOpen('left')
                    }
                  >
                    {q.words}
                  </Button>
                ))}
              </Actions>
            )}
            {more && (
              <>
                <More>
                  {BESIDE.map((v) => (
                    <Button key={v} onPress={() => setOpen(v)}>
                      {VERBS[v]}
                    </Button>
                  ))}
                  {now.begun && !now.over && <Button onPress={() => void note([{ verb: 'arrived' }])}>Arrived</Button>}
                </More>
                <Where km={km} onKm={setMoved} onTrack={lay} />
                <Actions style={{ justifyContent: 'flex-start', marginTop: 8 }}>
                  {sheet.riders.map((r) => (
                    <Button key={r.id} $small aria-pressed={r.name === author} onPress={() => setAuthor(r.name)}>
                      <Dot on={r.name === author} />I am {r.name}
                    </Button>
                  ))}
                </Actions>
              </>
            )}
          </>
        )}
      </section>
      <section aria-label="What was noted">
        {road && (
          <>
            <RailLine style={{ marginTop: 8 }}>
              <Icon name="load" size={17} />
              On the bikes
              <em>
                {units.show(now.history.start_kg, 'mass')} at the start, {units.show(now.history.now_kg, 'mass')} now
              </em>
            </RailLine>
            {!wide && <LoadHistory history={now.history} days={now.days.length} today={now.day} />}
            <Muted>Dashed as planned, filled as ridden, diamonds are weighings. What is not noted went as planned.</Muted>
          </>
        )}
        {now.doubts.length > 0 && (
          <ul aria-label="Does not go together" style={{ marginTop: 8 }}>
            {now.doubts.map((d) => (
              <li key={d.kind + d.entry_ids.join()} style={{ display: 'flex', gap: 8, padding: '4px 0' }}>
                <Wedge grade="worth_knowing" size={16} />
                <span>{units.say(d.words)}</span>
              </li>
            ))}
          </ul>
        )}
        <Entries entries={diary.entries.filter((one) => !AT_HOME.includes(one.entry.verb))} onUndo={(one) => void diary.undo(one.entry)} />
      </section>
      {road && <Rest now={now} />}
    </Stage>
  )
  return wide && road ? (
    <Page>
      {page}
      <RiddenRibbon now={now} course={course} />
    </Page>
  ) : (
    page
  )
}
