/** Stretches on which something is to be reckoned with: they ask for things, and end. */
import type { Road } from '../../api/client'
import { Muted, RailLine, Row } from '../../ui/controls'
import { HAZARD_WORDS } from '../../instruments/RibbonHazards'
import { Choice, SettledField } from '../../ui/fields'
import { Picks } from '../../ui/Picks'
import { Stretches } from './SurfacesPanel'
import { choices } from './words'

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
        <Picks
          label="Every night"
          options={[{ id: 'rooms', text: 'in a room, wherever that is found' }]}
          chosen={road.rooms_only ? ['rooms'] : []}
          onChange={(v) => put('Nights in rooms', { rooms_only: v.includes('rooms') })}
        />
        <Muted>Then nothing to sleep in is asked for, and no tent.</Muted>
      </Row>
    </>
  )
}
