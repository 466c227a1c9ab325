/** The road: bring a track or type days, cut it into days, set what each stop supplies, say the weather. */
import { type ComponentProps, useCallback, useEffect, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { BOUNDS } from '../../api/bounds'
import type { Road, Stop } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { airIsGuessed } from '../../instruments/air'
import { useMoment } from '../../instruments/moment'
import type { OnSupply } from '../../instruments/RibbonLand'
import { Ribbon } from '../../instruments/Ribbon'
import type { Surface } from '../../instruments/RibbonSurfaces'
import { RoadPlan } from '../../instruments/RoadPlan'
import { Button, FileButton, Muted, RailLine, Row, Section, Tabs } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { Icon } from '../../ui/icons'
import { usePreferences, useUnits } from '../../ui/preferences'
import { narrow } from '../../ui/theme'
import { PartyDialog } from '../tours/Riders'
import { Assumptions, type SaidAt } from './Assumptions'
import { LeaveOn } from './LeaveOn'
import { DaysTable } from './DaysTable'
import { GapsTable } from './GapsTable'
import { HazardsPanel } from './HazardsPanel'
import { useNights } from './nights'
import { RoadSheet } from './RoadSheet'
import { StopsTable } from './StopsTable'
import { SurfacesPanel } from './SurfacesPanel'
import { TrackTools } from './TrackTools'
import { TypedDays } from './TypedDays'
import { WeatherPanel } from './WeatherPanel'
import { SURFACE_WORDS } from './words'

const Stage = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 330px minmax(0, 1fr);
  gap: 28px;
  padding: 10px 20px 0;
  > section {
    min-height: 0;
    overflow: auto;
    scrollbar-width: thin;
    padding: 2px 4px 12px 2px;
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  ${narrow} {
    display: block;
    overflow: auto;
    > section {
      overflow: visible;
      margin-bottom: 20px;
    }
  }
`
const Big = styled.dl`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  dt {
    font-size: var(--size-note);
    color: var(--ink2);
    font-stretch: var(--width-narrow);
  }
  dd {
    margin: 0;
    font-size: var(--size-head);
    font-weight: 720;
    line-height: 24px;
    font-stretch: var(--width-text);
  }
`
const NEXT_WATER = { none: 'unsure', unsure: 'seasonal', snow: 'none', seasonal: 'reliable', reliable: 'none' } as const
const NEXT_SHOP = { none: 'snacks', snacks: 'basic', basic: 'full', full: 'none' } as const

/** What a kilogram costs, from the bike on which it costs least to the one on which it costs most. */
const kilogramWords = (minutes: number[]) =>
  `${[...new Set([Math.min(...minutes), Math.max(...minutes)].map((m) => m.toFixed(1)))].join('–')}\u00a0min a day`

export function RoadView() {
  const { sheet, assessment, change, bringTrack, tour } = useDesk()
  const { busy } = useWork()
  const units = useUnits()
  const [typing, setTyping] = useState(false)
  const [shaping, setShaping] = useState(false)
  const [party, setParty] = useState(false)
  const [sheetShown, setSheetShown] = useState('stops')
  const navigate = useNavigate()
  const [lane, setLane] = useState<'weight' | 'weather'>('weight')
  const [brush, setBrush] = useState<Surface | null>(null)
  const nights = useNights()
  const own = Object.keys(sheet.own_values).length
  const road = sheet.road
  const facts = assessment.road
  // Nobody said what the weather is: the figure is a guess, with its width where that is known.
  const guessed = airIsGuessed(assessment)
  const give = Math.max(0, ...assessment.days.map((day) => day.spread_min_k))
  const put = useCallback((what: string, part: Partial<Road>) => void change(what, { road: { ...road, ...part } }), [change, road])
  const putStops = useCallback(
    (stops: Stop[], what: string, nights = road.nights) => put(what, { stops: [...stops].sort((a, b) => a.at_km - b.at_km), nights }),
    [put, road.nights],
  )
  const putStop = useMemo(
    () => (stop: Stop, part: Partial<Stop>, what: string) =>
      void change(what, { road: { ...road, stops: road.stops.map((s) => (s.id === stop.id ? { ...s, ...part } : s)) } }),
    [change, road],
  )
  const onSupply = useMemo(
    () => (stop: Stop, supply: 'water' | 'shop') =>
      supply === 'water'
        ? putStop(stop, { water: NEXT_WATER[stop.water] }, `Water at ${stop.name}: ${NEXT_WATER[stop.water]}`)
        : putStop(stop, { shop: NEXT_SHOP[stop.shop] }, `Shop at ${stop.name}: ${NEXT_SHOP[stop.shop]}`),
    [putStop],
  )
  const say = (at: SaidAt) => {
    if (at === 'weather' || at === 'zones') setSheetShown('weather')
    else if (at === 'track') setShaping(true)
    else if (at === 'party') setParty(true)
    else void navigate(`../${at}`)
  }
  const paint = (from: number, to: number) => {
    const [from_km, to_km] = [Math.round(from * 10) / 10, Math.round(to * 10) / 10]
    if (!brush || from_km >= to_km) return
    const left = road.surfaces.filter((s) => s.from_km < from_km || s.to_km > to_km)
    put(`Paint ${SURFACE_WORDS[brush]} from km ${from_km} to ${to_km}`, {
      surfaces: [...left, { from_km, to_km, surface: brush }],
    })
  }
  return (
    <>
      <Stage className="no-print">
        <section aria-label="The road">
          <Section>Road</Section>
          {facts ? (
            <Big>
              <div>
                <dt>Distance</dt>
                <dd>{units.show(facts.length_km, 'distance')}</dd>
              </div>
              <div>
                <dt>Climb</dt>
                <dd>{facts.has_heights ? units.show(facts.ascent_m, 'elevation') : 'no heights yet'}</dd>
              </div>
              <div>
                <dt>Days</dt>
                <dd>{assessment.days.length}</dd>
              </div>
              <div>
                <dt>Highest</dt>
                <dd>{units.show(facts.highest_m, 'elevation')}</dd>
              </div>
              <div>
                <dt>Coldest night{guessed && ', a guess'}</dt>
                <dd>
                  {guessed && '~ '}
                  {units.show(facts.coldest_night_c, 'temperature')}
                  {guessed && give > 0 && ` ± ${units.figure(give, 'temperature_difference', 0)}`}
                </dd>
              </div>
              <div>
                <dt>Riding</dt>
                <dd>{units.show(facts.riding_hours, 'hours', 0)}</dd>
              </div>
              {assessment.bikes.length > 0 && (
                <div>
                  <dt>Each extra kilogram costs</dt>
                  <dd>{kilogramWords(assessment.bikes.map((b) => b.minutes_per_kg))}</dd>
                </div>
              )}
            </Big>
          ) : (
            <p>Say where you ride and how long, and the land takes shape.</p>
          )}
          <Row $min={130}>
            <FileButton
              wanted={!facts}
              accept={['.gpx', '.geojson', '.json', 'application/gpx+xml', 'application/geo+json']}
              onFiles={(files) => void bringTrack(files)}
            >
              {busy === 'Reading the track' ? 'Reading …' : tour.has_track ? 'Another track' : 'Bring a GPX track'}
            </FileButton>
            {tour.has_track ? (
              <Button onPress={() => setShaping(true)}>Track and pace</Button>
            ) : (
              <Button onPress={() => setTyping(true)}>Type the days</Button>
            )}
          </Row>
          <RoadPlan />
          <RailLine>
            <Icon name="camp" size={17} />
            Days
          </RailLine>
          <Row $min={120}>
            <Choice
              label="Cut the road by"
              value={road.cut.by}
              onChange={(by) => put('Cut the days anew', { cut: { ...road.cut, by } })}
              options={[
                { id: 'hours', text: 'Riding hours' },
                { id: 'distance', text: 'Distance' },
                { id: 'days', text: 'Days in all' },
              ]}
            />
            {road.cut.by === 'days' ? (
              <Measure
                label="Days, rests with them"
                value={road.cut.days}
                quantity="count"
                range={BOUNDS.DayCut.days}
                onChange={(days) => put('Cut the days anew', { cut: { ...road.cut, days: Math.round(days) } })}
              />
            ) : road.cut.by === 'hours' ? (
              <Measure
                label="Riding a day"
                value={road.cut.hours}
                quantity="hours"
                range={BOUNDS.DayCut.hours}
                onChange={(hours) => put('Cut the days anew', { cut: { ...road.cut, hours } })}
              />
            ) : (
              <Measure
                label="Distance a day"
                value={road.cut.distance_km}
                quantity="distance"
                range={BOUNDS.DayCut.distance_km}
                onChange={(distance_km) => put('Cut the days anew', { cut: { ...road.cut, distance_km } })}
              />
            )}
          </Row>
          <Choice
            label="Nights"
            value={road.cut.to_stops ? 'stops' : 'exact'}
            onChange={(v) => put('Cut the days anew', { cut: { ...road.cut, to_stops: v === 'stops' } })}
            options={[
              { id: 'stops', text: 'At a good place to sleep if one is near' },
              { id: 'exact', text: 'Exactly where the day is full' },
            ]}
          />
          <Muted>
            Hours come from your power, the whole mass and the gradients. Climb: 25{'\u00a0'}m cells, 100{'\u00a0'}m mean, reversals from{' '}
            {road.ascent_threshold_m}
            {'\u00a0'}m count.
          </Muted>
          <LeaveOn />
          <Choice
            label="Over the land, show"
            value={lane}
            onChange={setLane}
            options={[
              { id: 'weight', text: 'Weight on board' },
              { id: 'weather', text: 'Cold nights, hot days, rain, dark' },
            ]}
          />
          <Row $min={140}>
            <Button onPress={() => window.print()}>
              <Icon name="print" size={16} />
              Print the road sheet
            </Button>
          </Row>
          <Muted>What nobody measured is assumed, with its source: see the tab “Assumed”.</Muted>
        </section>
        <section aria-label="Details">
          <Tabs
            label="What of the road"
            selected={sheetShown}
            onChange={(id) => {
              setSheetShown(id)
              setBrush(null)
            }}
            tabs={[
              {
                id: 'stops',
                name: `Stops ${road.stops.length || ''}`,
                content: <StopsHere stops={road.stops} onChange={putStops} />,
              },
              { id: 'days', name: `Days ${assessment.days.length || ''}`, content: <DaysHere road={road} /> },
              { id: 'gaps', name: 'Gaps', content: <GapsTable /> },
              { id: 'weather', name: 'Weather and hours', content: <WeatherPanel road={road} put={put} /> },
              {
                id: 'surface',
                name: 'Surfaces, ferries',
                content: <SurfacesPanel road={road} put={put} brush={brush} setBrush={setBrush} />,
              },
              {
                id: 'hazards',
                name: 'Hazards',
                content: <HazardsPanel road={road} put={put} />,
              },
              { id: 'assumed', name: `Assumed${own ? `, ${own} yours` : ''}`, content: <Assumptions onSay={say} /> },
            ]}
          />
        </section>
      </Stage>
      <div className="no-print">
        <Ribbon
          height={300}
          skylineHeight={76}
          onSupply={onSupply}
          onNight={tour.has_track ? nights.put : undefined}
          lane={lane}
          onPaint={brush ? paint : undefined}
        />
      </div>
      <SupplyKeys stops={road.stops} onSupply={onSupply} />
      <RoadSheet />
      {shaping && <TrackTools onClose={() => setShaping(false)} />}
      {party && <PartyDialog onClose={() => setParty(false)} />}
      {typing && (
        <TypedDays
          days={road.typed_days}
          onClose={() => setTyping(false)}
          onKeep={(typed_days) => {
            put('Type the days', { typed_days })
            setTyping(false)
          }}
        />
      )}
    </>
  )
}

const REST_MS = 120

/** Where the playhead has come to rest, for what need not follow every step of it. */
function useResting() {
  const { assessment } = useDesk()
  const { moment } = useMoment()
  const [at, setAt] = useState(moment)
  useEffect(() => {
    const timer = window.setTimeout(() => setAt(moment), REST_MS)
    return () => window.clearTimeout(timer)
  }, [moment])
  return { km: assessment.moments?.km[at] ?? 0, day: assessment.moments?.day[at] ?? 1 }
}

// What follows the playhead stands apart, so that a step of it does not draw the whole view anew.
function StopsHere({ stops, onChange }: { stops: Stop[]; onChange: ComponentProps<typeof StopsTable>['onChange'] }) {
  return <StopsTable stops={stops} at={useResting().km} onChange={onChange} />
}

function DaysHere({ road }: { road: Road }) {
  return <DaysTable road={road} now={useResting().day} />
}

/** w and b set the water and the shop of the nearest stop. */
function SupplyKeys({ stops, onSupply }: { stops: Stop[]; onSupply: OnSupply }) {
  const { letters } = usePreferences()
  const { assessment } = useDesk()
  const { moment } = useMoment()
  const km = assessment.moments?.km[moment] ?? 0
  const near = stops.reduce<Stop | null>((best, s) => (!best || Math.abs(s.at_km - km) < Math.abs(best.at_km - km) ? s : best), null)
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!letters || e.ctrlKey || e.altKey || (e.target as Element).matches('input, textarea, [role=option]') || !near) return
      if (e.key === 'w') onSupply(near, 'water')
      if (e.key === 'b') onSupply(near, 'shop')
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [letters, near, onSupply])
  return null
}
