/** The road: bring a track or type days, cut it into days, set what each stop supplies, say the weather. */
import { lazy, Suspense, useState } from 'react'
import { useNavigate } from 'react-router'
import { api } from '../../api/client'
import { TRACK_FILES } from '../../api/bounds'
import styled from 'styled-components'
import { useDesk, useWork } from '../../api/tour'
import { Ribbon } from '../../instruments/Ribbon'
import type { Surface } from '../../instruments/RibbonSurfaces'
import { RoadPlan } from '../../instruments/RoadPlan'
import { Tabs } from '../../ui/Tabs'
import { Button, FileButton, Muted, RailLine, Row, Section } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { Icon } from '../../ui/icons'
import { Loading } from '../../ui/notices'
import { narrow } from '../../ui/theme'
import { PartyDialog } from '../tours/Riders'
import { Assumptions, type SaidAt } from './Assumptions'
import { DaysHere, StopsHere } from './AtRest'
import { CutDays } from './CutDays'
import { GapsTable } from './GapsTable'
import { HazardsPanel } from './HazardsPanel'
import { HowToGo } from './HowToGo'
import { LeaveOn } from './LeaveOn'
import { useNights } from './nights'
import { RoadFigures } from './RoadFigures'
import { RoadSheet } from './RoadSheet'
import { SupplyKeys } from './SupplyKeys'
import { SeasonPanel } from './SeasonPanel'
import { SurfacesPanel } from './SurfacesPanel'
import { READING, TrackTools } from './TrackTools'
import { TypedDays } from './TypedDays'
import { useRoad } from './useRoad'
import { WeatherPanel } from './WeatherPanel'
import { SURFACE_WORDS } from './words'

const RoadMap = lazy(() => import('../../instruments/RoadMap').then((m) => ({ default: m.RoadMap })))

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
type Lane = 'weight' | 'weather'
type Open = 'typing' | 'shaping' | 'party' | null

export function RoadView() {
  const { tour, assessment, sheet } = useDesk()
  const { road, put, putStops, onSupply } = useRoad()
  const [open, setOpen] = useState<Open>(null)
  const [sheetShown, setSheetShown] = useState('stops')
  const navigate = useNavigate()
  const [lane, setLane] = useState<Lane>('weight')
  const [brush, setBrush] = useState<Surface | null>(null)
  const nights = useNights()
  const own = Object.keys(sheet.own_values).length
  const say = (at: SaidAt) => {
    if (at === 'weather' || at === 'zones') setSheetShown('weather')
    else if (at === 'track') setOpen('shaping')
    else if (at === 'party') setOpen('party')
    else void navigate(`../${at}`)
  }
  const paint = (from: number, to: number) => {
    const [from_km, to_km] = [Math.round(from * 10) / 10, Math.round(to * 10) / 10]
    if (!brush || from_km >= to_km) return
    const left = road.surfaces.filter((s) => s.from_km < from_km || s.to_km > to_km)
    put(`Paint ${SURFACE_WORDS[brush]} from km ${from_km} to ${to_km}`, {
      surfaces: [...left, { from_km, to_km, surface: brush, mapped: null }],
    })
  }
  return (
    <>
      <Stage className="no-print">
        <TheRoad lane={lane} onLane={setLane} onOpen={setOpen} />
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
              ...(tour.has_track
                ? [
                    {
                      id: 'map',
                      name: 'Map',
                      content: (
                        <Suspense fallback={<Loading />}>
                          <RoadMap />
                        </Suspense>
                      ),
                    },
                  ]
                : []),
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
              { id: 'season', name: 'When to go', content: <WhenAndHow /> },
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
      {open === 'shaping' && <TrackTools onClose={() => setOpen(null)} />}
      {open === 'party' && <PartyDialog onClose={() => setOpen(null)} />}
      {open === 'typing' && (
        <TypedDays
          days={road.typed_days}
          onClose={() => setOpen(null)}
          onKeep={(typed_days) => {
            put('Type the days', { typed_days })
            setOpen(null)
          }}
        />
      )}
    </>
  )
}

const WhenAndHow = () => (
  <>
    <SeasonPanel />
    <HowToGo />
  </>
)

/** The road as a whole: its figures, where it comes from, how it is cut into days. */
function TheRoad({ lane, onLane, onOpen }: { lane: Lane; onLane: (lane: Lane) => void; onOpen: (open: Open) => void }) {
  const { tour, assessment, bring } = useDesk()
  const { road, put } = useRoad()
  const { busy } = useWork()
  return (
    <section aria-label="The road">
      <Section>Road</Section>
      <RoadFigures />
      <Row $min={130}>
        <FileButton
          wanted={!assessment.road}
          accept={TRACK_FILES}
          onFiles={(files) => void bring(READING, (...to) => api.bringTrack(files, false, ...to))}
        >
          {busy === READING ? 'Reading …' : tour.has_track ? 'Another track' : 'Bring a track'}
        </FileButton>
        {tour.has_track ? (
          <Button onPress={() => onOpen('shaping')}>Track and pace</Button>
        ) : (
          <Button onPress={() => onOpen('typing')}>Type the days</Button>
        )}
      </Row>
      <RoadPlan />
      <RailLine>
        <Icon name="camp" size={17} />
        Days
      </RailLine>
      <CutDays cut={road.cut} onCut={(cut) => put('Cut the days anew', { cut })} />
      <Muted>
        Hours come from your power, the whole mass and the gradients. Climb: 25{'\u00a0'}m cells, 100{'\u00a0'}m mean, reversals from{' '}
        {road.ascent_threshold_m}
        {'\u00a0'}m count.
      </Muted>
      <LeaveOn />
      <Choice
        label="Over the land, show"
        value={lane}
        onChange={onLane}
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
  )
}
