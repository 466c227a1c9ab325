/** The clocks of the road: the time zones it crosses, taken from the map until the rider says otherwise. */
import type { Road } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Button, Muted, RailLine, Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { zoneWords } from './words'

const NAMES = Intl.supportedValuesOf('timeZone')

export function Zones({ road, put }: { road: Road; put: (what: string, part: Partial<Road>) => void }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const own = road.zones.length > 0
  const zones = assessment.zones
  const keep = (next: Road['zones'], what = 'Change the time zones') => put(what, { zones: [...next].sort((a, b) => a.from_km - b.from_km) })
  const last = assessment.road?.length_km ?? 0
  return (
    <section aria-label="Clocks">
      <RailLine>Clocks</RailLine>
      {zones.length ? (
        <Muted>
          {own ? 'The zones you have set.' : 'The zones in which the track lies.'} Sunrise, arrivals and opening hours are those of the wall clock
          there, summer time included.
        </Muted>
      ) : (
        <Muted>A typed road has no place and no sun: its hours are those of your own clock.</Muted>
      )}
      {zones.map((zone, i) => (
        <Row $min={140} key={`${zone.from_km}${zone.zone}`}>
          <Measure
            label="From"
            value={zone.from_km}
            quantity="distance"
            range={[0, last]}
            onChange={(from_km) => keep(zones.map((z, n) => (n === i ? { ...z, from_km } : z)))}
          />
          <Choice
            label="Time zone"
            value={zone.zone}
            options={(NAMES.includes(zone.zone) ? NAMES : [zone.zone, ...NAMES]).map((id) => ({ id, text: zoneWords(id) }))}
            onChange={(name) => keep(zones.map((z, n) => (n === i ? { ...z, zone: name } : z)))}
          />
          {own && zones.length > 1 && (
            <Button $small onPress={() => keep(zones.filter((_, n) => n !== i))}>
              Remove it from {units.show(zone.from_km, 'distance')}
            </Button>
          )}
        </Row>
      ))}
      {zones.length > 0 && (
        <Row $min={140}>
          <Button $small onPress={() => keep([...zones, { from_km: Math.round(last / 2), zone: zones[zones.length - 1]?.zone ?? 'UTC' }])}>
            Another zone further on
          </Button>
          {own && (
            <Button $small onPress={() => keep([], 'Take the time zones from the map')}>
              From the map again
            </Button>
          )}
        </Row>
      )}
    </section>
  )
}
