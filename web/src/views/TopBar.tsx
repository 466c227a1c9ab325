/** The bar above every view of a tour: what it is about, the views, undo, and what is further away; and the keys that work everywhere. */
import { useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import { NavLink, useNavigate } from 'react-router'
import styled from 'styled-components'
import { api } from '../api/client'
import { useCompany } from '../api/company'
import { useDesk, useWork } from '../api/tour'
import { Menu } from '../ui/Menu'
import { IconButton } from '../ui/controls'
import { longDay } from '../ui/dates'
import { Icon, Mark } from '../ui/icons'
import { usePreferences, useUnits } from '../ui/preferences'
import { narrow, phone, sign } from '../ui/theme'
import { Together } from './company/Together'
import { KeysDialog } from './Keys'
import { PartyDialog } from './tours/Riders'
import { useKeys } from './useKeys'
import { SourcesDialog } from './Sources'
import { VIEWS } from './views'

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
export const Brand = styled(NavLink)`
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
    /* A long word moves nothing beside it. */
    width: 118px;
    overflow: hidden;
    text-overflow: ellipsis;
    text-align: right;
    ${narrow} {
      display: none;
    }
  }
`
export function TopBar() {
  const { tour, sheet, assessment, step } = useDesk()
  const { busy } = useWork()
  const { dark, toggleTheme, system, setSystem } = usePreferences()
  const units = useUnits()
  const navigate = useNavigate()
  const [party, setParty] = useState(false)
  const [keys, setKeys] = useState(false)
  const [together, setTogether] = useState(false)
  const { hosted } = useCompany()
  const [sources, setSources] = useState(false)
  useKeys(() => setKeys(true))
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
      {together && <Together onClose={() => setTogether(false)} />}
      {keys && <KeysDialog onClose={() => setKeys(false)} />}
      {sources && <SourcesDialog onClose={() => setSources(false)} />}
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
        <span className="kept" role="status" title={busy ?? undefined}>
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
            { id: 'guide', text: 'Guide', note: 'the first hour, every view, what figures mean' },
            { id: 'keys', text: 'Ribbon and keys', note: 'what the drawing shows, every key' },
            { id: 'sources', text: 'Where this comes from', note: 'climate, places, maps: sources and terms' },
            ...(hosted ? [{ id: 'together', text: 'Riding together', note: 'companions, invitations' }] : []),
            { id: 'tours', text: 'All tours' },
          ]}
          onChoose={(id) => {
            if (id === 'party') setParty(true)
            else if (id === 'together') setTogether(true)
            else if (id === 'units') setSystem(system === 'metric' ? 'imperial' : 'metric')
            else if (id === 'keys') setKeys(true)
            else if (id === 'sources') setSources(true)
            else if (id === 'tours') void navigate('/')
            else if (id === 'guide') window.location.assign('/guide/')
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
