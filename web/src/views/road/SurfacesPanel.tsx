/** Stretches with a surface of their own, and stretches that are not ridden. */
import type { Road } from '../../api/client'
import { usePlayhead } from '../../instruments/moment'
import { useDesk } from '../../api/tour'
import { Button, Choice, IconButton, Measure, Muted, RailLine, Row } from '../../ui/controls'
import { CARRIAGE_WORDS, SURFACE_WORDS } from './words'

const entries = <T extends string>(words: Record<T, string>) => (Object.keys(words) as T[]).map((id) => ({ id, text: words[id] }))

export function SurfacesPanel({ road, put }: { road: Road; put: (what: string, part: Partial<Road>) => void }) {
  const { assessment } = useDesk()
  const { moment } = usePlayhead()
  const km = Math.round(assessment.moments?.km[moment] ?? 0)
  const end = assessment.road?.length_km ?? 0
  const to = Math.min(km + 20, end)
  const ranged = (from_km: number, to_km: number) => from_km < to_km
  return (
    <>
      <RailLine>Surfaces</RailLine>
      <Muted>Elsewhere the road is as smooth as the bike's rolling resistance says. Later lines lie over earlier ones.</Muted>
      {road.surfaces.map((s, i) => {
        const set = (part: Partial<typeof s>) => {
          const next = { ...s, ...part }
          if (ranged(next.from_km, next.to_km)) put('Change a surface', { surfaces: road.surfaces.map((o, j) => (j === i ? next : o)) })
        }
        return (
          <Row key={i} $min={110}>
            <Choice label="Surface" value={s.surface} onChange={(surface) => set({ surface })} options={entries(SURFACE_WORDS)} />
            <Measure label="From" value={s.from_km} quantity="distance" decimals={1} most={end} onChange={(from_km) => set({ from_km })} />
            <Measure label="To" value={s.to_km} quantity="distance" decimals={1} most={end} onChange={(to_km) => set({ to_km })} />
            <IconButton aria-label="Remove this surface" onPress={() => put('Remove a surface', { surfaces: road.surfaces.filter((_, j) => j !== i) })}>×</IconButton>
          </Row>
        )
      })}
      <Button $small isDisabled={!ranged(km, to)} onPress={() => put('Paint a surface', { surfaces: [...road.surfaces, { from_km: km, to_km: to, surface: 'gravel' }] })}>Gravel from the playhead on</Button>
      <RailLine>Not ridden</RailLine>
      <Muted>Ferries, trains, buses and flights: no riding, no climb, but hours of the day.</Muted>
      {road.transfers.map((t, i) => {
        const set = (part: Partial<typeof t>) => {
          const next = { ...t, ...part }
          if (ranged(next.from_km, next.to_km)) put('Change a transfer', { transfers: road.transfers.map((o, j) => (j === i ? next : o)) })
        }
        return (
          <Row key={i} $min={96}>
            <Choice label="By" value={t.by} onChange={(by) => set({ by })} options={entries(CARRIAGE_WORDS)} />
            <Measure label="From" value={t.from_km} quantity="distance" decimals={1} most={end} onChange={(from_km) => set({ from_km })} />
            <Measure label="To" value={t.to_km} quantity="distance" decimals={1} most={end} onChange={(to_km) => set({ to_km })} />
            <Measure label="Takes" value={t.hours} quantity="hours" most={240} onChange={(hours) => set({ hours })} />
            <IconButton aria-label="Remove this transfer" onPress={() => put('Remove a transfer', { transfers: road.transfers.filter((_, j) => j !== i) })}>×</IconButton>
          </Row>
        )
      })}
      <Button $small isDisabled={!ranged(km, to)} onPress={() => put('Add a transfer', { transfers: [...road.transfers, { from_km: km, to_km: to, by: 'ferry', hours: 2 }] })}>Ferry from the playhead on</Button>
    </>
  )
}
