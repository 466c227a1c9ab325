/** Cooking, eating out, washing and what meals and parcels cost. */
import { BOUNDS } from '../../api/bounds'
import type { Stores } from '../../api/client'
import { Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'

const COOKING = [
  { id: 'unsaid', text: 'Not said: a usual mix of food' },
  { id: 'cook', text: 'Cook: raw food, most fuel, cheapest' },
  { id: 'boil', text: 'Boil only: hot water on food' },
  { id: 'none', text: 'No stove: cold food' },
] as const

export function WaysOfEating({ stores, money, set }: { stores: Stores; money: string; set: (part: Partial<Stores>) => void }) {
  return (
    <Row $min={220}>
      <Choice
        label="Way of cooking"
        value={stores.cooking ?? 'unsaid'}
        onChange={(v) => set({ cooking: v === 'unsaid' ? null : v })}
        options={[...COOKING]}
      />
      <Choice
        label="Evenings where meals are served"
        value={stores.eat_out ? 'out' : 'in'}
        onChange={(v) => set({ eat_out: v === 'out' })}
        options={[
          { id: 'in', text: 'Eat what is on board' },
          { id: 'out', text: 'Eat out' },
        ]}
      />
      <Choice
        label="At dry camps"
        value={stores.washes ? 'yes' : 'no'}
        onChange={(v) => set({ washes: v === 'yes' })}
        options={[
          { id: 'yes', text: 'Wash a little' },
          { id: 'no', text: 'Do not wash' },
        ]}
      />
      <Measure
        label="Clothes washed by hand every so many days, open: at laundries"
        value={stores.wash_every_days}
        quantity="count"
        range={BOUNDS.Stores.wash_every_days}
        onChange={(days) => set({ wash_every_days: Math.round(days) })}
        onClear={() => set({ wash_every_days: null })}
      />
      <Measure
        label={`An evening meal, bought${money ? `, ${money}` : ''}`}
        value={stores.meal_price}
        quantity="money"
        range={BOUNDS.Stores.meal_price}
        onChange={(meal_price) => set({ meal_price })}
        onClear={() => set({ meal_price: null })}
      />
      <Measure
        label="Minutes that a unit of money is worth"
        value={stores.minutes_per_money}
        quantity="count"
        range={BOUNDS.Stores.minutes_per_money}
        onChange={(minutes_per_money) => set({ minutes_per_money })}
      />
      <Measure
        label={`A parcel by post${money ? `, ${money}` : ''}`}
        value={stores.parcel_price}
        quantity="count"
        range={BOUNDS.Stores.parcel_price}
        onChange={(parcel_price) => set({ parcel_price })}
        onClear={() => set({ parcel_price: null })}
      />
      <Measure
        label="Days that a parcel is on its way"
        value={stores.post_days}
        quantity="count"
        range={BOUNDS.Stores.post_days}
        onChange={(n) => set({ post_days: Math.round(n) })}
      />
      <Measure
        label="Days that a post office keeps it"
        value={stores.holding_days}
        quantity="count"
        range={BOUNDS.Stores.holding_days}
        onChange={(n) => set({ holding_days: Math.round(n) })}
      />
    </Row>
  )
}
