/** Everything a stop can supply, when it can be had, and how far off the road it lies. */
import { useState } from 'react'
import { BOUNDS, FUEL_WORDS } from '../../api/bounds'
import type { Stop } from '../../api/client'
import { said } from './guessed'
import type { Night } from './nights'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted, Row } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'
import { Picks } from '../../ui/Picks'
import { fullDate, today } from '../../ui/dates'
import { useUnits } from '../../ui/preferences'
import { BIKE_SHOP_WORDS, choices, MONTHS, PART_WORDS, SERVICE_WORDS, SHELTER_WORDS, SHOP_WORDS, WATER_WORDS, WEEKDAYS } from './words'

const clock = (hour: number | null) => (hour === null ? '' : `${Math.floor(hour)}:${String(Math.round((hour % 1) * 60)).padStart(2, '0')}`)
const hourOf = (text: string): number | null | undefined => {
  if (!text.trim()) return null
  const found = /^(\d{1,2})(?:[:.h](\d{2}))?\s*h?$/.exec(text.trim())
  const hour = found ? Number(found[1]) + Number(found[2] ?? 0) / 60 : NaN
  return hour <= 24 ? hour : undefined
}

/** As they are typed: when the shop opens and closes, and once more after a break. */
type Hours = [string, string, string, string]
const HOURS = [
  ['Opens', 'not known'],
  ['Closes', 'not known'],
  ['Opens again', 'no break'],
  ['Closes again', 'no break'],
] as const

export function StopDialog({
  stop,
  night,
  length_km,
  onClose,
  onKeep,
  onRemove,
}: {
  stop: Stop
  /** The night that is spent here, as the rider set it. */
  night: Night | undefined
  /** Of the road; 0 where there is none yet. */
  length_km: number
  onClose: () => void
  onKeep: (stop: Stop, rests: number | null) => void
  onRemove: () => void
}) {
  const units = useUnits()
  const [draft, setDraft] = useState(stop)
  const [hours, setHours] = useState<Hours>([stop.opens_h, stop.closes_h, stop.opens_again_h, stop.closes_again_h].map(clock) as Hours)
  const [rests, setRests] = useState<number | null>(night ? night.rest_days : null)
  const [trouble, setTrouble] = useState('')
  const set = (part: Partial<Stop>) => setDraft(said(draft, part))
  const keep = () => {
    const [from, to, then, till] = hours.map(hourOf)
    if (!draft.name.trim()) return setTrouble('Give the stop a name.')
    if (length_km && draft.at_km > length_km)
      return setTrouble(`The road ends at ${units.show(length_km, 'distance', 1)}: say a place on it, and how far off it lies.`)
    if (from === undefined || to === undefined || then === undefined || till === undefined) return setTrouble('Write opening hours as 9:00 or 18:30.')
    if (then !== null && (to === null || then < to)) return setTrouble('It can only open again after it has closed.')
    onKeep(
      said(draft, {
        name: draft.name.trim(),
        opens_h: from,
        closes_h: to,
        opens_again_h: then,
        closes_again_h: then === null ? null : till,
        closed_dates: draft.closed_dates.filter(Boolean).sort(),
      }),
      rests,
    )
  }
  return (
    <Dialog draft title={stop.name} open onClose={onClose} wide>
      <Place {...{ draft, set, rests, setRests, length_km }} />
      <OfMap stop={draft} />
      <Water {...{ draft, set }} />
      <Shop {...{ draft, set, hours, setHours }} />
      <Services {...{ draft, set }} />
      <Muted>Seasonal water counts in the months in which it is not dry; unsure water never counts and is shown as a chance.</Muted>
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      <Actions>
        <Button onPress={onRemove}>Remove this stop</Button>
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted onPress={keep}>
          Keep
        </Button>
      </Actions>
    </Dialog>
  )
}

interface Part {
  draft: Stop
  set: (part: Partial<Stop>) => void
}

function Place({ draft, set, rests, setRests, length_km }: Part & { rests: number | null; setRests: (n: number | null) => void; length_km: number }) {
  return (
    <>
      <Row $min={140}>
        <Field label="Name" value={draft.name} onChange={(name) => set({ name })} />
        <Measure label="At" value={draft.at_km} quantity="distance" decimals={1} range={BOUNDS.Stop.at_km} onChange={(at_km) => set({ at_km })} />
        <Measure
          label="Off the road, one way"
          value={draft.detour_km}
          quantity="distance"
          decimals={1}
          range={BOUNDS.Stop.detour_km}
          onChange={(detour_km) => set({ detour_km })}
        />
        <Choice
          label="Worth the way"
          value={draft.take_detour === null ? 'near' : draft.take_detour ? 'ride' : 'skip'}
          onChange={(v) => set({ take_detour: v === 'near' ? null : v === 'ride' })}
          options={[
            { id: 'near', text: 'Where it is not far' },
            { id: 'ride', text: 'Yes, ride there and back' },
            { id: 'skip', text: 'No, it does not count' },
          ]}
        />
        {length_km > 0 && (
          <Choice
            label="Sleep here"
            value={rests === null ? 'no' : String(Math.min(rests, 9))}
            onChange={(v) => setRests(v === 'no' ? null : Number(v))}
            options={[
              { id: 'no', text: 'Only where a day ends' },
              { id: '0', text: 'Yes, one night' },
              ...[1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => ({ id: String(n), text: `And rest ${n} ${n > 1 ? 'days' : 'day'}` })),
            ]}
          />
        )}
        <Choice label="Shelter" value={draft.shelter} onChange={(shelter) => set({ shelter })} options={choices(SHELTER_WORDS)} />
      </Row>
    </>
  )
}

/** What of a stop rests on a map, and which. */
function OfMap({ stop: { mapped } }: { stop: Stop }) {
  if (!mapped?.parts.length) return null
  return (
    <Muted>
      By a map as of {fullDate(mapped.on)}, until you say otherwise: {mapped.parts.map((part) => PART_WORDS[part]).join(', ')}. {mapped.credit}
    </Muted>
  )
}

function Water({ draft, set }: Part) {
  return (
    <>
      <Row $min={140}>
        <Choice label="Water" value={draft.water} onChange={(water) => set({ water })} options={choices(WATER_WORDS)} />
        <Choice
          label="Before drinking"
          value={draft.treat_water ? 'treat' : 'as it is'}
          onChange={(v) => set({ treat_water: v === 'treat' })}
          options={[
            { id: 'as it is', text: 'Drink as it is' },
            { id: 'treat', text: 'Treat it' },
          ]}
        />
        <Field label="Water last confirmed" type="date" value={draft.confirmed ?? ''} onChange={(v) => set({ confirmed: v || null })} />
      </Row>
      {draft.water === 'seasonal' && (
        <Picks
          label="Dry in"
          options={MONTHS.map((text, i) => ({ id: String(i + 1), text }))}
          chosen={draft.dry_months.map(String)}
          onChange={(ids) => set({ dry_months: ids.map(Number).sort((a, b) => a - b) })}
        />
      )}
    </>
  )
}

function Shop({ draft, set, hours, setHours }: Part & { hours: Hours; setHours: (hours: Hours) => void }) {
  return (
    <>
      <Row $min={120}>
        <Choice label="Food shop" value={draft.shop} onChange={(shop) => set({ shop })} options={choices(SHOP_WORDS)} />
        {HOURS.map(([label, placeholder], i) => (
          <Field key={label} label={label} value={hours[i] ?? ''} onChange={(v) => setHours(hours.with(i, v) as Hours)} placeholder={placeholder} />
        ))}
      </Row>
      <Row $min={150}>
        {draft.closed_dates.map((date, i) => (
          <Field
            key={i}
            label="Closed on"
            type="date"
            value={date}
            onChange={(v) =>
              set({ closed_dates: v ? draft.closed_dates.map((d, k) => (k === i ? v : d)) : draft.closed_dates.filter((_, k) => k !== i) })
            }
          />
        ))}
        <Button onPress={() => set({ closed_dates: [...draft.closed_dates, draft.closed_dates.at(-1) ?? today()] })}>
          {draft.closed_dates.length ? 'One date more' : 'Closed on a date'}
        </Button>
      </Row>
      <Picks
        label="Shop closed on"
        options={WEEKDAYS.map((text, i) => ({ id: String(i), text }))}
        chosen={draft.closed_weekdays.map(String)}
        onChange={(ids) => set({ closed_weekdays: ids.map(Number).sort((a, b) => a - b) })}
      />
    </>
  )
}

function Services({ draft, set }: Part) {
  return (
    <>
      <Picks label="Also here" options={choices(SERVICE_WORDS)} chosen={draft.services} onChange={(services) => set({ services })} />
      {draft.services.includes('plugs') && (
        <Row $min={140}>
          <Measure
            label="Sockets to be had"
            value={draft.plug_outlets}
            quantity="count"
            range={BOUNDS.Stop.plug_outlets}
            onChange={(n) => set({ plug_outlets: Math.round(n) })}
          />
          <Measure
            label="At the plug, open: all the stay"
            value={draft.plug_hours}
            quantity="hours"
            range={BOUNDS.Stop.plug_hours}
            onChange={(plug_hours) => set({ plug_hours })}
            onClear={() => set({ plug_hours: null })}
          />
          <Field label="Shape of the socket" value={draft.plug_shape} onChange={(plug_shape) => set({ plug_shape })} placeholder="fits" />
        </Row>
      )}
      <Picks label="Fuel" options={choices(FUEL_WORDS)} chosen={draft.fuels} onChange={(fuels) => set({ fuels })} />
      <Row $min={200}>
        <Choice label="Bike shop" value={draft.bike_shop} onChange={(bike_shop) => set({ bike_shop })} options={choices(BIKE_SHOP_WORDS)} />
        <Field label="Note" value={draft.note} onChange={(note) => set({ note })} />
      </Row>
    </>
  )
}
