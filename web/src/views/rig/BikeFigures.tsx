/** All figures of a bike, by what they are about; each can be overwritten. */
import { type ReactNode, useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { phone } from '../../ui/theme'
import { BOUNDS } from '../../api/bounds'
import type { Bike, BikeTrace, Quantity } from '../../api/client'
import { Button, Menu, Muted, Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { Picks } from '../../ui/Picks'
import { BikeSpares } from './BikeSpares'
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
const Figure = styled.div`
  display: flex;
  flex-direction: column;
  min-width: 0;
`
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

const BEAD_SEATS = [622, 584, 571, 559, 507, 406, 349]
const MOUNTS = Object.keys(MOUNT_WORDS) as Bike['mounts']
const SIDES: [keyof BikeTrace['triangle'], string][] = [
  ['seat_tube_mm', 'Seat tube'],
  ['top_tube_mm', 'Top tube'],
  ['head_tube_mm', 'Head tube'],
  ['down_tube_mm', 'Down tube'],
]
const POSTURES: { id: NonNullable<Bike['posture']> | 'by bar'; text: string }[] = [
  { id: 'by bar', text: 'As the bar says' },
  { id: 'hoods', text: 'On the hoods' },
  { id: 'tops', text: 'On the tops' },
  { id: 'flat', text: 'Flat bar, leaning' },
  { id: 'upright', text: 'Upright' },
]
type Source = NonNullable<Bike['sources'][string]>
const SOURCES: Record<Source, string> = { maker: 'the maker’s', measured: 'measured', default: 'common practice' }
const Whence = styled(AriaButton)`
  font-size: var(--size-fine);
  font-stretch: var(--width-narrow);
  color: var(--ink2);
  text-align: left;
  min-height: 24px;
  cursor: pointer;
  border-bottom: 1px dotted var(--ink2);
  align-self: start;
  @media (pointer: coarse) {
    min-height: 44px;
  }
`

/** Both wheels on a scale with the rider on the bare bike: one without the other says nothing, so both are kept together. */
function Weighing({ bike, onKeep }: { bike: Bike; onKeep: (front: number | null, rear: number | null) => void }) {
  const [front, setFront] = useState(bike.ridden_front_kg)
  const [rear, setRear] = useState(bike.ridden_rear_kg)
  const put = (f: number | null, r: number | null) => {
    setFront(f)
    setRear(r)
    if ((f === null) === (r === null)) onKeep(f, r)
  }
  return (
    <>
      <Measure
        label="Front, rider on, bare bike"
        value={front}
        quantity="mass"
        range={BOUNDS.Bike.ridden_front_kg}
        onChange={(kg) => put(kg, rear)}
        onClear={() => put(null, null)}
      />
      <Measure
        label="Rear, rider on, bare bike"
        value={rear}
        quantity="mass"
        range={BOUNDS.Bike.ridden_rear_kg}
        onChange={(kg) => put(front, kg)}
        onClear={() => put(null, null)}
      />
    </>
  )
}

export function BikeFigures({ bike, trace, onChange }: { bike: Bike; trace: BikeTrace; onChange: (what: string, bike: Bike) => void }) {
  /** A figure with where it is from beneath it; one that is overwritten is measured until its rider says it is the maker's. */
  const figure = (key: string, label: string, field: (taken: (part: Partial<Bike>) => void) => ReactNode) => {
    const source = bike.sources[key] ?? 'default'
    const put = (part: Partial<Bike>, from: Source) =>
      onChange(`${label} of ${bike.name}`, { ...bike, ...part, sources: { ...bike.sources, [key]: from } })
    return (
      <Figure key={key}>
        {field((part) => put(part, source === 'default' ? 'measured' : source))}
        <Menu
          label={`Where ${label} is from`}
          entries={(Object.keys(SOURCES) as Source[]).map((id) => ({ id, text: SOURCES[id] }))}
          onChoose={(id) => put({}, id as Source)}
        >
          <Whence aria-label={`${label}: ${SOURCES[source]}. Say where it is from`}>{SOURCES[source]}</Whence>
        </Menu>
      </Figure>
    )
  }
  const say = (what: string, part: Partial<Bike>) => onChange(`${what} of ${bike.name}`, { ...bike, ...part })
  return (
    <div>
      {GROUPS.map(([name, figures], i) => (
        <Group key={name} summary={name} open={i === 0}>
          <Row $min={110}>
            {figures.map(([key, label, quantity]) =>
              figure(key, label, (taken) => (
                <Measure label={label} value={bike[key]} quantity={quantity} range={BOUNDS.Bike[key]} onChange={(v) => taken({ [key]: v })} />
              )),
            )}
            {name === 'Frame' && (
              <>
                {SIDES.map(([side, label]) =>
                  figure(side, label, (taken) => (
                    <Measure
                      label={label}
                      value={trace.triangle[side]}
                      quantity="length"
                      range={BOUNDS.FrameTriangle[side]}
                      onChange={(v) => taken({ triangle: { ...trace.triangle, [side]: v } })}
                    />
                  )),
                )}
                {bike.triangle && (
                  <Button $small onPress={() => onChange(`Draw ${bike.name} by stack and reach`, { ...bike, triangle: null })}>
                    Back to stack and reach
                  </Button>
                )}
              </>
            )}
            {name === 'Bar, post and fork' && (
              <>
                <Choice
                  label="Handlebar"
                  value={bike.drop_bar ? 'drop' : 'flat'}
                  onChange={(v) => onChange(`Bar of ${bike.name}`, { ...bike, drop_bar: v === 'drop' })}
                  options={[
                    { id: 'drop', text: 'Drop bar' },
                    { id: 'flat', text: 'Flat bar' },
                  ]}
                />
                <Choice
                  label="Hands, most of the day"
                  value={bike.posture ?? 'by bar'}
                  onChange={(v) => onChange(`Posture on ${bike.name}`, { ...bike, posture: v === 'by bar' ? null : v })}
                  options={POSTURES}
                />
                <Choice
                  label="Cables"
                  value={bike.cables}
                  onChange={(cables) => onChange(`Cables of ${bike.name}`, { ...bike, cables })}
                  options={[
                    { id: 'before', text: 'In bows outside' },
                    { id: 'inside', text: 'Inside the frame' },
                  ]}
                />
                <Choice
                  label="Seat post"
                  value={bike.post}
                  onChange={(post) => onChange(`Seat post of ${bike.name}`, { ...bike, post })}
                  options={[
                    { id: 'fixed', text: 'Fixed' },
                    { id: 'suspension', text: 'Sprung' },
                    { id: 'dropper', text: 'Dropper' },
                  ]}
                />
              </>
            )}
            {name === 'Limits' && (
              <Weighing
                key={`${bike.id}${bike.ridden_front_kg}${bike.ridden_rear_kg}`}
                bike={bike}
                onKeep={(front, rear) => onChange(`Weigh the rider on ${bike.name}`, { ...bike, ridden_front_kg: front, ridden_rear_kg: rear })}
              />
            )}
            {name === 'Limits' &&
              figure('bare_front_kg', 'Front wheel, bare bike', (taken) => (
                <Measure
                  label="Front wheel, bare bike"
                  value={trace.own_front_kg}
                  quantity="mass"
                  range={[0, bike.mass_kg]}
                  onChange={(bare_front_kg) => taken({ bare_front_kg })}
                />
              ))}
            {name === 'Wheels and gears' && (
              <>
                {figure('tyre_width_mm', 'Tyre width', (taken) => (
                  <Measure
                    label="Tyre width"
                    value={bike.tyre_width_mm}
                    quantity="length"
                    range={BOUNDS.Bike.tyre_width_mm}
                    onChange={(tyre_width_mm) => taken({ tyre_width_mm, wheel_radius_mm: null })}
                  />
                ))}
                {figure('bead_seat_mm', 'Rim, bead seat', (taken) => (
                  <Choice
                    label="Rim, bead seat"
                    value={`${bike.bead_seat_mm}`}
                    onChange={(v) => taken({ bead_seat_mm: Number(v), wheel_radius_mm: null })}
                    options={[...new Set([...BEAD_SEATS, bike.bead_seat_mm])].map((mm) => ({
                      id: `${mm}`,
                      text: `${mm}\u00a0mm`,
                    }))}
                  />
                ))}
                {figure('wheel_radius_mm', 'Wheel radius', (taken) => (
                  <Measure
                    label="Wheel radius"
                    value={trace.radius_mm}
                    quantity="length"
                    range={BOUNDS.Bike.wheel_radius_mm}
                    onChange={(wheel_radius_mm) => taken({ wheel_radius_mm })}
                  />
                ))}
                <Choice
                  label="Valves"
                  value={bike.valve}
                  onChange={(valve) => onChange(`Valves of ${bike.name}`, { ...bike, valve })}
                  options={[
                    { id: 'presta', text: 'Presta, thin' },
                    { id: 'schrader', text: 'Schrader, as cars' },
                    { id: 'woods', text: 'Woods' },
                  ]}
                />
                <Choice
                  label="Brakes"
                  value={bike.brakes}
                  onChange={(brakes) => onChange(`Brakes of ${bike.name}`, { ...bike, brakes })}
                  options={[
                    { id: 'rim', text: 'On the rim' },
                    { id: 'disc', text: 'Disc' },
                    { id: 'hub', text: 'In the hub' },
                  ]}
                />
                <Choice
                  label="Rims"
                  value={bike.hookless ? 'hookless' : 'hooked'}
                  onChange={(v) => onChange(`Rims of ${bike.name}`, { ...bike, hookless: v === 'hookless' })}
                  options={[
                    { id: 'hooked', text: 'With hooks' },
                    { id: 'hookless', text: 'Hookless, 5 bar at most' },
                  ]}
                />
              </>
            )}
          </Row>
        </Group>
      ))}
      <Group summary="Mounts">
        <Picks
          label="Where something can be bolted or hung"
          options={MOUNTS.map((id) => ({ id, text: MOUNT_WORDS[id] }))}
          chosen={bike.mounts}
          onChange={(mounts) => onChange(`Mounts of ${bike.name}`, { ...bike, mounts })}
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
