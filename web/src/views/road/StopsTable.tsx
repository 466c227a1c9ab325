/** The stops as a table: the same supplies that the ribbon sets by gesture. */
import type { Stop } from '../../api/client'
import { usePlayhead } from '../../instruments/moment'
import { Button, IconButton, Muted, Section } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { Sheet } from './sheet'

export function StopsTable({ stops, at, onChange }: { stops: Stop[]; at: number; onChange: (stops: Stop[], what: string) => void }) {
  const { goToKm } = usePlayhead()
  const units = useUnits()
  const ordered = [...stops].sort((a, b) => a.at_km - b.at_km)
  const put = (stop: Stop, part: Partial<Stop>, what: string) => onChange(stops.map((s) => (s.id === stop.id ? { ...s, ...part } : s)), what)
  const add = () => {
    let n = stops.length + 1
    while (stops.some((s) => s.id === `stop-${n}`)) n += 1
    onChange([...stops, { id: `stop-${n}`, name: `Place at ${units.show(at, 'distance')}`, at_km: at, water: 'reliable', shop: 'none', note: '' }], 'Add a stop')
  }
  return (
    <>
      <div style={{ display: 'flex', alignItems: 'center', gap: 12 }}>
        <Section>Stops</Section>
        <Muted style={{ flex: 1 }}>Press a drop or shop on the ribbon to change it, or w and b at the playhead.</Muted>
        <Button $small onPress={add}>Add a stop at {units.show(at, 'distance')}</Button>
      </div>
      <Sheet>
        <thead><tr><th className="wide">Place</th><th className="n">At</th><th className="choice">Water</th><th className="choice">Shop</th><th>Note</th><th /></tr></thead>
        <tbody>
          {ordered.map((stop) => (
            <tr key={stop.id} aria-current={Math.abs(stop.at_km - at) < 0.6}>
              <td><input aria-label={`Name of the stop at km ${stop.at_km}`} defaultValue={stop.name} key={stop.name}
                onBlur={(e) => e.target.value.trim() && e.target.value !== stop.name && put(stop, { name: e.target.value.trim() }, `Rename ${stop.name}`)} /></td>
              <td className="n"><button type="button" className="plain" onClick={() => goToKm(stop.at_km)}>{units.show(stop.at_km, 'distance')}</button></td>
              <td>
                <select aria-label={`Water at ${stop.name}`} value={stop.water} onChange={(e) => put(stop, { water: e.target.value as Stop['water'] }, `Water at ${stop.name}: ${e.target.value}`)}>
                  <option value="reliable">sure</option><option value="seasonal">may be dry</option><option value="none">none</option>
                </select>
              </td>
              <td>
                <select aria-label={`Food shop at ${stop.name}`} value={stop.shop} onChange={(e) => put(stop, { shop: e.target.value as Stop['shop'] }, `Shop at ${stop.name}: ${e.target.value}`)}>
                  <option value="full">full</option><option value="basic">basic</option><option value="none">none</option>
                </select>
              </td>
              <td><Muted as="span">{stop.note}</Muted></td>
              <td><IconButton aria-label={`Remove ${stop.name}`} onPress={() => onChange(stops.filter((s) => s.id !== stop.id), `Remove ${stop.name}`)}>×</IconButton></td>
            </tr>
          ))}
          {!ordered.length && <tr><td colSpan={6}><Muted>No stops yet. Waypoints of a GPX file become stops; or add one where the playhead stands.</Muted></td></tr>}
        </tbody>
      </Sheet>
    </>
  )
}
