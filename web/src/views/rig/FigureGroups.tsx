/** What of a bike is more than a figure, or follows from others until it is overwritten, by what it is about. */
import { useState } from 'react'
import { BOUNDS } from '../../api/bounds'
import type { Bike, BikeTrace } from '../../api/client'
import { Button } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { Figure, type Say } from './Figure'

interface Props {
  bike: Bike
  trace: BikeTrace
  say: Say
}

const BEAD_SEATS = [622, 584, 571, 559, 507, 406, 349]
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

export function Frame({ bike, trace, say }: Props) {
  return (
    <>
      {SIDES.map(([side, label]) => (
        <Figure key={side} of={bike} id={side} label={label} say={say}>
          {(taken) => (
            <Measure
              label={label}
              value={trace.triangle[side]}
              quantity="length"
              range={BOUNDS.FrameTriangle[side]}
              onChange={(v) => taken({ triangle: { ...trace.triangle, [side]: v } })}
            />
          )}
        </Figure>
      ))}
      {bike.triangle && (
        <Button $small onPress={() => say('Stack and reach', { triangle: null })}>
          Back to stack and reach
        </Button>
      )}
    </>
  )
}

export function BarAndPost({ bike, say }: Props) {
  return (
    <>
      <Choice
        label="Handlebar"
        value={bike.drop_bar ? 'drop' : 'flat'}
        onChange={(v) => say('Bar', { drop_bar: v === 'drop' })}
        options={[
          { id: 'drop', text: 'Drop bar' },
          { id: 'flat', text: 'Flat bar' },
        ]}
      />
      <Choice
        label="Hands, most of the day"
        value={bike.posture ?? 'by bar'}
        onChange={(v) => say('Posture', { posture: v === 'by bar' ? null : v })}
        options={POSTURES}
      />
      <Choice
        label="Cables"
        value={bike.cables}
        onChange={(cables) => say('Cables', { cables })}
        options={[
          { id: 'before', text: 'In bows outside' },
          { id: 'inside', text: 'Inside the frame' },
        ]}
      />
      <Choice
        label="Seat post"
        value={bike.post}
        onChange={(post) => say('Seat post', { post })}
        options={[
          { id: 'fixed', text: 'Fixed' },
          { id: 'suspension', text: 'Sprung' },
          { id: 'dropper', text: 'Dropper' },
        ]}
      />
    </>
  )
}

export function Limits({ bike, trace, say }: Props) {
  return (
    <>
      <Weighing
        key={`${bike.id}${bike.ridden_front_kg}${bike.ridden_rear_kg}`}
        bike={bike}
        onKeep={(front, rear) => say('Weight with the rider', { ridden_front_kg: front, ridden_rear_kg: rear })}
      />
      <Figure of={bike} id="bare_front_kg" label="Front wheel, bare bike" say={say}>
        {(taken) => (
          <Measure
            label="Front wheel, bare bike"
            value={trace.own_front_kg}
            quantity="mass"
            range={[0, bike.mass_kg]}
            onChange={(bare_front_kg) => taken({ bare_front_kg })}
          />
        )}
      </Figure>
    </>
  )
}

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

export function Wheels({ bike, trace, say }: Props) {
  return (
    <>
      <Figure of={bike} id="tyre_width_mm" label="Tyre width" say={say}>
        {(taken) => (
          <Measure
            label="Tyre width"
            value={bike.tyre_width_mm}
            quantity="length"
            range={BOUNDS.Bike.tyre_width_mm}
            onChange={(tyre_width_mm) => taken({ tyre_width_mm, wheel_radius_mm: null })}
          />
        )}
      </Figure>
      <Figure of={bike} id="narrowest_mm" label="Room for a tyre" say={say}>
        {(taken) => (
          <Measure
            label="Room for a tyre"
            value={bike.narrowest_mm}
            quantity="length"
            range={BOUNDS.Bike.narrowest_mm}
            onChange={(narrowest_mm) => taken({ narrowest_mm })}
            onClear={() => taken({ narrowest_mm: null })}
          />
        )}
      </Figure>
      <Figure of={bike} id="bead_seat_mm" label="Rim, bead seat" say={say}>
        {(taken) => (
          <Choice
            label="Rim, bead seat"
            value={`${bike.bead_seat_mm}`}
            onChange={(v) => taken({ bead_seat_mm: Number(v), wheel_radius_mm: null })}
            options={[...new Set([...BEAD_SEATS, bike.bead_seat_mm])].map((mm) => ({
              id: `${mm}`,
              text: `${mm}\u00a0mm`,
            }))}
          />
        )}
      </Figure>
      <Figure of={bike} id="wheel_radius_mm" label="Wheel radius" say={say}>
        {(taken) => (
          <Measure
            label="Wheel radius"
            value={trace.radius_mm}
            quantity="length"
            range={BOUNDS.Bike.wheel_radius_mm}
            onChange={(wheel_radius_mm) => taken({ wheel_radius_mm })}
          />
        )}
      </Figure>
      <Choice
        label="Valves"
        value={bike.valve}
        onChange={(valve) => say('Valves', { valve })}
        options={[
          { id: 'presta', text: 'Presta, thin' },
          { id: 'schrader', text: 'Schrader, as cars' },
          { id: 'woods', text: 'Woods' },
        ]}
      />
      <Choice
        label="Brakes"
        value={bike.brakes}
        onChange={(brakes) => say('Brakes', { brakes })}
        options={[
          { id: 'rim', text: 'On the rim' },
          { id: 'disc', text: 'Disc' },
          { id: 'hub', text: 'In the hub' },
        ]}
      />
      <Choice
        label="Rims"
        value={bike.hookless ? 'hookless' : 'hooked'}
        onChange={(v) => say('Rims', { hookless: v === 'hookless' })}
        options={[
          { id: 'hooked', text: 'With hooks' },
          { id: 'hookless', text: 'Hookless, 5 bar at most' },
        ]}
      />
    </>
  )
}
