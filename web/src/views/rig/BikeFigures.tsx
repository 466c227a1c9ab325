/** All figures of a bike, by what they are about; each can be overwritten. */
import styled from 'styled-components'
import { phone } from '../../ui/theme'
import { BOUNDS } from '../../api/bounds'
import type { Bike, BikeTrace, Quantity } from '../../api/client'
import { Muted, Row } from '../../ui/controls'
import { Measure } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { Picks } from '../../ui/Picks'
import { BikeSpares } from './BikeSpares'
import { Figure } from './Figure'
import { BarAndPost, Frame, Limits, Wheels } from './FigureGroups'
import { MOUNT_WORDS } from './mounting'

type Key = { [K in keyof Bike]: Bike[K] extends number ? K : never }[keyof Bike]
const GROUPS: [string, [Key, string, Quantity][]][] = [
  [
    'Limits',
    [
      ['mass_kg', 'Bare bike', 'mass'],
      ['maximum_system_kg', 'Maker’s limit, all', 'mass'],
      ['front_wheel_limit_kg', 'Front wheel limit', 'mass'],
      ['rear_wheel_limit_kg', 'Rear wheel limit', 'mass'],
      ['front_share_low', 'Front share from', 'share'],
      ['front_share_high', 'Front share to', 'share'],
    ],
  ],
  [
    'Frame',
    [
      ['wheelbase_mm', 'Wheelbase', 'length'],
      ['chainstay_mm', 'Chainstay', 'length'],
      ['stack_mm', 'Stack', 'length'],
      ['frame_reach_mm', 'Frame reach', 'length'],
      ['seat_angle_deg', 'Seat angle, °', 'count'],
      ['head_angle_deg', 'Head angle, °', 'count'],
      ['bottom_bracket_drop_mm', 'Bottom bracket drop', 'length'],
      ['saddle_height_mm', 'Saddle height', 'length'],
    ],
  ],
  [
    'Wheels and gears',
    [
      ['tyre_most_bar', 'Tyre and rim bear', 'pressure'],
      ['tyre_least_bar', 'Tyre wants at least', 'pressure'],
      ['low_chainring', 'Lowest gear, ring', 'count'],
      ['low_cog', 'Lowest gear, sprocket', 'count'],
      ['low_hub_ratio', 'Hub gear’s lowest', 'count'],
      ['crank_mm', 'Cranks', 'length'],
    ],
  ],
  [
    'Bar, post and fork',
    [
      ['bar_inner_width_mm', 'Bar, free width', 'length'],
      ['post_travel_mm', 'Saddle drops by', 'length'],
      ['fork_travel_mm', 'Fork travel', 'length'],
      ['fork_bolts', 'Bolts a fork leg', 'count'],
    ],
  ],
]
const Group = styled(Fold)`
  border-bottom: 1px solid var(--hair);
  summary {
    cursor: pointer;
    min-height: 36px;
    ${phone} {
      min-height: 44px;
    }
    display: flex;
    align-items: center;
    font-weight: 620;
  }
  &[open] {
    padding-bottom: 10px;
  }
`

const MOUNTS = Object.keys(MOUNT_WORDS) as Bike['mounts']
export function BikeFigures({ bike, trace, onChange }: { bike: Bike; trace: BikeTrace; onChange: (what: string, bike: Bike) => void }) {
  const say = (what: string, part: Partial<Bike>) => onChange(`${what} of ${bike.name}`, { ...bike, ...part })
  const of = { bike, trace, say }
  return (
    <div>
      {GROUPS.map(([name, figures], i) => (
        <Group key={name} summary={name} open={i === 0}>
          <Row $min={110}>
            {figures.map(([key, label, quantity]) => (
              <Figure key={key} of={bike} id={key} label={label} say={say}>
                {(taken) => (
                  <Measure label={label} value={bike[key]} quantity={quantity} range={BOUNDS.Bike[key]} onChange={(v) => taken({ [key]: v })} />
                )}
              </Figure>
            ))}
            {name === 'Frame' && <Frame {...of} />}
            {name === 'Bar, post and fork' && <BarAndPost {...of} />}
            {name === 'Limits' && <Limits {...of} />}
            {name === 'Wheels and gears' && <Wheels {...of} />}
          </Row>
        </Group>
      ))}
      <Group summary="Mounts">
        <Picks
          label="Where something can be bolted or hung"
          options={MOUNTS.map((id) => ({ id, text: MOUNT_WORDS[id] }))}
          chosen={bike.mounts}
          onChange={(mounts) => say('Mounts', { mounts })}
        />
      </Group>
      <Muted>
        Press what stands under a figure to say where it is from. Tubes are measured corner to corner, from the middle of one tube to the middle of
        the next; changed ones count before stack and reach. The maker’s limits count, the lowest in a chain first.
      </Muted>
      <Group summary="Spares and bolts">
        <BikeSpares bike={bike} say={say} />
      </Group>
    </div>
  )
}
