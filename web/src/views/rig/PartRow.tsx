/** A part that wears: what is behind it, how long it lasts, where it ends on this tour, and where a new one goes on. */
import { BOUNDS } from '../../api/bounds'
import type { Assessment, Bike } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Choice, Measure } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { unitOf } from '../../ui/units'

export type Worn = Assessment['parts'][number]
export type Told = Bike['parts'][number]

const NOWHERE = 'nowhere'
/** What is behind a part is guessed no closer [km]. */
const GUESSED_TO_KM = 50

export function PartRow({ worn, said, onTell }: { worn: Worn; said: Told; onTell: (worn: Worn, told: Partial<Told>) => void }) {
  const { sheet } = useDesk()
  const units = useUnits()
  const km = unitOf('distance', units.system)
  const shops = sheet.road.stops.filter((s) => s.bike_shop === 'full')
  const at = shops.find((s) => worn.renewed_km !== null && Math.abs(s.at_km - worn.renewed_km) < 0.05)
  const places = [
    { id: NOWHERE, text: 'Nowhere' },
    ...shops.map((s) => ({ id: `${s.at_km}`, text: `${s.name}, ${units.show(s.at_km, 'distance')}` })),
    ...(worn.renewed_km !== null && !at ? [{ id: `${worn.renewed_km}`, text: units.show(worn.renewed_km, 'distance') }] : []),
  ]
  return (
    <tr>
      <th scope="row">
        {worn.words}
        <small>{said.verdict}</small>
      </th>
      <td data-label={`Behind it, ${km}`}>
        <div className="beside">
          <Measure
            label={`Behind the ${worn.words}`}
            hidden
            value={worn.said ? worn.behind_km : Math.round(worn.behind_km / GUESSED_TO_KM) * GUESSED_TO_KM}
            quantity="distance"
            decimals={0}
            range={BOUNDS.BikePart.behind_km}
            onChange={(behind_km) => onTell(worn, { behind_km })}
            onClear={() => onTell(worn, { behind_km: null })}
          />
          <small>{worn.said ? '' : 'a guess'}</small>
        </div>
      </td>
      <td data-label={`Lasts, ${km}`}>
        <div className="beside">
          <Measure
            label={`The ${worn.words} lasts`}
            hidden
            value={Math.round(worn.life_km)}
            quantity="distance"
            decimals={0}
            range={BOUNDS.BikePart.lasts_km}
            onChange={(lasts_km) => onTell(worn, { lasts_km })}
            onClear={() => onTell(worn, { lasts_km: null })}
          />
          <small>{said.lasts_km === null ? 'usual' : ''}</small>
        </div>
      </td>
      <td>
        {worn.state === 'ends' || worn.state === 'spare' ? (
          <>
            <b>{worn.ends_km !== null && `Worn out about ${units.show(worn.ends_km, 'distance')}, day ${worn.ends_day}`}</b>
            <small>{worn.state === 'spare' ? 'a spare is on board' : worn.sold_at ? '' : 'nothing on the way there sells one'}</small>
          </>
        ) : (
          <>
            {worn.state === 'renewed' ? 'Lasts, renewed on the way' : 'Lasts'}
            <small>takes {units.show(worn.takes_km, 'distance')} of it</small>
          </>
        )}
      </td>
      <td data-label="New one at">
        <Choice
          label={`A new ${worn.words} goes on at`}
          hidden
          value={worn.renewed_km === null ? NOWHERE : `${at?.at_km ?? worn.renewed_km}`}
          options={places}
          onChange={(v) => onTell(worn, { renewed_km: v === NOWHERE ? null : Number(v) })}
        />
      </td>
    </tr>
  )
}
