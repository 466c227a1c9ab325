/** Stretches on which something is to be reckoned with: they ask for things, and end. */
import type { Road } from '../../api/client'
import { Muted, RailLine, Row } from '../../ui/controls'
import { HAZARD_WORDS } from '../../instruments/RibbonHazards'
import { Choice, SettledField } from '../../ui/fields'
import { Stretches } from './SurfacesPanel'
import { choices } from './words'

const NIGHTS = [
  { id: 'usual' as const, text: 'As usual: anywhere, with a child at sites, huts, rooms' },
  { id: 'anywhere' as const, text: 'Anywhere, wild too' },
  { id: 'places' as const, text: 'At sites, huts and rooms' },
  { id: 'rooms' as const, text: 'In rooms only' },
]

export function HazardsPanel({ road, put }: { road: Road; put: (what: string, part: Partial<Road>) => void }) {
  return (
    <>
      <RailLine>Hazards</RailLine>
      <Muted>What a stretch asks for stands under Ready; behind its end a thing may go home. Local rules and those who live there know better.</Muted>
      <Stretches
        name="hazard"
        list={road.hazards}
        fresh={{ kind: 'insects' as const, note: '' }}
        add="A hazard from the playhead on"
        onChange={(what, hazards) => put(what, { hazards })}
        kind={(h, set) => (
          <>
            <Choice label="What" value={h.kind} onChange={(kind) => set({ kind })} options={choices(HAZARD_WORDS)} />
            <SettledField label="Note" value={h.note} optional onChange={(note) => set({ note: note.slice(0, 200) })} />
          </>
        )}
      />
      <RailLine>Nights</RailLine>
      <Row $min={200}>
        <Choice
          label="Nights you want"
          value={road.rooms_only ? 'rooms' : road.wild_camps === null ? 'usual' : road.wild_camps ? 'anywhere' : 'places'}
          options={NIGHTS}
          onChange={(v) =>
            put('Nights you want', {
              rooms_only: v === 'rooms',
              wild_camps: v === 'usual' || v === 'rooms' ? null : v === 'anywhere',
            })
          }
        />
        <Muted>Days end at such places where they can. In rooms only, nothing to sleep in is asked for, and no tent.</Muted>
      </Row>
    </>
  )
}
