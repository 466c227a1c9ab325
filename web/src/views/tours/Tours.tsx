/** All tours, each as its own small land, and the start of a new one. */
import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, type Glance, Problem, type TourEntry } from '../../api/client'
import { useSize } from '../../instruments/useSize'
import { Actions, Button, Dialog, FileButton, Menu, Muted, Section } from '../../ui/controls'
import { fullDate, longDay } from '../../ui/dates'
import { Field } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { Icon, Mark, Textures, Wedge } from '../../ui/icons'
import { Notice } from '../../ui/notices'
import { usePreferences, useUnits } from '../../ui/preferences'
import { phone, sign } from '../../ui/theme'
import { FirstSteps } from './FirstSteps'
import { NewTour } from './NewTour'
import { scaleFor, TourLand } from './TourLand'

const Page = styled.div`
  padding: 0 20px 60px;
  ${phone} {
    padding: 0 14px 40px;
  }
`
const Head = styled.header`
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 0 -20px;
  padding: 6px 20px;
  border-bottom: 2px solid var(--ink);
  font-family: ${sign};
  font-stretch: var(--width-sign);
  font-weight: 800;
  font-size: var(--size-head);
  .grow {
    flex: 1;
  }
  ${phone} {
    margin: 0 -14px;
    padding: 6px 14px;
  }
`
const Rule = styled.div`
  display: flex;
  align-items: baseline;
  gap: 6px 20px;
  flex-wrap: wrap;
  padding: 12px 0 6px;
  border-bottom: 3px solid var(--ink);
  h1 {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 780;
    font-size: var(--size-head);
  }
`
const One = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
  gap: 8px 24px;
  padding: 10px 0 12px;
  border-bottom: 2px solid var(--hair);
  h2 a {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 760;
    font-size: var(--size-head);
    color: var(--ink);
    text-decoration: none;
  }
  h2 a:hover {
    text-decoration: underline;
    text-underline-offset: 4px;
  }
  .land {
    overflow: hidden;
    margin-top: 4px;
  }
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`
const State = styled.ul`
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin-bottom: 10px;
  li {
    display: grid;
    grid-template-columns: 24px 1fr;
    align-items: start;
  }
  b {
    font-size: var(--size-text);
    font-stretch: var(--width-text);
    font-weight: 660;
  }
  small {
    display: block;
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
  }
`
const Box = styled.span`
  width: 15px;
  height: 15px;
  margin-top: 2px;
  border: 1.8px solid var(--ink);
  border-radius: 2px;
`
const NEXT: Record<Glance['lacks'][number], { words: string; why: string; view: string }> = {
  road: { words: 'Say where you ride', why: 'a track, or days as you think of them', view: 'road' },
  rig: { words: 'Say on what', why: 'a bike, its racks and bags', view: 'rig' },
  kit: { words: 'Say with what', why: 'a list you have, or one thing after the other', view: 'kit' },
  load: { words: 'Load the bikes', why: 'let a load be proposed, or stow by hand', view: 'load' },
}
const RIGHT = 274

export function Tours() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const units = useUnits()
  const { dark, toggleTheme } = usePreferences()
  const { data, error: failed, failureReason } = useQuery({ queryKey: ['tours'], queryFn: api.tours })
  const error = failed ?? failureReason
  const [starting, setStarting] = useState(false)
  const [renaming, setRenaming] = useState<{ tour: TourEntry; name: string } | null>(null)
  const [trouble, setTrouble] = useState('')
  const [gone, setGone] = useState<TourEntry | null>(null)
  const [list, { width }] = useSize<HTMLUListElement>()
  const tours = data?.tours ?? []
  const glances = useQueries({
    queries: tours.map((tour) => ({
      queryKey: ['glance', tour.id, tour.revision],
      queryFn: () => api.glance(tour.id),
      staleTime: Infinity,
      retry: false,
    })),
  })
  const known = glances.flatMap((g) => (g.data ? [g.data] : []))
  const scale = scaleFor(known, Math.max(width > 700 ? width - RIGHT - 4 : width - 4, 200))
  const words = (e: unknown) => (e instanceof Problem ? `${e.body.detail} ${e.body.mend ?? ''}` : String(e))
  const act = (work: () => Promise<unknown>) =>
    void work()
      .catch((e: unknown) => setTrouble(words(e)))
      .then(() => queries.invalidateQueries({ queryKey: ['tours'] }))
  const open = (id: string, view: string) => navigate(`/tours/${id}/${view}`)
  const close = (tour: TourEntry, over: boolean) =>
    act(() => api.change(tour.id, { revision: tour.revision, what: over ? 'The tour is over' : 'Open the tour again', over }))
  const remove = (tour: TourEntry) =>
    act(async () => {
      await api.remove(tour.id, tour.revision)
      setGone(tour)
    })
  const restore = (tour: TourEntry) =>
    act(async () => {
      await api.restore(tour.id)
      setGone(null)
    })
  return (
    <>
      <Textures />
      {(trouble || error) && (
        <Notice urgent onClose={() => setTrouble('')}>
          {trouble || words(error)}
        </Notice>
      )}
      {gone && (
        <Notice onClose={() => setGone(null)} action={{ text: 'Undo', run: () => restore(gone) }}>
          {gone.name} is removed. For 30 days it can be fetched back.
        </Notice>
      )}
      <Page>
        <Head>
          <Mark size={26} />
          omnifer
          <span className="grow" />
          <Button $small onPress={toggleTheme} aria-label={dark ? 'Day colours' : 'Night colours'}>
            <Icon name={dark ? 'sun' : 'moon'} size={16} />
          </Button>
        </Head>
        <main>
          <Rule>
            <h1>Your tours</h1>
            <Muted as="span">
              {tours.length
                ? 'a day of riding is as wide in every tour, a kilogram as high, a thousand metres as tall'
                : 'Leaving this place, on this day, with this bike: can you carry what you need to the next place that has it?'}
            </Muted>
          </Rule>
          <ul ref={list}>
            {tours.map((tour, i) => (
              <One key={tour.id}>
                <div>
                  <h2>
                    <Link to={`/tours/${tour.id}/${viewFor(glances[i]?.data)}`}>{tour.name}</Link>
                  </h2>
                  <Muted>{glances[i]?.data ? lineOf(glances[i].data, units) : `from ${longDay(tour.start_date)}`}</Muted>
                  <div className="land" style={{ minHeight: 40 }}>
                    {glances[i]?.data && <TourLand glance={glances[i].data} scale={scale} units={units} />}
                    {glances[i]?.isError && <Muted role="alert">{words(glances[i].error)}</Muted>}
                  </div>
                </div>
                <div>
                  {glances[i]?.data && <StateOf glance={glances[i].data} units={units} />}
                  <Actions style={{ justifyContent: 'flex-start' }}>
                    <Button $small $wanted onPress={() => void open(tour.id, viewFor(glances[i]?.data))}>
                      Open
                    </Button>
                    <Menu
                      label={`More of ${tour.name}`}
                      entries={[
                        { id: 'rename', text: 'Rename …' },
                        { id: 'copy', text: 'Copy' },
                        { id: 'save', text: 'Save as a file' },
                        { id: 'over', text: glances[i]?.data?.over ? 'Open it again' : 'It is over' },
                        { id: 'remove', text: 'Remove' },
                      ]}
                      onChoose={(id) => {
                        if (id === 'rename') setRenaming({ tour, name: tour.name })
                        if (id === 'copy') act(() => api.copy(tour.id))
                        if (id === 'save') window.location.assign(api.files(tour.id).bundle)
                        if (id === 'over') close(tour, !glances[i]?.data?.over)
                        if (id === 'remove') remove(tour)
                      }}
                    >
                      <Button $small aria-label={`More of ${tour.name}`}>
                        More
                      </Button>
                    </Menu>
                  </Actions>
                </div>
              </One>
            ))}
          </ul>
          <FirstSteps
            onBegin={() => setStarting(true)}
            onSample={() =>
              void api.sample().then(
                (answer) => open(answer.tour.id, 'load'),
                (e: unknown) => setTrouble(words(e)),
              )
            }
            file={
              <FileButton
                small
                accept={['application/json', '.json']}
                onFile={(file) =>
                  void api.bringBundle(file).then(
                    (answer) => open(answer.tour.id, 'load'),
                    (e: unknown) => setTrouble(words(e)),
                  )
                }
              >
                Bring a tour from a file
              </FileButton>
            }
          />
          {(data?.removed.length ?? 0) > 0 && (
            <Fold summary={`Removed lately: ${data?.removed.length}`}>
              {data?.removed.map((tour) => (
                <Actions key={tour.id} style={{ justifyContent: 'flex-start', alignItems: 'center', padding: '4px 0' }}>
                  <Section as="span">{tour.name}</Section>
                  <Muted as="span">from {fullDate(tour.start_date)}</Muted>
                  <Button $small onPress={() => restore(tour)}>
                    Fetch back
                  </Button>
                </Actions>
              ))}
            </Fold>
          )}
        </main>
      </Page>
      {starting && <NewTour onClose={() => setStarting(false)} />}
      {renaming && (
        <Dialog draft title="Rename the tour" open onClose={() => setRenaming(null)}>
          <Field label="Name of the tour" value={renaming.name} onChange={(name) => setRenaming({ ...renaming, name })} />
          <Actions>
            <Button onPress={() => setRenaming(null)}>Not now</Button>
            <Button
              $wanted
              isDisabled={!renaming.name.trim()}
              onPress={() => {
                const { tour, name } = renaming
                act(() => api.change(tour.id, { revision: tour.revision, what: 'Rename the tour', name: name.trim().slice(0, 120) }))
                setRenaming(null)
              }}
            >
              Keep
            </Button>
          </Actions>
        </Dialog>
      )}
    </>
  )
}

const viewFor = (glance: Glance | undefined) => NEXT[glance?.lacks[0] ?? 'load'].view

function lineOf(g: Glance, units: ReturnType<typeof useUnits>): string {
  const who = g.riders.length > 1 ? `${g.riders.slice(0, -1).join(', ')} and ${g.riders.at(-1) ?? ''}` : (g.riders[0] ?? '')
  const road = g.days
    ? `${g.days} days from ${longDay(g.start_date)}, ${units.show(g.length_km, 'distance')}, ${units.show(g.ascent_m, 'elevation')}`
    : `from ${longDay(g.start_date)}`
  return [road, who, g.over && 'over: its things stay as they were'].filter(Boolean).join(', ')
}

function StateOf({ glance, units }: { glance: Glance; units: ReturnType<typeof useUnits> }) {
  const next = glance.lacks[0] && NEXT[glance.lacks[0]]
  return (
    <State>
      {next && (
        <li>
          <Box />
          <span>
            <b>{next.words}</b>
            <small>{next.why}</small>
          </span>
        </li>
      )}
      {glance.days > 0 && (
        <li>
          {glance.stops_you ? <Wedge grade="stops_you" size={18} /> : <Icon name="tick" size={17} />}
          <span>
            <b>{glance.stops_you ? `${glance.stops_you} ${glance.stops_you > 1 ? 'findings stop' : 'finding stops'} you` : 'Nothing stops you'}</b>
            <small>{glance.worst ? units.say(glance.worst) : glance.slows_you ? `${glance.slows_you} slow you` : ''}</small>
          </span>
        </li>
      )}
      {!next && glance.things > 0 && (
        <li>
          {glance.on_shelf ? <Box /> : <Icon name="tick" size={17} />}
          <span>
            <b>{glance.on_shelf ? `${glance.things - glance.on_shelf} of ${glance.things} things stowed` : 'Everything has a place'}</b>
            {glance.on_shelf > 0 && <small>{glance.on_shelf} still on the shelf</small>}
          </span>
        </li>
      )}
    </State>
  )
}
