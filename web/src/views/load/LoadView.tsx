/** The home view: shelf, rig and findings above the horizon, the tour below it. */
import { useState } from 'react'
import { NavLink } from 'react-router'
import styled from 'styled-components'
import { pick } from '../../api/client'
import { useDesk, useShown } from '../../api/tour'
import { Findings } from '../../instruments/Findings'
import { HandTray } from '../../instruments/HandTray'
import { useFocus, useMoment } from '../../instruments/moment'
import { Ribbon } from '../../instruments/Ribbon'
import { RigDrawing } from '../../instruments/RigDrawing'
import { RigList } from '../../instruments/RigList'
import { Shelf } from '../../instruments/Shelf'
import { Boundary } from '../../ui/Boundary'
import { Button, Muted } from '../../ui/controls'
import { Dot, Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { SUPPLY_WORDS } from '../../ui/supplies'
import { narrow, phone } from '../../ui/theme'
import { AimsDialog } from './AimsDialog'
import { KeptLoads } from './KeptLoads'
import { ProposalBoard, useSearch } from './ProposalBoard'

const Stage = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 268px minmax(0, 1fr) 310px;
  grid-template-rows: minmax(0, 1fr);
  ${narrow} {
    grid-template-columns: 240px minmax(0, 1fr);
    overflow-y: auto;
    grid-template-rows: 480px auto;
    #findings {
      overflow: visible;
    }
  }
  ${phone} {
    display: flex;
    flex-direction: column;
    overflow-y: auto;
    #findings,
    #shelf {
      overflow: visible;
      padding: 8px 14px;
      flex: none;
      order: 3;
    }
    #shelf {
      order: 4;
    }
  }
`
/** What was found for the load, and what is found of it. */
const Beside = styled.div`
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  #findings {
    flex: 1;
  }
  ${narrow} {
    grid-column: 1 / -1;
  }
  ${phone} {
    order: 3;
    flex: none;
  }
`
const RigColumn = styled.section`
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  position: relative;
  ${phone} {
    height: 430px;
    flex: none;
  }
`
const Tools = styled.div`
  position: absolute;
  left: 8px;
  right: 8px;
  bottom: 6px;
  display: flex;
  gap: 6px;
  align-items: center;
  z-index: 2;
  pointer-events: none;
  > * {
    pointer-events: auto;
  }
  > .right {
    margin-left: auto;
    display: flex;
    gap: 6px;
  }
  ${phone} {
    position: static;
    padding: 4px 14px;
    flex-wrap: wrap;
  }
`
const Bikes = styled.div`
  position: absolute;
  left: 8px;
  top: 6px;
  display: flex;
  flex-direction: column;
  gap: 4px;
  z-index: 2;
  ${narrow} {
    position: static;
    order: -1;
    flex-direction: row;
    padding: 6px 8px 0;
  }
  ${phone} {
    padding: 6px 14px 0;
  }
`
const Readings = styled.dl`
  display: none;
  ${phone} {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    gap: 0;
    border-top: 2px solid var(--ink);
    border-bottom: 3px solid var(--ink);
    margin: 4px 14px;
    flex: none;
  }
  div {
    padding: 4px 6px;
    border-left: 1px solid var(--edge);
    &:first-child {
      border: 0;
    }
  }
  dt {
    font-size: var(--size-small);
    color: var(--ink2);
  }
  dd {
    margin: 0;
    font-size: var(--size-head);
    font-weight: 720;
    line-height: 22px;
  }
`

export function LoadView() {
  const { tour } = useDesk()
  const { sheet, assessment } = useShown()
  const { bikeId, setBike } = useFocus()
  const [leftSide, setLeft] = useState(false)
  const [riderOn, setRider] = useState(false)
  const [list, setList] = useState(false)
  const [comparing, setComparing] = useState(false)
  const [aiming, setAiming] = useState(false)
  const search = useSearch()
  const bike = sheet.rig.bikes.find((b) => b.id === bikeId)
  const trace = assessment.bikes.find((b) => b.bike_id === bikeId)
  return (
    <>
      <Stage>
        <Shelf />
        <RigColumn aria-label="Rig">
          <WhatNext />
          {bike && trace && (
            <Boundary what="The rig" on={assessment}>
              {list ? <RigList bike={bike} trace={trace} /> : <RigDrawing bike={bike} trace={trace} leftSide={leftSide} riderOn={riderOn} />}
            </Boundary>
          )}
          <Tools>
            {bike && (
              <>
                <Button $small onPress={() => setLeft(!leftSide)}>
                  <Icon name="flip" size={16} />
                  {leftSide ? 'Right side' : 'Left side'}
                </Button>
                <Button $small onPress={() => setRider(!riderOn)}>
                  <Icon name="rider" size={16} />
                  {riderOn ? 'Rider off' : 'Rider on'}
                </Button>
              </>
            )}
            <span className="right">
              <Button $small onPress={() => setComparing(true)}>
                Loads
              </Button>
              <Button $small onPress={() => setAiming(true)}>
                Aims
              </Button>
              <Button $small $wanted isDisabled={search.running || !sheet.kit.length || !sheet.rig.bikes.length} onPress={() => search.start()}>
                {search.running ? 'Searching …' : 'Propose a load'}
              </Button>
            </span>
          </Tools>
          {sheet.rig.bikes.length > 0 && (
            <Bikes role="group" aria-label="What is drawn">
              <Button $small onPress={() => setList(!list)}>
                {list ? 'Draw it' : 'As a list'}
              </Button>
              {sheet.rig.bikes.length > 1 &&
                sheet.rig.bikes.map((b) => (
                  <Button key={b.id} $small aria-pressed={b.id === bikeId} onPress={() => setBike(b.id)}>
                    <Dot on={b.id === bikeId} />
                    {sheet.riders.find((r) => r.id === b.rider_id)?.name}
                  </Button>
                ))}
            </Bikes>
          )}
        </RigColumn>
        <PhoneReadings />
        <Beside>
          <ProposalBoard search={search} />
          <Boundary what="The findings" on={tour.revision}>
            <Findings />
          </Boundary>
        </Beside>
      </Stage>
      <HandTray />
      <Boundary what="The ribbon" on={assessment}>
        <Ribbon />
      </Boundary>
      {comparing && <KeptLoads onClose={() => setComparing(false)} />}
      {aiming && <AimsDialog onClose={() => setAiming(false)} />}
    </>
  )
}

const Next = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  padding: 12px 16px 12px 92px;
  ${narrow} {
    padding-left: 14px;
  }
  > li {
    flex: 1;
    min-width: 150px;
  }
  a {
    color: var(--ink);
    font-weight: 650;
    font-size: var(--size-lead);
    display: inline-block;
    min-height: 32px;
    line-height: 32px;
  }
`

/** What is still to be said of a tour before it can be loaded. */
function WhatNext() {
  const { sheet, assessment } = useDesk()
  const steps: [string, string, boolean, string][] = [
    ['road', 'Say where you ride', assessment.ready, 'a track, or days as you think of them'],
    ['rig', 'Choose a bike and hang its bags', sheet.rig.bikes.some((b) => b.carriers.length > 0), 'from the catalogue, or measured'],
    ['kit', 'Bring what comes along', sheet.kit.length > 0, 'a list you have, or thing by thing'],
  ]
  if (steps.every(([, , done]) => done)) return null
  return (
    <Next aria-label="What to do first">
      {steps.map(([view, words, done, how]) => (
        <li key={view}>
          {done ? '☑' : '☐'} <NavLink to={`../${view}`}>{words}</NavLink>
          <Muted>{how}</Muted>
        </li>
      ))}
    </Next>
  )
}

function PhoneReadings() {
  const { assessment, sheet } = useShown()
  const { moment } = useMoment()
  const units = useUnits()
  const m = assessment.moments
  if (!m) return null
  const readings = [
    ...m.supplies.map((s) => [SUPPLY_WORDS[s.supply], units.show(pick(s.stock, moment), s.quantity)]),
    ['Fuel', units.show(pick(m.fuel_kg, moment), 'mass')],
    [sheet.rig.bikes.length > 1 ? 'All bikes' : 'Bike', units.show(pick(m.total_kg, moment), 'mass', 0)],
  ]
  return (
    <Readings>
      {readings.map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </Readings>
  )
}
