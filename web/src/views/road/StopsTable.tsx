/** The stops as a table: what each supplies, when it is passed, and what is shut then. */
import { memo, useCallback, useMemo, useState } from 'react'
import { BLANK } from '../../api/bounds'
import type { OfferedStop, Passing, Stop } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useGoToKm } from '../../instruments/moment'
import { Button, Muted } from '../../ui/controls'
import { freeId } from '../../ui/freeId'
import { useUnits } from '../../ui/preferences'
import { BringStops } from './BringStops'
import { said } from './guessed'
import { type Night, nightAt, sleeping } from './nights'
import { MapBeside } from './MapBeside'
import { PlacesBeside, useOffered } from './PlacesBeside'
import { Sheet } from '../../ui/sheet'
import { StopDialog } from './StopDialog'
import { clock } from '../../ui/dates'
import { SHOP_WORDS, WATER_WORDS } from './words'

/** Drawn anew only when the playhead rests: a long road has hundreds of rows. */
export const StopsTable = memo(function StopsTable({
  stops,
  at,
  onChange,
}: {
  stops: Stop[]
  at: number
  onChange: (stops: Stop[], what: string, nights?: Night[]) => void
}) {
  const { assessment, sheet } = useDesk()
  const nights = sheet.road.nights
  const length_km = assessment.road?.length_km ?? 0
  const units = useUnits()
  const [open, setOpen] = useState<string | null>(null)
  const offered = useOffered()
  const ordered = useMemo(() => [...stops].sort((a, b) => a.at_km - b.at_km), [stops])
  const passed = useMemo(() => new Map(assessment.passings.map((p) => [p.stop_id, p])), [assessment.passings])
  const put = useCallback(
    (stop: Stop, part: Partial<Stop>, what: string) =>
      onChange(
        stops.map((s) => (s.id === stop.id ? said(s, part) : s)),
        what,
      ),
    [stops, onChange],
  )
  const add = () => {
    const id = freeId(
      'stop',
      stops.map((s) => s.id),
    )
    onChange([...stops, { ...BLANK.Stop, water: 'reliable', id, name: `Place at ${units.show(at, 'distance')}`, at_km: at }], 'Add a stop')
    setOpen(id)
  }
  const shown = stops.find((s) => s.id === open)
  return (
    <>
      <StopTools at={at} stops={stops} onAdd={add} onChange={onChange} offered={offered} />
      <Sheet>
        <thead>
          <tr>
            <th className="n">At</th>
            <th className="wide">Place</th>
            <th className="choice">Water</th>
            <th className="choice">Shop</th>
            <th>When you pass</th>
          </tr>
        </thead>
        <tbody>
          {ordered.map((stop) => (
            <StopRow
              key={stop.id}
              stop={stop}
              passing={passed.get(stop.id)}
              counts={assessment.road !== null}
              here={Math.abs(stop.at_km - at) < 0.6}
              onPut={put}
              onOpen={setOpen}
            />
          ))}
          {!ordered.length && (
            <tr>
              <td colSpan={5}>
                <Muted>
                  No stops yet. {offered?.length ? 'Take the places that lie along the road, to correct what is not so. ' : ''}Waypoints of a GPX file
                  become stops; or add one where the playhead stands, or paste a table.
                </Muted>
              </td>
            </tr>
          )}
        </tbody>
      </Sheet>
      {shown && (
        <StopDialog
          key={shown.id}
          stop={shown}
          night={nightAt(nights, shown.at_km)}
          length_km={length_km}
          onClose={() => setOpen(null)}
          onKeep={(next, rests) => {
            const changed = stops.map((s) => (s.id === shown.id ? next : s))
            onChange(changed, `Change ${next.name}`, sleeping(nights, assessment.days, shown.at_km, next.at_km, rests))
            setOpen(null)
          }}
          onRemove={() => {
            onChange(
              stops.filter((s) => s.id !== shown.id),
              `Remove ${shown.name}`,
            )
            setOpen(null)
          }}
        />
      )}
    </>
  )
})

/** How stops come: from a table, from the places along the road, or one where the playhead stands. */
function StopTools({
  at,
  stops,
  offered,
  onAdd,
  onChange,
}: {
  at: number
  stops: Stop[]
  offered: OfferedStop[] | undefined
  onAdd: () => void
  onChange: (stops: Stop[], what: string) => void
}) {
  const units = useUnits()
  const [bringing, setBringing] = useState(false)
  const [taking, setTaking] = useState(false)
  const [mapping, setMapping] = useState(false)
  const { tour } = useDesk()
  return (
    <>
      <div style={{ display: 'flex', alignItems: 'center', gap: 8, flexWrap: 'wrap' }}>
        <Muted style={{ flex: '1 1 200px' }}>Press a drop or shop on the ribbon to change it, or w and b at the playhead.</Muted>
        {offered && tour.has_track && (
          <Button $small onPress={() => setTaking(true)}>
            {offered.length ? `${offered.length} places along the road` : 'A place by its name'}
          </Button>
        )}
        {tour.has_track && (
          <Button $small onPress={() => setMapping(true)}>
            From a map
          </Button>
        )}
        <Button $small onPress={() => setBringing(true)}>
          Paste a table
        </Button>
        <Button $small onPress={onAdd}>
          Add a stop at {units.show(at, 'distance')}
        </Button>
      </div>
      {bringing && <BringStops onClose={() => setBringing(false)} />}
      {mapping && <MapBeside onClose={() => setMapping(false)} />}
      {taking && offered && (
        <PlacesBeside
          offered={offered}
          onClose={() => setTaking(false)}
          onTake={(more) => {
            onChange([...stops, ...more], more.length === 1 ? `Take ${more[0]?.name} as a stop` : `Take ${more.length} places as stops`)
            setTaking(false)
          }}
        />
      )}
    </>
  )
}

/** A stop: of all rows only those that the playhead reaches or leaves are drawn anew. */
const StopRow = memo(function StopRow({
  stop,
  passing,
  counts,
  here,
  onPut,
  onOpen,
}: {
  stop: Stop
  passing: Passing | undefined
  counts: boolean
  here: boolean
  onPut: (stop: Stop, part: Partial<Stop>, what: string) => void
  onOpen: (id: string) => void
}) {
  const goToKm = useGoToKm()
  const units = useUnits()
  const far = `${units.show(stop.detour_km, 'distance', 1)} off the road`
  const trouble = [
    passing?.water_fails && `water ${units.say(passing.water_fails)}`,
    !passing && counts && !stop.guessed.length && `${far}: does not count`,
    stop.shop !== 'none' && passing?.shop_shut && `shop ${units.say(passing.shop_shut)}`,
  ].filter(Boolean)
  const guess = stop.guessed.length > 0 && stop.people !== null && `~ by its size${stop.people ? `, ${units.show(stop.people, 'count')} people` : ''}`
  const likely = stop.shop === 'none' && passing?.shop_shut ? `; a shop is ${units.say(passing.shop_shut)}` : ''
  return (
    <tr aria-current={here}>
      <td className="n">
        <button type="button" className="plain" onClick={() => goToKm(stop.at_km)}>
          {units.show(stop.at_km, 'distance')}
        </button>
      </td>
      <td>
        <button type="button" className="plain" aria-label={`Change ${stop.name}`} onClick={() => onOpen(stop.id)}>
          {stop.name}
        </button>
      </td>
      <td>
        <select
          aria-label={`Water at ${stop.name}`}
          value={stop.water}
          onChange={(e) => onPut(stop, { water: e.target.value as Stop['water'] }, `Water at ${stop.name}: ${e.target.value}`)}
        >
          {Object.entries(WATER_WORDS).map(([id, text]) => (
            <option key={id} value={id}>
              {text}
            </option>
          ))}
        </select>
      </td>
      <td>
        <select
          aria-label={`Food shop at ${stop.name}`}
          value={stop.shop}
          onChange={(e) => onPut(stop, { shop: e.target.value as Stop['shop'] }, `Shop at ${stop.name}: ${e.target.value}`)}
        >
          {Object.entries(SHOP_WORDS).map(([id, text]) => (
            <option key={id} value={id}>
              {text}
            </option>
          ))}
        </select>
      </td>
      <td>
        {passing && (
          <>
            day {passing.day}, {passing.stays ? 'night here' : clock(passing.hour)}
            {stop.detour_km > 0 && `, ${units.show(2 * stop.detour_km, 'distance', 1)} there and back`}
          </>
        )}
        {trouble.length > 0 && (
          <Muted>
            <b>{trouble.join('; ')}</b>
          </Muted>
        )}
        {!trouble.length && stop.note && <Muted>{stop.note}</Muted>}
        {guess && (
          <Muted>
            {guess}
            {!passing && counts && `, ${far}: does not count`}
            {likely}
          </Muted>
        )}
      </td>
    </tr>
  )
})
