/** Pages and the bar above them. */
import { useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useEffect, useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import { Navigate, NavLink, Outlet, Route, Routes, useLocation, useNavigate, useParams } from 'react-router'
import { longDay } from '../ui/dates'
import styled from 'styled-components'
import { TourProvider, useDesk, useWork } from '../api/tour'
import { PlayheadProvider, useFocus, useHand, useMoment } from '../instruments/moment'
import { Boundary } from '../ui/Boundary'
import { useFocusKept } from '../ui/useFocusKept'
import { Actions, Button, IconButton, Menu } from '../ui/controls'
import { Notice, Loading, UnderWay } from '../ui/notices'
import { Icon, type IconName, Mark, Textures } from '../ui/icons'
import { usePreferences, useUnits } from '../ui/preferences'
import { narrow, phone, sign } from '../ui/theme'
import { api, type Problem } from '../api/client'
import { Refresh } from '../offline/Refresh'
import { PartyDialog } from './tours/Riders'

const Tours = lazy(() => import('./tours/Tours').then((m) => ({ default: m.Tours })))
const RoadView = lazy(() => import('./road/RoadView').then((m) => ({ default: m.RoadView })))
const RigView = lazy(() => import('./rig/RigView').then((m) => ({ default: m.RigView })))
const KitView = lazy(() => import('./kit/KitView').then((m) => ({ default: m.KitView })))
const LoadView = lazy(() => import('./load/LoadView').then((m) => ({ default: m.LoadView })))
const StoresView = lazy(() => import('./stores/StoresView').then((m) => ({ default: m.StoresView })))
const ReadyView = lazy(() => import('./ready/ReadyView').then((m) => ({ default: m.ReadyView })))
const DiaryView = lazy(() => import('./diary/DiaryView').then((m) => ({ default: m.DiaryView })))
const DebriefView = lazy(() => import('./debrief/DebriefView').then((m) => ({ default: m.DebriefView })))
const PackView = lazy(() => import('./pack/PackView').then((m) => ({ default: m.PackView })))

const VIEWS: { path: string; name: string; icon: IconName }[] = [
  { path: 'road', name: 'Road', icon: 'road' },
  { path: 'rig', name: 'Rig', icon: 'load' },
  { path: 'kit', name: 'Kit', icon: 'kit' },
  { path: 'load', name: 'Load', icon: 'camp' },
  { path: 'stores', name: 'Stores', icon: 'stores' },
  { path: 'ready', name: 'Ready', icon: 'tick' },
  { path: 'pack', name: 'Pack', icon: 'pack' },
  { path: 'diary', name: 'Diary', icon: 'diary' },
  { path: 'debrief', name: 'Debrief', icon: 'debrief' },
]

/** What is wanted while standing beside the bike: on a phone the others are one touch further. */
const ON_THE_ROAD = ['load', 'stores', 'pack', 'diary']

const Bar = styled.header`
  display: flex;
  align-items: stretch;
  height: 52px;
  padding: 0 20px;
  border-bottom: 2px solid var(--ink);
  flex: none;
  position: relative;
  z-index: 6;
  background: var(--sky);
  ${phone} {
    padding: 0 8px;
  }
`
const Brand = styled(NavLink)`
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--ink);
  text-decoration: none;
  margin-right: 22px;
  font-family: ${sign};
  font-stretch: var(--width-sign);
  font-weight: 800;
  font-size: var(--size-head);
  letter-spacing: -0.02em;
  ${phone} {
    margin-right: 10px;
    span {
      display: none;
    }
  }
`
const About = styled.div`
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-width: 0;
  line-height: 17px;
  b {
    font-weight: 650;
    font-size: var(--size-text);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  span {
    font-size: var(--size-note);
    color: var(--ink2);
    font-stretch: var(--width-narrow);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  ${phone} {
    span {
      display: none;
    }
  }
`
const Name = styled(AriaButton)`
  font-weight: 650;
  font-size: var(--size-text);
  text-align: left;
  cursor: pointer;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  &[data-hovered] {
    text-decoration: underline;
  }
`
const Views = styled.nav`
  display: flex;
  margin-left: auto;
  margin-right: 12px;
  a {
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 0 12px;
    font-size: var(--size-text);
    font-weight: 550;
    font-stretch: var(--width-text);
    color: var(--ink2);
    text-decoration: none;
    position: relative;
  }
  a svg,
  .rest {
    display: none;
  }
  a[aria-current='page'] {
    color: var(--ink);
    font-weight: 750;
  }
  a[aria-current='page']::after {
    content: '';
    position: absolute;
    left: 8px;
    right: 8px;
    bottom: -2px;
    height: 6px;
    background: var(--ink);
  }
  ${narrow} {
    a {
      padding: 0 8px;
    }
  }
  ${phone} {
    position: fixed;
    left: 0;
    right: 0;
    bottom: 0;
    height: 64px;
    margin: 0;
    background: var(--land);
    z-index: 20;
    justify-content: space-around;
    a {
      flex: 1;
      flex-direction: column;
      gap: 2px;
      justify-content: center;
      color: var(--onland2);
      font-size: var(--size-fine);
    }
    a svg {
      display: block;
    }
    a:not(.road) {
      display: none;
    }
    .rest {
      flex: 1;
      display: flex;
      flex-direction: column;
      align-items: center;
      justify-content: center;
      gap: 2px;
      color: var(--onland2);
      font-size: var(--size-fine);
    }
    a[aria-current='page'] {
      color: var(--onland);
    }
    a[aria-current='page']::after {
      bottom: auto;
      top: 0;
      background: var(--onland);
      height: 4px;
    }
  }
`
const Tools = styled.div`
  display: flex;
  align-items: center;
  gap: 2px;
  ${phone} {
    margin-left: auto;
  }
  .kept {
    font-size: var(--size-note);
    color: var(--ink2);
    font-stretch: var(--width-narrow);
    padding-right: 6px;
    white-space: nowrap;
    ${narrow} {
      display: none;
    }
  }
`
const Page = styled.div`
  height: 100dvh;
  display: flex;
  flex-direction: column;
  min-height: 0;
  ${phone} {
    padding-bottom: 64px;
  }
  main {
    flex: 1;
    min-height: 0;
    display: flex;
    flex-direction: column;
  }
  @media print {
    height: auto;
    display: block;
  }
`
const Waiting = styled.div`
  display: grid;
  place-content: center;
  gap: 12px;
  height: 100dvh;
  text-align: center;
  padding: 20px;
`

export function App() {
  return (
    <>
      <Textures />
      <Suspense fallback={<Loading />}>
        <Routes>
          <Route path="/" element={<Tours />} />
          <Route path="/tours/:id" element={<TourPage />}>
            <Route index element={<Navigate to="load" replace />} />
            <Route path="road" element={<RoadView />} />
            <Route path="rig" element={<RigView />} />
            <Route path="kit" element={<KitView />} />
            <Route path="load" element={<LoadView />} />
            <Route path="stores" element={<StoresView />} />
            <Route path="ready" element={<ReadyView />} />
            <Route path="pack" element={<PackView />} />
            <Route path="diary" element={<DiaryView />} />
            <Route path="debrief" element={<DebriefView />} />
          </Route>
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
    </>
  )
}

function TourPage() {
  const { id = '' } = useParams()
  return (
    <TourProvider
      id={id}
      waiting={(problem) =>
        problem ? (
          <Unreadable id={id} problem={problem} />
        ) : (
          <Waiting>
            <Loading />
          </Waiting>
        )
      }
    >
      <PlayheadProvider>
        <Page>
          <TopBar />
          <Trouble />
          <Refresh />
          <main>
            <Suspense fallback={<Loading />}>
              <View />
            </Suspense>
          </main>
        </Page>
      </PlayheadProvider>
    </TourProvider>
  )
}

/** One view of the tour; what fails in it leaves the bar and its undo alive. */
function View() {
  const { tour } = useDesk()
  const { pathname } = useLocation()
  useFocusKept(tour.revision)
  return (
    <Boundary what="This view" on={`${pathname} ${tour.revision}`}>
      <h1 className="unseen">
        {VIEWS.find((v) => pathname.endsWith(`/${v.path}`))?.name}: {tour.sheet.name}
      </h1>
      <Outlet />
    </Boundary>
  )
}

/** A tour that does not open: why, and what can still be done with it. */
function Unreadable({ id, problem }: { id: string; problem: Problem }) {
  const queries = useQueryClient()
  const revision = problem.body.current_revision
  const back = async () => {
    await api.step(id, revision ?? 0, 'undo')
    await queries.invalidateQueries({ queryKey: ['tour', id] })
  }
  return (
    <Waiting>
      <p role="alert">
        {problem.body.detail} {problem.body.mend}
      </p>
      {revision && (
        <Actions style={{ justifyContent: 'center' }}>
          <Button onPress={() => window.location.assign(api.files(id).bundle)}>Save what is there</Button>
          <Button onPress={() => void back()}>Go back to the state before</Button>
        </Actions>
      )}
      <Brand to="/">
        <Mark /> Back to the tours
      </Brand>
    </Waiting>
  )
}

function TopBar() {
  const { tour, sheet, assessment, step } = useDesk()
  const { busy } = useWork()
  const { dark, toggleTheme, system, setSystem, letters, setLetters } = usePreferences()
  const units = useUnits()
  const navigate = useNavigate()
  const [party, setParty] = useState(false)
  useKeys()
  const road = assessment.road
  const facts = road
    ? `${assessment.days.length} days from ${longDay(sheet.start_date)}, ${units.show(road.length_km, 'distance')}, ${units.show(road.ascent_m, 'elevation')} of climbing`
    : 'no road yet'
  const files = api.files(tour.id)
  const kept = new Date(tour.changed_at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  return (
    <Bar className="no-print">
      <Brand to="/" aria-label="omnifer, all tours">
        <Mark />
        <span>omnifer</span>
      </Brand>
      <About>
        <Name aria-label={`${sheet.name}: tour and riders`} onPress={() => setParty(true)}>
          {sheet.name}
        </Name>
        <span>{facts}</span>
      </About>
      {party && <PartyDialog onClose={() => setParty(false)} />}
      <Views aria-label="Views">
        {VIEWS.map((v) => (
          <NavLink key={v.path} to={v.path} className={ON_THE_ROAD.includes(v.path) ? 'road' : undefined}>
            <Icon name={v.icon} />
            {v.name}
          </NavLink>
        ))}
        <Menu
          label="More views"
          entries={VIEWS.filter((v) => !ON_THE_ROAD.includes(v.path)).map((v) => ({ id: v.path, text: v.name }))}
          onChoose={(path) => void navigate(path)}
        >
          <AriaButton className="rest">
            <Icon name="more" />
            More
          </AriaButton>
        </Menu>
      </Views>
      <Tools>
        <span className="kept" role="status">
          {busy ? `${busy} …` : `Kept ${kept}`}
        </span>
        <IconButton aria-label={`Undo: ${tour.what}`} isDisabled={!tour.can_undo} onPress={() => step('undo')}>
          <Icon name="undo" />
        </IconButton>
        <IconButton aria-label="Redo" isDisabled={!tour.can_redo} onPress={() => step('redo')}>
          <Icon name="redo" />
        </IconButton>
        <IconButton aria-label={dark ? 'Day colours' : 'Night colours'} onPress={toggleTheme}>
          <Icon name={dark ? 'sun' : 'moon'} />
        </IconButton>
        <Menu
          label="More"
          entries={[
            { id: 'units', text: system === 'metric' ? 'Show pounds, quarts, miles' : 'Show kilograms, litres, kilometres' },
            { id: 'party', text: 'Tour and riders', note: 'names, dates, mass, power' },
            { id: 'bundle', text: 'Save the whole tour', note: 'one JSON file' },
            { id: 'gpx', text: 'Save the road', note: 'GPX with days and stops', off: !tour.has_track },
            { id: 'geojson', text: 'Save the road as GeoJSON', note: 'a line a day, a point a stop', off: !tour.has_track },
            { id: 'calendar', text: 'Save the days', note: 'calendar, a day each' },
            { id: 'stops', text: 'Save the stops', note: 'CSV for a spreadsheet' },
            { id: 'kit', text: 'Save the kit', note: 'CSV for a spreadsheet' },
            { id: 'shopping', text: 'Save the shopping list', note: 'CSV, a row a thing', off: !assessment.stores },
            { id: 'diary', text: 'Save the diary', note: 'CSV, a row an entry' },
            { id: 'letters', text: letters ? 'Switch single-letter keys off' : 'Switch single-letter keys on' },
            { id: 'tours', text: 'All tours' },
          ]}
          onChoose={(id) => {
            if (id === 'party') setParty(true)
            else if (id === 'units') setSystem(system === 'metric' ? 'imperial' : 'metric')
            else if (id === 'letters') setLetters(!letters)
            else if (id === 'tours') void navigate('/')
            else window.location.assign(files[id as keyof typeof files])
          }}
        >
          <IconButton aria-label="More">
            <Icon name="more" />
          </IconButton>
        </Menu>
      </Tools>
    </Bar>
  )
}

/** Keys that work everywhere; single letters only where nothing is being typed, and only if the rider likes them. */
function useKeys() {
  const { step, assessment } = useDesk()
  const { letters, toggleTheme } = usePreferences()
  const { setInHand } = useHand()
  const { moment, setMoment } = useMoment()
  const { setCarrier } = useFocus()
  const navigate = useNavigate()
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = (e.target as Element).matches('input, textarea, select, [role=option], [role=menuitem]')
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z' && !typing) {
        e.preventDefault()
        step(e.shiftKey ? 'redo' : 'undo')
      } else if (e.altKey && /^[1-9]$/.test(e.key)) {
        const view = VIEWS[Number(e.key) - 1]
        if (view) {
          e.preventDefault()
          void navigate(view.path)
        }
      } else if (e.key === 'Escape') {
        setInHand([])
        setCarrier(null)
      } else if (letters && !typing && !e.ctrlKey && !e.metaKey && !e.altKey) {
        const moments = assessment.moments
        const events = moments ? moments.km.map((_, i) => i).filter((i) => moments.place[i] !== '' && moments.leaving[i]) : []
        const focus = (selector: string) => document.querySelector<HTMLElement>(selector)?.focus()
        const keys: Record<string, () => void> = {
          '[': () => setMoment(events.findLast((i) => i < moment) ?? 0),
          ']': () => setMoment(events.find((i) => i > moment) ?? moment),
          t: toggleTheme,
          s: () => focus('#shelf [data-thing]'),
          r: () => focus('[data-carrier]'),
          f: () => focus('#findings button'),
        }
        keys[e.key]?.()
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [step, letters, toggleTheme, navigate, setInHand, setCarrier, assessment.moments, moment, setMoment])
}

function Trouble() {
  const { problem, remarks, dismiss, reload, underWay, unsent } = useWork()
  if (unsent)
    return (
      <Notice urgent action={{ text: 'Give it up', run: unsent.giveUp }}>
        Omnifer does not answer just now. What was kept before is safe. Not kept yet: “{unsent.what}”. It waits on this page and is sent again by
        itself until it is taken; leave the page open.
      </Notice>
    )
  if (underWay) return <UnderWay what={underWay.what} share={underWay.share} onCancel={underWay.cancel} />
  if (problem) {
    const action = problem.stale ? { text: 'Show the newer state', run: reload } : undefined
    return (
      <Notice urgent onClose={dismiss} action={action}>
        {problem.body.detail}
        {problem.body.where ? ` (${problem.body.where})` : ''} {problem.body.mend}
      </Notice>
    )
  }
  if (remarks.length) return <Notice onClose={dismiss}>{remarks.join(' ')}</Notice>
  return null
}
