/** What hangs on the bike, chain by chain, with limits and fills; each figure can be overwritten. */
import styled from 'styled-components'
import { phone } from '../../ui/theme'
import { BOUNDS } from '../../api/bounds'
import type { Bike, BikeTrace, Carrier, Catalogue, Reach, Support } from '../../api/client'
import { statesInWords } from '../../instruments/states'
import { Button, Menu, Muted, RailLine, Row, Section } from '../../ui/controls'
import { Choice, Measure, SettledField } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { Icon, REACH_WORDS } from '../../ui/icons'
import { Picks } from '../../ui/Picks'
import { COLOURS, Swatch } from '../../ui/Swatch'
import { useUnits } from '../../ui/preferences'
import { hang, MOUNT_WORDS, partsFor } from './mounting'

const Item = styled(Fold)`
  border-bottom: 1px solid var(--hair);
  padding: 4px 0;
  summary {
    cursor: pointer;
    min-height: 32px;
    ${phone} {
      min-height: 44px;
    }
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: center;
    gap: 8px;
    list-style: none;
  }
  summary b {
    font-weight: 620;
  }
  summary span {
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
    text-align: right;
  }
  summary span.over {
    color: var(--ink);
    font-weight: 720;
  }
  &[open] {
    padding-bottom: 10px;
  }
`

interface Hung {
  bike: Bike
  bikes: Bike[]
  trace: BikeTrace
  catalogue: Catalogue | undefined
  onChange: (what: string, bike: Bike) => void
}

const OUTSIDE = [
  ['length_mm', 'Outside, long'],
  ['height_mm', 'Outside, high'],
  ['width_mm', 'Outside, wide'],
] as const
const ABLE = [
  { id: 'lifts_off', text: 'lifts off by hand' },
  { id: 'locks', text: 'locks' },
] as const
const Parts = styled.div`
  margin-left: 14px;
  border-left: 2px solid var(--edge);
  padding-left: 10px;
`

export function HungList(hung: Hung) {
  const { bike, trace, onChange } = hung
  const units = useUnits()
  const putSupport = (s: Support, part: Partial<Support>) =>
    onChange(`Change ${s.name}`, { ...bike, supports: bike.supports.map((o) => (o.id === s.id ? { ...s, ...part } : o)) })
  const removeSupport = (s: Support) =>
    onChange(`Take off ${s.name}`, {
      ...bike,
      supports: bike.supports.filter((o) => o.id !== s.id),
      carriers: bike.carriers.filter((c) => c.hangs_on !== s.id && wholeOf(bike, c).hangs_on !== s.id),
    })
  const alone = bike.carriers.filter((c) => ![...bike.supports, ...bike.carriers].some((s) => s.id === c.hangs_on))
  return (
    <>
      <Section>What hangs on it</Section>
      {bike.supports.map((support) => {
        const found = trace.limits.find((l) => l.kind === 'support' && l.owner_id === support.id)
        return (
          <div key={support.id}>
            <RailLine>
              <Icon name="load" size={17} />
              {support.name}
              <em>
                {units.show(found?.worst ?? 0, 'mass')} of {units.show(support.limit_kg, 'mass', 0)}
                {found?.over ? ', over' : ''}
              </em>
            </RailLine>
            <Item
              summary={
                <>
                  <span style={{ textAlign: 'left' }}>
                    on the {MOUNT_WORDS[support.mount]}, weighs {units.show(support.mass_kg, 'mass')}
                  </span>
                  <span>change</span>
                </>
              }
            >
              <Row $min={100}>
                <Measure
                  label="Own mass"
                  value={support.mass_kg}
                  quantity="mass"
                  decimals={2}
                  onChange={(mass_kg) => putSupport(support, { mass_kg })}
                />
                <Measure label="Limit" value={support.limit_kg} quantity="mass" onChange={(limit_kg) => putSupport(support, { limit_kg })} />
                {support.trailer && (
                  <Measure
                    label="Hitch bears"
                    value={support.trailer.hitch_most_kg}
                    quantity="mass"
                    onChange={(v) => support.trailer && putSupport(support, { trailer: { ...support.trailer, hitch_most_kg: v } })}
                  />
                )}
                <Measure
                  label="Bolts needed"
                  value={support.bolts}
                  quantity="count"
                  range={BOUNDS.Support.bolts}
                  onChange={(bolts) => putSupport(support, { bolts: Math.round(bolts) })}
                />
                <Measure
                  label="Price"
                  value={support.price ?? 0}
                  quantity="count"
                  range={BOUNDS.Carrier.price}
                  onChange={(price) => putSupport(support, { price })}
                />
                <Held value={support.improvised} onChange={(improvised) => putSupport(support, { improvised })} />
                <From value={support.source} onChange={(source) => putSupport(support, { source })} />
                <Button $small onPress={() => removeSupport(support)}>
                  Take off, with its bags
                </Button>
              </Row>
            </Item>
            {bike.carriers
              .filter((c) => c.hangs_on === support.id)
              .map((c) => (
                <CarrierItem key={c.id} carrier={c} {...hung} />
              ))}
          </div>
        )
      })}
      <div>
        <RailLine>On the bike itself</RailLine>
        {alone.map((c) => (
          <CarrierItem key={c.id} carrier={c} {...hung} />
        ))}
        {!alone.length && <Muted>Nothing yet.</Muted>}
      </div>
    </>
  )
}

const wholeOf = (bike: Bike, carrier: Carrier) => bike.carriers.find((c) => c.id === carrier.hangs_on) ?? carrier

function CarrierItem({ carrier, ...hung }: Hung & { carrier: Carrier }) {
  const { bike, bikes, trace, catalogue, onChange } = hung
  const units = useUnits()
  const found = trace.carriers.find((c) => c.carrier_id === carrier.id)
  const put = (part: Partial<Carrier>) =>
    onChange(`Change ${carrier.name}`, {
      ...bike,
      carriers: bike.carriers.map((c) => (c.id === carrier.id ? { ...carrier, ...part } : c)),
    })
  const box = trace.boxes[carrier.id]
  const outside = {
    length_mm: box ? box.x1 - box.x0 : 0,
    height_mm: box ? box.y1 - box.y0 : 0,
    width_mm: box ? box.z1 - box.z0 : 0,
  }
  const states = found?.states ?? []
  const parts = bike.carriers.filter((c) => c.hangs_on === carrier.id)
  const socket = catalogue && wholeOf(bike, carrier) === carrier ? partsFor(carrier, catalogue) : undefined
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
        <Row $min={100}>
          <SettledField label="Name" value={carrier.name} onChange={(name) => put({ name })} />
          <Measure
            label="Volume"
            value={carrier.volume_l}
            quantity="volume"
            range={BOUNDS.Carrier.volume_l}
            onChange={(volume_l) => put({ volume_l })}
          />
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
          <Measure label="Price" value={carrier.price ?? 0} quantity="count" range={BOUNDS.Carrier.price} onChange={(price) => put({ price })} />
          <SettledField
            optional
            label="Colour or label"
            offers={Object.keys(COLOURS)}
            value={carrier.colour}
            onChange={(colour) => put({ colour })}
          />
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
        </Row>
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
            label="By hand"
            options={ABLE}
            chosen={ABLE.map((a) => a.id).filter((id) => carrier[id])}
            onChange={(v) => put({ lifts_off: v.includes('lifts_off'), locks: v.includes('locks') })}
          />
          <Held value={carrier.improvised} onChange={(improvised) => put({ improvised })} />
          <From value={carrier.source} onChange={(source) => put({ source })} />
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

function Held({ value, onChange }: { value: boolean; onChange: (improvised: boolean) => void }) {
  return (
    <Choice
      label="Held by"
      value={value ? 'ties' : 'bolts'}
      onChange={(v) => onChange(v === 'ties')}
      options={[
        { id: 'bolts', text: 'What it is made for' },
        { id: 'ties', text: 'Ties or tape, improvised' },
      ]}
    />
  )
}

function From({ value, onChange }: { value: Carrier['source']; onChange: (source: Carrier['source']) => void }) {
  return (
    <Choice
      label="Figures are"
      value={value}
      onChange={onChange}
      options={[
        { id: 'maker', text: 'The maker’s' },
        { id: 'measured', text: 'Measured' },
        { id: 'default', text: 'Common practice' },
      ]}
    />
  )
}
