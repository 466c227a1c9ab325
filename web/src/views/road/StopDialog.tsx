/** Everything a stop can supply, when it can be had, and how far off the road it lies. */
import { useState } from 'react'
import { BOUNDS } from '../../api/bounds'
import type { Stop } from '../../api/client'
import { Actions, Button, Dialog, Muted, Row } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'
import { Picks } from '../../ui/Picks'
import { BIKE_SHOP_WORDS, choices, FUEL_WORDS, MONTHS, SERVICE_WORDS, SHELTER_WORDS, SHOP_WORDS, WATER_WORDS, WEEKDAYS } from './words'

const clock = (hour: number | null) => (hour === null ? '' : `${Math.floor(hour)}:${String(Math.round((hour % 1) * 60)).padStart(2, '0')}`)
const hourOf = (text: string): number | null | undefined => {
  if (!text.trim()) return null
  const found = /^(\d{1,2})(?:[:.h](\d{2}))?\s*h?$/.exec(text.trim())
  const hour = found ? Number(found[1]) + Number(found[2] ?? 0) / 60 : NaN
  return hour <= 24 ? hour : undefined
}

export function StopDialog({
  stop,
  onClose,
  onKeep,
  onRemove,
}: {
  stop: Stop
  onClose: () => void
  onKeep: (stop: Stop) => void
  onRemove: () => void
}) {
  const [draft, setDraft] = useState(stop)
  const [opens, setOpens] = useState(clock(stop.opens_h))
  const [closes, setCloses] = useState(clock(stop.closes_h))
  const [dates, setDates] = useState(stop.closed_dates.join(' '))
  const [trouble, setTrouble] = useState('')
  const set = (part: Partial<Stop>) => setDraft({ ...draft, ...part })
  const keep = () => {
    const [from, to] = [hourOf(opens), hourOf(closes)]
    if (!draft.name.trim()) return setTrouble('Give the stop a name.')
    if (from === undefined || to === undefined) return setTrouble('Write opening hours as 9:00 or 18:30.')
    const closed = dates.split(/[\s,;]+/).filter(Boolean)
    if (closed.some((d) => !/^\d{4}-\d{2}-\d{2}$/.test(d))) return setTrouble('Write closed dates as 2027-05-01, with spaces between.')
    onKeep({ ...draft, name: draft.name.trim(), opens_h: from, closes_h: to, closed_dates: closed })
  }
  return (
    <Dialog title={stop.name} open onClose={onClose} wide>
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
        <Choice label="Shelter" value={draft.shelter} onChange={(shelter) => set({ shelter })} options={choices(SHELTER_WORDS)} />
      </Row>
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
      <Row $min={120}>
        <Choice label="Food shop" value={draft.shop} onChange={(shop) => set({ shop })} options={choices(SHOP_WORDS)} />
        <Field label="Opens" value={opens} onChange={setOpens} placeholder="not known" />
        <Field label="Closes" value={closes} onChange={setCloses} placeholder="not known" />
        <Field label="Closed on dates" value={dates} onChange={setDates} placeholder="2027-05-01 …" />
      </Row>
      <Picks
        label="Shop closed on"
        options={WEEKDAYS.map((text, i) => ({ id: String(i), text }))}
        chosen={draft.closed_weekdays.map(String)}
        onChange={(ids) => set({ closed_weekdays: ids.map(Number).sort((a, b) => a - b) })}
      />
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
