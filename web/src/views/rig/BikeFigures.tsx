/** All figures of a bike, by what they are about; each can be overwritten. */
import styled from 'styled-components'
import type { Bike, Quantity } from '../../api/client'
import { Choice, Measure, Muted, Row } from '../../ui/controls'

type Key = { [K in keyof Bike]: Bike[K] extends number ? K : never }[keyof Bike]
const GROUPS: [string, [Key, string, Quantity, number, number?][]][] = [
  ['Limits', [
    ['mass_kg', 'Bare bike', 'mass', 200], ['maximum_system_kg', 'Maker’s limit, all', 'mass', 1000], ['front_wheel_limit_kg', 'Front wheel limit', 'mass', 1000],
    ['rear_wheel_limit_kg', 'Rear wheel limit', 'mass', 1000], ['front_share_low', 'Front share from', 'share', 1], ['front_share_high', 'Front share to', 'share', 1],
  ]],
  ['Frame', [
    ['wheelbase_mm', 'Wheelbase', 'length', 2500, 700], ['chainstay_mm', 'Chainstay', 'length', 700, 300], ['stack_mm', 'Stack', 'length', 800, 400], ['reach_mm', 'Frame reach', 'length', 600, 250],
    ['seat_angle_deg', 'Seat angle, °', 'count', 82, 60], ['head_angle_deg', 'Head angle, °', 'count', 80, 60], ['bottom_bracket_drop_mm', 'Bottom bracket drop', 'length', 150], ['saddle_height_mm', 'Saddle height', 'length', 1000, 400],
  ]],
  ['Wheels and gears', [
    ['wheel_radius_mm', 'Wheel radius', 'length', 400, 150], ['tyre_width_mm', 'Tyre width', 'length', 130, 18], ['tyre_most_bar', 'Tyre and rim bear, bar', 'count', 12, 0.5],
    ['low_chainring', 'Lowest gear, ring', 'count', 70, 10], ['low_cog', 'Lowest gear, sprocket', 'count', 60, 9], ['low_hub_ratio', 'Hub gear’s lowest', 'count', 4, 0.1], ['crank_mm', 'Cranks', 'length', 190, 130],
  ]],
  ['Bar, post and fork', [
    ['bar_inner_width_mm', 'Bar, free width', 'length', 900, 200], ['post_travel_mm', 'Saddle drops by', 'length', 250], ['fork_travel_mm', 'Fork travel', 'length', 250], ['fork_bolts', 'Bolts a fork leg', 'count', 4],
  ]],
]
const Group = styled.details`
  border-bottom: 1px solid var(--hair);
  summary { cursor: pointer; min-height: 36px; display: flex; align-items: center; font-weight: 620; }
  &[open] { padding-bottom: 10px; }
`

export function BikeFigures({ bike, onChange }: { bike: Bike; onChange: (what: string, bike: Bike) => void }) {
  return (
    <div>
      {GROUPS.map(([name, figures], i) => (
        <Group key={name} open={i === 0}>
          <summary>{name}</summary>
          <Row $min={110}>
            {figures.map(([key, label, quantity, most, least = 0]) => (
              <Measure key={key} label={label} value={bike[key]} quantity={quantity} least={least} most={most} onChange={(v) => onChange(`${label} of ${bike.name}`, { ...bike, [key]: v })} />
            ))}
            {name === 'Bar, post and fork' && (
              <>
                <Choice label="Handlebar" value={bike.drop_bar ? 'drop' : 'flat'} onChange={(v) => onChange(`Bar of ${bike.name}`, { ...bike, drop_bar: v === 'drop' })}
                  options={[{ id: 'drop', text: 'Drop bar' }, { id: 'flat', text: 'Flat bar' }]} />
                <Choice label="Seat post" value={bike.post} onChange={(post) => onChange(`Seat post of ${bike.name}`, { ...bike, post })}
                  options={[{ id: 'fixed', text: 'Fixed' }, { id: 'suspension', text: 'Sprung' }, { id: 'dropper', text: 'Dropper' }]} />
              </>
            )}
            {name === 'Wheels and gears' && (
              <Choice label="Rims" value={bike.hookless ? 'hookless' : 'hooked'} onChange={(v) => onChange(`Rims of ${bike.name}`, { ...bike, hookless: v === 'hookless' })}
                options={[{ id: 'hooked', text: 'With hooks' }, { id: 'hookless', text: 'Hookless, 5 bar at most' }]} />
            )}
          </Row>
        </Group>
      ))}
      <Muted>Figures of the catalogue are common practice, no source. The maker’s limits count, the lowest in a chain first.</Muted>
    </div>
  )
}
