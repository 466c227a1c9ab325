/** The diary: where the party is, what comes next, four big buttons and more beside; for one hand, gloves and rain. */
import { Link } from 'react-router'
import styled from 'styled-components'
import type { Now } from '../../api/client'
import { RiddenRibbon, useRiddenCourse } from '../../instruments/RiddenRibbon'
import { useFromMemory } from '../../api/fromMemory'
import { Button, Muted } from '../../ui/controls'
import { daysBetween, today as todayIs } from '../../ui/dates'
import { Icon } from '../../ui/icons'
import { Loading } from '../../ui/notices'
import { useUnits } from '../../ui/preferences'
import { narrow, phone } from '../../ui/theme'
import { useHeight, useNarrow } from '../../ui/usePhone'
import { Deeds } from './Deeds'
import { DiaryLand } from './DiaryLand'
import { Noted } from './Noted'
import { PlaceBoard } from './PlaceBoard'
import { Rest } from './Rest'
import { SetOut } from './SetOut'
import { type Diary, useDiary } from './useDiary'
import { type Today, useToday } from './useToday'

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
/** Who has said nothing for longer is not asked where they are [days]. */
const LONGEST_SILENCE = 45

export function DiaryView() {
  const diary = useDiary()
  return diary.now ? <Written diary={diary} now={diary.now} /> : <Loading />
}

function Written({ diary, now }: { diary: Diary; now: Now }) {
  const narrowed = useNarrow()
  const wide = useHeight() === 'enough' && !narrowed
  const course = useRiddenCourse(wide ? now : undefined)
  const today = useToday(diary, now)
  const page = (
    <Stage>
      <AtHand today={today} wide={wide} />
      <Noted today={today} drawn={wide} />
      {today.road && <Rest now={now} />}
    </Stage>
  )
  return wide && today.road ? (
    <Page>
      {page}
      <RiddenRibbon now={now} course={course} />
    </Page>
  ) : (
    page
  )
}

/** All that one hand reaches: the place, what is said of it, and the deeds. */
function AtHand({ today, wide }: { today: Today; wide: boolean }) {
  const { diary, now, km, moved, setMoved, road, trouble, note } = today
  const units = useUnits()
  const memory = useFromMemory()
  const silent = now.begun && !now.over ? daysBetween(now.date, todayIs()) : 0
  return (
    <section aria-label="Today">
      {(diary.waiting > 0 || memory) && (
        <Plate role="status">
          <Icon name="pin" size={16} />
          Kept on this device{diary.waiting > 0 ? `, ${diary.waiting} to send` : ''}
          {memory ? '. What is shown is what was last told.' : '.'}
        </Plate>
      )}
      <PlaceBoard today={today} />
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
          Last noted {silent === 1 ? 'yesterday' : `${silent} days ago`}. Choose the place above, or the kilometre under More, and the rest is planned
          from where you are.
        </p>
      )}
      {moved !== null && Math.abs(moved - now.at_km) > 0.5 && (
        <p style={{ marginTop: 8 }}>
          <Button $wanted onPress={() => void note([{ verb: 'here' }]).then(() => setMoved(null))}>
            I am here: {units.show(km, 'distance')}
          </Button>
        </p>
      )}
      {!now.begun && !now.over && <SetOut onSetOut={() => void note([{ verb: 'set_out' }])} />}
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      <Deeds today={today} />
    </section>
  )
}
