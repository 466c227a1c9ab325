/** A tour among the others: its land to the scale of all, how it stands, and what can be done with it. */
import type { UseQueryResult } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'
import { api, type Glance, type TourEntry } from '../../api/client'
import { Menu } from '../../ui/Menu'
import { Actions, Button, Muted } from '../../ui/controls'
import { longDay } from '../../ui/dates'
import { Icon, Wedge } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone, sign } from '../../ui/theme'
import { type scaleFor, TourLand } from './TourLand'
import { type Tours, words } from './useTours'

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
const DEEDS = { rename: 'Rename …', copy: 'Copy', save: 'Save as a file', over: 'It is over', remove: 'Remove' }
const OF_OWN = ['rename', 'copy', 'save', 'over', 'remove'] as const
const OF_ANOTHERS = ['save'] as const
interface Props {
  tour: TourEntry
  glance: UseQueryResult<Glance>
  scale: ReturnType<typeof scaleFor>
  tours: Tours
  onRename: () => void
}

export function TourLine({ tour, glance, scale, tours: { open, copy, close, remove }, onRename }: Props) {
  const units = useUnits()
  return (
    <One>
      <div>
        <h2>
          <Link to={`/tours/${tour.id}/${viewFor(glance.data)}`}>{tour.name}</Link>
        </h2>
        <Muted>
          {glance.data ? lineOf(glance.data, units) : `from ${longDay(tour.start_date)}`}
          {tour.shared_by && `, shared by ${tour.shared_by}`}
        </Muted>
        <div className="land" style={{ minHeight: 40 }}>
          {glance.data && <TourLand glance={glance.data} scale={scale} units={units} />}
          {glance.isError && <Muted role="alert">{words(glance.error)}</Muted>}
        </div>
      </div>
      <div>
        {glance.data && <StateOf glance={glance.data} units={units} />}
        <Actions style={{ justifyContent: 'flex-start' }}>
          <Button $small $wanted onPress={() => void open(tour.id, viewFor(glance.data))}>
            Open
          </Button>
          <Menu
            label={`More of ${tour.name}`}
            entries={(tour.shared_by ? OF_ANOTHERS : OF_OWN).map((id) => ({
              id,
              text: id === 'over' && glance.data?.over ? 'Open it again' : DEEDS[id],
            }))}
            onChoose={(id) => {
              if (id === 'rename') onRename()
              if (id === 'copy') copy(tour)
              if (id === 'save') window.location.assign(api.files(tour.id).bundle)
              if (id === 'over') close(tour, !glance.data?.over)
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
