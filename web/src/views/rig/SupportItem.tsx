/** A rack, cage or hitch with its figures. */
import { BOUNDS } from '../../api/bounds'
import type { Support } from '../../api/client'
import { Button, RailLine, Row } from '../../ui/controls'
import { Measure } from '../../ui/fields'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { From, Held, type Hung, Item, wholeOf } from './hung'
import { MOUNT_WORDS } from './mounting'

export function SupportItem({ support, ...hung }: Hung & { support: Support }) {
  const { bike, trace, onChange } = hung
  const units = useUnits()
  const found = trace.limits.find((l) => l.kind === 'support' && l.owner_id === support.id)
  const put = (part: Partial<Support>) =>
    onChange(`Change ${support.name}`, { ...bike, supports: bike.supports.map((o) => (o.id === support.id ? { ...support, ...part } : o)) })
  const remove = () =>
    onChange(`Take off ${support.name}`, {
      ...bike,
      supports: bike.supports.filter((o) => o.id !== support.id),
      carriers: bike.carriers.filter((c) => c.hangs_on !== support.id && wholeOf(bike, c).hangs_on !== support.id),
    })
  return (
    <>
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
          <Measure label="Own mass" value={support.mass_kg} quantity="mass" decimals={2} onChange={(mass_kg) => put({ mass_kg })} />
          <Measure label="Limit" value={support.limit_kg} quantity="mass" onChange={(limit_kg) => put({ limit_kg })} />
          {support.trailer && (
            <Measure
              label="Hitch bears"
              value={support.trailer.hitch_most_kg}
              quantity="mass"
              onChange={(v) => support.trailer && put({ trailer: { ...support.trailer, hitch_most_kg: v } })}
            />
          )}
          <Measure
            label="Bolts needed"
            value={support.bolts}
            quantity="count"
            range={BOUNDS.Support.bolts}
            onChange={(bolts) => put({ bolts: Math.round(bolts) })}
          />
          <Measure label="Price" value={support.price ?? 0} quantity="count" range={BOUNDS.Carrier.price} onChange={(price) => put({ price })} />
          <Held value={support.improvised} onChange={(improvised) => put({ improvised })} />
          <From value={support.source} onChange={(source) => put({ source })} />
          <Button $small onPress={() => remove()}>
            Take off, with its bags
          </Button>
        </Row>
      </Item>
    </>
  )
}
