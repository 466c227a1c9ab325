/** Pages: the tours, and the views of one of them below its bar. */
import { useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense } from 'react'
import { Navigate, Outlet, Route, Routes, useLocation, useParams } from 'react-router'
import styled from 'styled-components'
import { TourProvider, useDesk, useWork } from '../api/tour'
import { PlayheadProvider } from '../instruments/moment'
import { Boundary } from '../ui/Boundary'
import { useFocusKept } from '../ui/useFocusKept'
import { Actions, Button } from '../ui/controls'
import { Notice, Loading, UnderWay } from '../ui/notices'
import { Mark, Textures } from '../ui/icons'
import { phone } from '../ui/theme'
import { api, type Problem } from '../api/client'
import { Refresh } from '../offline/Refresh'
import { Brand, TopBar } from './TopBar'
import { Others } from './company/Others'
import { VIEWS } from './views'

const Tours = lazy(() => import('./tours/Tours').then((m) => ({ default: m.Tours })))
const RoadView = lazy(() => import('./road/RoadView').then((m) => ({ default: m.RoadView })))
const RigView = lazy(() => import('./rig/RigView').then((m) => ({ default: m.RigView })))
const KitView = lazy(() => import('./kit/KitView').then((m) => ({ default: m.KitView })))
const LoadView = lazy(() => import('./load/LoadView').then((m) => ({ default: m.LoadView })))
const StoresView = lazy(() => import('./stores/StoresView').then((m) => ({ default: m.StoresView })))
const ReadyView = lazy(() => import('./ready/ReadyView').then((m) => ({ default: m.ReadyView })))
const DiaryView = lazy(() => import('./diary/DiaryView').then((m) => ({ default: m.DiaryView })))
const DebriefView = lazy(() => import('./debrief/DebriefView').then((m) => ({ default: m.DebriefView })))
const SignIn = lazy(() => import('./account/SignIn').then((m) => ({ default: m.SignIn })))
const Join = lazy(() => import('./account/Join').then((m) => ({ default: m.Join })))
const AccountPage = lazy(() => import('./account/AccountPage').then((m) => ({ default: m.AccountPage })))
const PackView = lazy(() => import('./pack/PackView').then((m) => ({ default: m.PackView })))

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
    main {
      display: block;
    }
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
          <Route path="/sign-in" element={<SignIn />} />
          <Route path="/account" element={<AccountPage />} />
          <Route path="/join" element={<Join />} />
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
          <Skip href="#content">Skip to the content</Skip>
          <TopBar />
          <Others views={VIEWS} />
          <Trouble />
          <Refresh />
          <main id="content" tabIndex={-1}>
            <Suspense fallback={<Loading />}>
              <View />
            </Suspense>
          </main>
        </Page>
      </PlayheadProvider>
    </TourProvider>
  )
}

/** Seen once it has the focus: the first stop of the tabulator. */
const Skip = styled.a`
  position: absolute;
  left: 8px;
  top: -60px;
  z-index: 30;
  padding: 8px 14px;
  background: var(--ink);
  color: var(--sky);
  &:focus {
    top: 6px;
  }
  @media print {
    display: none;
  }
`

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
