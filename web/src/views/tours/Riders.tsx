/** The riders of a tour: who they are, and what their figures decide. */
import { Picks } from '../../ui/Picks'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { BOUNDS } from '../../api/bounds'
import { api, type Bike, type Catalogue, type Rider } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, IconButton, Muted, RailLine, Row } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'
import { freeId } from '../../ui/freeId'
import { Icon } from '../../ui/icons'

/** A rider and, for one who is new, the bike of the catalogue to begin with. */
export interface Drafted {
  rider: Rider
  bike: string | null
}

export const MOST_RIDERS = 8
const USUAL_BIKE = 'touring-middle'

export const newRider = (taken: Rider[]): Drafted => ({
  rider: {
    id: freeId(
      'rider',
      taken.map((r) => r.id),
    ),
    name: '',
    body_mass_kg: 75,
    all_day_power_w: 110,
    height_cm: null,
    age_years: null,
    sex: null,
    sleeps: 'usual',
    mends: 'roadside',
    cold_hands: false,
    weak_eyes: false,
  },
  bike: USUAL_BIKE,
})

/** What is missing before the riders can be kept; empty: nothing. */
export const lacking = (name: string, riders: Drafted[]): string =>
  !name.trim() ? 'Give the tour a name.' : riders.some((r) => !r.rider.name.trim()) ? 'Give each rider a name.' : ''

/** The bikes of those who are new, as the catalogue has them. */
export function newBikes(riders: Drafted[], catalogue: Catalogue | undefined, taken: Bike[]): Bike[] {
  const used = taken.map((b) => b.id)
  return riders.flatMap(({ rider, bike }) => {
    const preset = catalogue?.bikes.find((b) => b.bike.id === bike)?.bike
    if (!preset) return []
    const id = freeId('bike', used)
    used.push(id)
    return [{ ...preset, id, rider_id: rider.id, name: `${rider.name.trim()}: ${preset.name.toLowerCase()}` }]
  })
}

const BODY = ['cold_hands', 'weak_eyes'] as const

export function RiderList({ riders, onChange }: { riders: Drafted[]; onChange: (riders: Drafted[]) => void }) {
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue })
  return (
    <>
      {riders.map((drafted, i) => {
        const { rider, bike } = drafted
        const put = (next: Partial<Drafted>) => onChange(riders.map((r, j) => (j === i ? { ...drafted, ...next } : r)))
        const set = (part: Partial<Rider>) => put({ rider: { ...rider, ...part } })
        return (
          <div key={rider.id}>
            <RailLine>
              <Icon name="rider" size={17} />
              Rider {i + 1}
              <em>
                {riders.length > 1 && (
                  <IconButton aria-label={`Remove rider ${i + 1}`} onPress={() => onChange(riders.filter((_, j) => j !== i))}>
                    ×
                  </IconButton>
                )}
              </em>
            </RailLine>
            <Row $min={140}>
              <Field label="Name" value={rider.name} onChange={(name) => set({ name })} />
              <Measure
                label="Body mass"
                value={rider.body_mass_kg}
                quantity="mass"
                range={BOUNDS.Rider.body_mass_kg}
                onChange={(body_mass_kg) => set({ body_mass_kg })}
              />
              <Measure
                label="All-day power in watts"
                value={rider.all_day_power_w}
                quantity="count"
                range={BOUNDS.Rider.all_day_power_w}
                onChange={(all_day_power_w) => set({ all_day_power_w })}
              />
              {bike !== null && (
                <Choice
                  label="Bike"
                  value={bike}
                  onChange={(next) => put({ bike: next })}
                  options={(catalogue?.bikes ?? []).map((b) => ({ id: b.bike.id, text: `${b.bike.name}, ${b.size}` }))}
                />
              )}
            </Row>
            <Row $min={140}>
              <Measure
                label="Height in cm, if known"
                value={rider.height_cm}
                quantity="count"
                range={BOUNDS.Rider.height_cm}
                onChange={(height_cm) => set({ height_cm })}
                onClear={() => set({ height_cm: null })}
              />
              <Measure
                label="Age in years, if known"
                value={rider.age_years}
                quantity="count"
                range={BOUNDS.Rider.age_years}
                onChange={(age) => set({ age_years: Math.round(age) })}
                onClear={() => set({ age_years: null })}
              />
              <Choice
                label="In bed beside others"
                value={rider.sleeps}
                onChange={(sleeps) => set({ sleeps })}
                options={[
                  { id: 'usual', text: 'As warm as others' },
                  { id: 'cold', text: 'Sleeps cold' },
                  { id: 'warm', text: 'Sleeps warm' },
                ]}
              />
              <Choice
                label="Can mend"
                value={rider.mends}
                onChange={(mends) => set({ mends })}
                options={[
                  { id: 'little', text: 'Tubes and bolts' },
                  { id: 'roadside', text: 'Chain, cables, pads too' },
                  { id: 'workshop', text: 'Spokes and hoses too' },
                ]}
              />
              <Picks
                label="And"
                options={[
                  { id: 'cold_hands', text: 'cold hands and feet' },
                  { id: 'weak_eyes', text: 'sees little without glasses' },
                ]}
                chosen={BODY.filter((id) => rider[id])}
                onChange={(v) => set({ cold_hands: v.includes('cold_hands'), weak_eyes: v.includes('weak_eyes') })}
              />
              <Choice
                label="For the resting energy"
                value={rider.sex ?? 'open'}
                onChange={(sex) => set({ sex: sex === 'open' ? null : sex })}
                options={[
                  { id: 'open', text: 'Not said: the mean' },
                  { id: 'female', text: 'Female' },
                  { id: 'male', text: 'Male' },
                ]}
              />
            </Row>
          </div>
        )
      })}
      <Muted>
        Mass and power decide the pace, height and age what is eaten off the bike. All-day power is what you hold for hours, 80 to 150 W for most
        riders (practice). Everything can be changed later.
      </Muted>
    </>
  )
}

/** Name, first day and riders of the tour on the desk; `joining`: with somebody who comes along. */
export function PartyDialog({ onClose, joining = false }: { onClose: () => void; joining?: boolean }) {
  const { sheet, change } = useDesk()
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue })
  const [name, setName] = useState(sheet.name)
  const [date, setDate] = useState(sheet.start_date)
  const [riders, setRiders] = useState<Drafted[]>(() => [
    ...sheet.riders.map((rider) => ({ rider, bike: null })),
    ...(joining ? [newRider(sheet.riders)] : []),
  ])
  const [trouble, setTrouble] = useState('')
  const leaving = sheet.riders.filter((r) => !riders.some((d) => d.rider.id === r.id))
  const keep = async () => {
    const missing = lacking(name, riders)
    if (missing) return setTrouble(missing)
    const bikes = newBikes(riders, catalogue, sheet.rig.bikes)
    const people = riders.map(({ rider }) => ({ ...rider, name: rider.name.trim() }))
    const rig = bikes.length ? { rig: { bikes: [...sheet.rig.bikes, ...bikes] } } : {}
    if (await change('Change the tour and its riders', { name: name.trim(), start_date: date, riders: people, ...rig })) onClose()
    else setTrouble('Not kept: see above the page what stands in the way.')
  }
  return (
    <Dialog draft title="Tour and riders" open onClose={onClose} wide>
      <Row $min={220}>
        <Field label="Name of the tour" value={name} onChange={setName} />
        <Field label="First day" value={date} onChange={setDate} type="date" />
      </Row>
      <RiderList riders={riders} onChange={setRiders} />
      {leaving.length > 0 && (
        <p>
          {leaving.map((r) => r.name).join(', ')} {leaving.length > 1 ? 'leave' : 'leaves'} the tour: their bikes go with them, their own things
          become shared and return to the shelf where they rode there.
        </p>
      )}
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      <Actions>
        <Button
          isDisabled={riders.length >= MOST_RIDERS}
          onPress={() => setRiders([...riders, newRider([...sheet.riders, ...riders.map((r) => r.rider)])])}
        >
          Add a rider
        </Button>
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted onPress={() => void keep()}>
          Keep
        </Button>
      </Actions>
    </Dialog>
  )
}
