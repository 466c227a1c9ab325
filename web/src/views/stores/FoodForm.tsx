/** One food of a rider's own: typed, or taken from the table to price or change. */
import { BOUNDS } from '../../api/bounds'
import type { Food } from '../../api/client'
import { Actions, Button, Row } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'

const NEEDS = [
  { id: 'nothing', text: 'as it is' },
  { id: 'boiling', text: 'hot water' },
  { id: 'cooking', text: 'cooking' },
] as const
const SOLD = [
  { id: 'snacks', text: 'anywhere' },
  { id: 'basic', text: 'basic shops' },
  { id: 'full', text: 'full shops only' },
] as const
export const NEW: Food = {
  id: '',
  name: '',
  kcal_per_100g: 400,
  l_per_kg: 1.5,
  sold_l_per_kg: 2,
  keeps_days: 1000,
  keeps_hot_days: 1000,
  needs: 'nothing',
  sold_at: 'basic',
  pack_g: 500,
  price_per_kg: null,
}
interface Props {
  food: Food
  onChange: (food: Food) => void
  onTake: () => void
  onClose: () => void
}

export function FoodForm({ food, onChange, onTake, onClose }: Props) {
  const set = (part: Partial<Food>) => onChange({ ...food, ...part })
  return (
    <>
      <Row $min={130}>
        <Field label="Food" value={food.name} onChange={(name) => set({ name })} />
        <Measure
          label="kcal in 100 g"
          value={food.kcal_per_100g}
          quantity="count"
          range={BOUNDS.Food.kcal_per_100g}
          onChange={(kcal_per_100g) => set({ kcal_per_100g })}
        />
        <Measure
          label="A kilogram, decanted"
          value={food.l_per_kg}
          quantity="volume"
          range={BOUNDS.Food.l_per_kg}
          onChange={(l_per_kg) => set({ l_per_kg })}
        />
        <Measure
          label="A kilogram, as sold"
          value={food.sold_l_per_kg}
          quantity="volume"
          range={BOUNDS.Food.sold_l_per_kg}
          onChange={(sold_l_per_kg) => set({ sold_l_per_kg })}
        />
        <Measure
          label="Keeps, days"
          value={food.keeps_days}
          quantity="count"
          range={BOUNDS.Food.keeps_days}
          onChange={(n) => set({ keeps_days: Math.round(n) })}
        />
        <Measure
          label="Keeps in heat, days"
          value={food.keeps_hot_days}
          quantity="count"
          range={BOUNDS.Food.keeps_hot_days}
          onChange={(n) => set({ keeps_hot_days: Math.round(n) })}
        />
        <Measure label="Pack, g" value={food.pack_g} quantity="count" range={BOUNDS.Food.pack_g} onChange={(pack_g) => set({ pack_g })} />
        <Measure
          label="Price of a kilogram"
          value={food.price_per_kg}
          quantity="money"
          range={BOUNDS.Food.price_per_kg}
          onChange={(price_per_kg) => set({ price_per_kg })}
          onClear={() => set({ price_per_kg: null })}
        />
        <Choice label="It needs" value={food.needs} options={[...NEEDS]} onChange={(needs) => set({ needs })} />
        <Choice label="Sold at" value={food.sold_at} options={[...SOLD]} onChange={(sold_at) => set({ sold_at })} />
      </Row>
      <Actions>
        <Button onPress={onClose}>Not now</Button>
        <Button onPress={onTake} isDisabled={!food.name.trim()}>
          Take this food
        </Button>
      </Actions>
    </>
  )
}
