/** A bag with its fill, its figures, how it is reached, and the parts it is divided into. */
import styled from 'styled-components'
import { BOUNDS } from '../../api/bounds'
import { useQueryClient } from '@tanstack/react-query'
import { api, type Carrier, type Reach } from '../../api/client'
import { useDesk } from '../../api/tour'
import { statesInWords } from '../../instruments/states'
import { Menu } from '../../ui/Menu'
import { Button, Row } from '../../ui/controls'
import { Choice, Measure, SettledField } from '../../ui/fields'
import { REACH_WORDS } from '../../ui/icons'
import { Picks } from '../../ui/Picks'
import { useUnits } from '../../ui/preferences'
import { COLOURS, Swatch } from '../../ui/Swatch'
import { From, Held, type Hung, Item, wholeOf } from './hung'
import { hang, partsFor } from './mounting'

const OUTSIDE = [
  ['length_mm', 'Outside, long'],
  ['height_mm', 'Outside, high'],
  ['width_mm', 'Outside, wide'],
] as const
const ABLE = [
  { id: 'lifts_off', text: 'lifts off by hand' },
  { id: 'locks', text: 'locks' },
  { id: 'liner', text: 'has a liner inside' },
  { id: 'steadied', text: 'is held by a strap more or a stabiliser' },
] as const
const Parts = styled.div`
  margin-left: 14px;
  border-left: 2px solid var(--edge);
  padding-left: 10px;
`

export function CarrierItem({ carrier, ...hung }: Hung & { carrier: Carrier }) {
  const { bike, trace, onChange } = hung
  const units = useUnits()
  const found = trace.carriers.find((c) => c.carrier_id === carrier.id)
  const put = (part: Partial<Carrier>) =>
    onChange(`Change ${carrier.name}`, {
      ...bike,
      carriers: bike.carriers.map((c) => (c.id === carrier.id ? { ...carrier, ...part } : c)),
    })
  const states = found?.states ?? []
  const parts = bike.carriers.filter((c) => c.hangs_on === carrier.id)
  const of = { ...hung, carrier, put }
  return (
    <>
      <Item
        summary={
          <>
            <b>
              {carrier.name}
              {carrier.colour && (
                <>
                  , <Swatch colour={carrier.colour} />
                </>
              )}
            </b>
            <span className={states.some((s) => s === 'over' || s === 'too_full') ? 'over' : ''}>
              {units.show(found?.fullest_kg ?? 0, 'mass')} of {units.show(carrier.limit_kg, 'mass')}, {units.show(found?.fullest_l ?? 0, 'volume')} of{' '}
              {units.show(found?.room_l ?? 0, 'volume')}
              {states.length > 0 && `, ${statesInWords(states)}`}
            </span>
          </>
        }
      >
        <CarrierFigures {...of} />
        <CarrierWays {...of} />
      </Item>
      {parts.length > 0 && (
        <Parts>
          {parts.map((c) => (
            <CarrierItem key={c.id} carrier={c} {...hung} />
          ))}
        </Parts>
      )}
    </>
  )
}

interface Of extends Hung {
  carrier: Carrier
  put: (part: Partial<Carrier>) => void
}

/** What a carrier holds, weighs, costs and measures. */
function CarrierFigures({ bike, trace, carrier, put }: Of) {
  const box = trace.boxes[carrier.id]
  const found = trace.carriers.find((c) => c.carrier_id === carrier.id)
  const outside = {
    length_mm: box ? box.x1 - box.x0 : 0,
    height_mm: box ? box.y1 - box.y0 : 0,
    width_mm: box ? box.z1 - box.z0 : 0,
  }
  return (
    <Row $min={100}>
      <SettledField label="Name" value={carrier.name} onChange={(name) => put({ name })} />
      <Measure label="Volume" value={carrier.volume_l} quantity="volume" range={BOUNDS.Carrier.volume_l} onChange={(volume_l) => put({ volume_l })} />
      <Measure
        label="To the brim"
        value={Math.max(carrier.most_l, carrier.volume_l)}
        quantity="volume"
        range={[carrier.volume_l, BOUNDS.Carrier.most_l[1]]}
        onChange={(most_l) => put({ most_l })}
      />
      <Measure label="Limit" value={carrier.limit_kg} quantity="mass" onChange={(limit_kg) => put({ limit_kg })} />
      <Measure label="Own mass" value={carrier.mass_kg} quantity="mass" decimals={2} onChange={(mass_kg) => put({ mass_kg })} />
      <Measure
        label="Straps"
        value={carrier.straps}
        quantity="count"
        range={BOUNDS.Carrier.straps}
        onChange={(straps) => put({ straps: Math.round(straps) })}
      />
      <Measure
        label="Drag, m²"
        value={carrier.drag_area_m2}
        quantity="count"
        decimals={3}
        range={BOUNDS.Carrier.drag_area_m2}
        onChange={(drag_area_m2) => put({ drag_area_m2 })}
        onClear={() => put({ drag_area_m2: null })}
      />
      <Measure
        label={carrier.price && carrier.volume_l ? `Price, ${(carrier.price / carrier.volume_l).toFixed(1)} a litre` : 'Price'}
        value={carrier.price ?? 0}
        quantity="count"
        range={BOUNDS.Carrier.price}
        onChange={(price) => put({ price })}
      />
      <SettledField optional label="Colour or label" offers={Object.keys(COLOURS)} value={carrier.colour} onChange={(colour) => put({ colour })} />
      <SettledField
        optional
        label="Zone when weighing"
        offers={['Front', 'Frame', 'Rear', 'Trailer']}
        value={carrier.zone}
        onChange={(zone) => put({ zone })}
      />
      <SettledField optional label="Where it leaks" value={carrier.leaks} onChange={(leaks) => put({ leaks })} />
      {box &&
        wholeOf(bike, carrier) === carrier &&
        OUTSIDE.map(([key, label]) => (
          <Measure
            key={key}
            label={label}
            value={outside[key]}
            quantity="length"
            range={BOUNDS.OuterSize[key]}
            onChange={(mm) => put({ size: { ...outside, [key]: mm } })}
          />
        ))}
      {box && carrier.hangs_on === 'handlebar' && (
        <Measure
          label="Off the bar"
          value={carrier.stand_off_mm ?? box.x0 - trace.frame.bar.x}
          quantity="length"
          range={BOUNDS.Carrier.stand_off_mm}
          onChange={(stand_off_mm) => put({ stand_off_mm })}
        />
      )}
      <Measure label="Longest inside" value={carrier.longest_mm} quantity="length" onChange={(longest_mm) => put({ longest_mm })} />
      <Measure
        label="Thickest inside"
        value={carrier.thick_mm ?? found?.admits_mm ?? null}
        quantity="length"
        range={BOUNDS.Carrier.thick_mm}
        onChange={(thick_mm) => put({ thick_mm })}
        onClear={() => put({ thick_mm: null })}
      />
    </Row>
  )
}

/** How it is reached, opened and hung, and what can be added to it. */
function CarrierWays({ bike, bikes, catalogue, onChange, carrier, put }: Of) {
  const { ask } = useDesk()
  const queries = useQueryClient()
  const socket = catalogue && wholeOf(bike, carrier) === carrier ? partsFor(carrier, catalogue) : undefined
  return (
    <Row $min={130}>
      <Choice<Reach>
        label="Reached"
        value={carrier.reach}
        onChange={(reach) => put({ reach })}
        options={(Object.keys(REACH_WORDS) as Reach[]).map((id) => ({ id, text: REACH_WORDS[id] }))}
      />
      <Choice
        label="Dry"
        value={carrier.dryness}
        onChange={(dryness) => put({ dryness })}
        options={[
          { id: 'waterproof', text: 'Waterproof' },
          { id: 'splash', text: 'Keeps out splashes' },
          { id: 'open', text: 'Open' },
        ]}
      />
      <Choice
        label="Opens by"
        value={carrier.opening}
        onChange={(opening) => put({ opening })}
        options={[
          { id: 'roll', text: 'Roll top' },
          { id: 'lid', text: 'Lid' },
          { id: 'zip', text: 'Zip' },
          { id: 'drawstring', text: 'Drawstring' },
          { id: 'none', text: 'Nothing to open' },
        ]}
      />
      <Picks
        label="It"
        options={ABLE}
        chosen={ABLE.map((a) => a.id).filter((id) => carrier[id])}
        onChange={(v) => put(Object.fromEntries(ABLE.map(({ id }) => [id, v.includes(id)])))}
      />
      <Held value={carrier.improvised} onChange={(improvised) => put({ improvised })} />
      <From value={carrier.source} onChange={(source) => put({ source })} />
      {socket && (
        <Button
          $small
          onPress={() =>
            void ask(`Keep ${carrier.name} in the library`, (id, revision) => api.putInLibrary(id, revision, [], [carrier.id])).then(() =>
              queries.invalidateQueries({ queryKey: ['library'] }),
            )
          }
        >
          {carrier.library_id ? 'Tell the library of it' : 'Keep it in the library'}
        </Button>
      )}
      <Button
        $small
        onPress={() =>
          onChange(`Take off ${carrier.name}`, {
            ...bike,
            carriers: bike.carriers.filter((c) => c.id !== carrier.id && c.hangs_on !== carrier.id),
          })
        }
      >
        Take it off
      </Button>
      {socket && catalogue && socket.offers.length > 0 && (
        <Menu
          label={`Add to ${carrier.name}`}
          entries={socket.offers.map((o) => ({ id: o.key, text: o.name, note: o.note }))}
          onChoose={(key) => {
            const offer = socket.offers.find((o) => o.key === key)
            if (offer) onChange(`Add ${offer.name} to ${carrier.name}`, hang(bike, bikes, socket, offer, catalogue))
          }}
        >
          <Button $small>Divide it, add a pocket …</Button>
        </Menu>
      )}
    </Row>
  )
}
