/** How the party eats: cooking, boiling or neither, in or out, and what the menu is made of. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { BOUNDS } from '../../api/bounds'
import { api, type Food, type Stores } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Actions, Button, Dialog, Muted, Row, Section } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'
import { freeId } from '../../ui/freeId'
import { useUnits } from '../../ui/preferences'

const COOKING = [
  { id: 'unsaid', text: 'Not said: a usual mix of food' },
  { id: 'cook', text: 'Cook: raw food, most fuel, cheapest' },
  { id: 'boil', text: 'Boil only: hot water on food' },
  { id: 'none', text: 'No stove: cold food' },
] as const
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
const MEALS = { breakfast: 'Breakfast', riding: 'While riding', evening: 'Evening' } as const

const NEW: Food = {
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
const List = styled.ul`
  display: grid;
  gap: 4px;
  li {
    display: flex;
    gap: 8px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    padding: 3px 0;
    font-size: var(--size-small);
  }
  li > span {
    flex: 1;
  }
`

export function EatingDialog({ onClose }: { onClose: () => void }) {
  const { sheet, change, assessment } = useDesk()
  const units = useUnits()
  const [draft, setDraft] = useState<Stores>(sheet.stores)
  const [food, setFood] = useState<Food | null>(null)
  const [serving, setServing] = useState({ meal: 'evening' as keyof typeof MEALS, food_id: '', percent: 50 })
  const set = (part: Partial<Stores>) => setDraft({ ...draft, ...part })
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue, staleTime: Infinity })
  const known = [...(catalogue?.foods ?? []).filter((f) => !draft.own_foods.some((own) => own.id === f.id)), ...draft.own_foods]
  const saves = assessment.stores?.cooking_saves
  const priced = draft.own_foods.filter((f) => f.price_per_kg !== null).length
  const keepFood = (one: Food) => {
    if (!one.name.trim()) return
    const id =
      one.id ||
      freeId(
        'food',
        draft.own_foods.map((f) => f.id),
      )
    set({ own_foods: [...draft.own_foods.filter((f) => f.id !== id), { ...one, id, name: one.name.trim() }] })
    setFood(null)
  }
  return (
    <Dialog draft title="How you eat" open onClose={onClose} wide>
      <Row $min={220}>
        <Choice
          label="Way of cooking"
          value={draft.cooking ?? 'unsaid'}
          onChange={(v) => set({ cooking: v === 'unsaid' ? null : v })}
          options={[...COOKING]}
        />
        <Choice
          label="Evenings where meals are served"
          value={draft.eat_out ? 'out' : 'in'}
          onChange={(v) => set({ eat_out: v === 'out' })}
          options={[
            { id: 'in', text: 'Eat what is on board' },
            { id: 'out', text: 'Eat out' },
          ]}
        />
        <Choice
          label="At dry camps"
          value={draft.washes ? 'yes' : 'no'}
          onChange={(v) => set({ washes: v === 'yes' })}
          options={[
            { id: 'yes', text: 'Wash a little' },
            { id: 'no', text: 'Do not wash' },
          ]}
        />
        <Measure
          label="Clothes washed by hand every so many days, open: at laundries"
          value={draft.wash_every_days}
          quantity="count"
          range={BOUNDS.Stores.wash_every_days}
          onChange={(days) => set({ wash_every_days: Math.round(days) })}
          onClear={() => set({ wash_every_days: null })}
        />
        <Measure
          label={`An evening meal, bought${sheet.money ? `, ${sheet.money}` : ''}`}
          value={draft.meal_price}
          quantity="money"
          range={BOUNDS.Stores.meal_price}
          onChange={(meal_price) => set({ meal_price })}
          onClear={() => set({ meal_price: null })}
        />
        <Measure
          label="Minutes that a unit of money is worth"
          value={draft.minutes_per_money}
          quantity="count"
          range={BOUNDS.Stores.minutes_per_money}
          onChange={(minutes_per_money) => set({ minutes_per_money })}
        />
        <Measure
          label={`A parcel by post${sheet.money ? `, ${sheet.money}` : ''}`}
          value={draft.parcel_price}
          quantity="count"
          range={BOUNDS.Stores.parcel_price}
          onChange={(parcel_price) => set({ parcel_price })}
          onClear={() => set({ parcel_price: null })}
        />
        <Measure
          label="Days that a parcel is on its way"
          value={draft.post_days}
          quantity="count"
          range={BOUNDS.Stores.post_days}
          onChange={(n) => set({ post_days: Math.round(n) })}
        />
        <Measure
          label="Days that a post office keeps it"
          value={draft.holding_days}
          quantity="count"
          range={BOUNDS.Stores.holding_days}
          onChange={(n) => set({ holding_days: Math.round(n) })}
        />
      </Row>
      {saves !== null && saves !== undefined && (
        <Muted>
          Cooking every evening keeps {Math.round(saves)} {sheet.money} against eating out, fuel counted.
        </Muted>
      )}
      <Section as="h3">Foods of your own</Section>
      <Muted>
        They are added to the foods that ship with Omnifer, or take the place of one of the same identifier; {priced} of {draft.own_foods.length} have
        a price.
      </Muted>
      <List>
        {draft.own_foods.map((f) => (
          <li key={f.id}>
            <span>
              {f.name}: {f.kcal_per_100g} kcal in 100 g, {units.show(f.l_per_kg, 'volume')} a kilogram
              {f.price_per_kg === null ? '' : `, ${f.price_per_kg.toFixed(2)} ${sheet.money}`}
            </span>
            <Button $small onPress={() => setFood(f)}>
              Change
            </Button>
            <Button $small onPress={() => set({ own_foods: draft.own_foods.filter((o) => o.id !== f.id) })}>
              Remove
            </Button>
          </li>
        ))}
      </List>
      {food ? (
        <>
          <Row $min={130}>
            <Field label="Food" value={food.name} onChange={(name) => setFood({ ...food, name })} />
            <Measure
              label="kcal in 100 g"
              value={food.kcal_per_100g}
              quantity="count"
              range={BOUNDS.Food.kcal_per_100g}
              onChange={(kcal_per_100g) => setFood({ ...food, kcal_per_100g })}
            />
            <Measure
              label="A kilogram, decanted"
              value={food.l_per_kg}
              quantity="volume"
              range={BOUNDS.Food.l_per_kg}
              onChange={(l_per_kg) => setFood({ ...food, l_per_kg })}
            />
            <Measure
              label="A kilogram, as sold"
              value={food.sold_l_per_kg}
              quantity="volume"
              range={BOUNDS.Food.sold_l_per_kg}
              onChange={(sold_l_per_kg) => setFood({ ...food, sold_l_per_kg })}
            />
            <Measure
              label="Keeps, days"
              value={food.keeps_days}
              quantity="count"
              range={BOUNDS.Food.keeps_days}
              onChange={(n) => setFood({ ...food, keeps_days: Math.round(n) })}
            />
            <Measure
              label="Keeps in heat, days"
              value={food.keeps_hot_days}
              quantity="count"
              range={BOUNDS.Food.keeps_hot_days}
              onChange={(n) => setFood({ ...food, keeps_hot_days: Math.round(n) })}
            />
            <Measure
              label="Pack, g"
              value={food.pack_g}
              quantity="count"
              range={BOUNDS.Food.pack_g}
              onChange={(pack_g) => setFood({ ...food, pack_g })}
            />
            <Measure
              label="Price of a kilogram"
              value={food.price_per_kg}
              quantity="money"
              range={BOUNDS.Food.price_per_kg}
              onChange={(price_per_kg) => setFood({ ...food, price_per_kg })}
              onClear={() => setFood({ ...food, price_per_kg: null })}
            />
            <Choice label="It needs" value={food.needs} options={[...NEEDS]} onChange={(needs) => setFood({ ...food, needs })} />
            <Choice label="Sold at" value={food.sold_at} options={[...SOLD]} onChange={(sold_at) => setFood({ ...food, sold_at })} />
          </Row>
          <Actions>
            <Button onPress={() => setFood(null)}>Not now</Button>
            <Button onPress={() => keepFood(food)} isDisabled={!food.name.trim()}>
              Take this food
            </Button>
          </Actions>
        </>
      ) : (
        <Row $min={200}>
          <Choice
            label="A food of the table, to price or change"
            value=""
            onChange={(id) => setFood(known.find((f) => f.id === id) ?? NEW)}
            options={known.filter((f) => !draft.own_foods.includes(f)).map((f) => ({ id: f.id, text: f.name }))}
          />
          <Button $small onPress={() => setFood(NEW)}>
            Add another food
          </Button>
        </Row>
      )}
      {known.length > 0 && (
        <>
          <Section as="h3">Menu of your own</Section>
          <Muted>A meal without entries is eaten by the usual menu of the way of cooking.</Muted>
          <List>
            {draft.menu.map((s, i) => (
              <li key={`${s.meal}${s.food_id}${i}`}>
                <span>
                  {MEALS[s.meal]}: {known.find((f) => f.id === s.food_id)?.name ?? s.food_id}, {Math.round(s.share * 100)} % of its energy
                </span>
                <Button $small onPress={() => set({ menu: draft.menu.filter((o) => o !== s) })}>
                  Remove
                </Button>
              </li>
            ))}
          </List>
          <Row $min={150}>
            <Choice
              label="Meal"
              value={serving.meal}
              onChange={(meal) => setServing({ ...serving, meal })}
              options={(Object.keys(MEALS) as (keyof typeof MEALS)[]).map((id) => ({ id, text: MEALS[id] }))}
            />
            <Choice
              label="Food"
              value={serving.food_id}
              onChange={(food_id) => setServing({ ...serving, food_id })}
              options={known.map((f) => ({ id: f.id, text: f.name }))}
            />
            <Measure
              label="Part of the meal, %"
              value={serving.percent}
              quantity="count"
              range={[1, 100]}
              onChange={(percent) => setServing({ ...serving, percent })}
            />
            <Button
              $small
              isDisabled={!serving.food_id}
              onPress={() => set({ menu: [...draft.menu, { meal: serving.meal, food_id: serving.food_id, share: serving.percent / 100 }] })}
            >
              Put on the menu
            </Button>
          </Row>
        </>
      )}
      <Actions>
        <Button onPress={onClose}>Not now</Button>
        <Button
          $wanted
          onPress={() => {
            void change('Change how you eat', { stores: draft })
            onClose()
          }}
        >
          Keep
        </Button>
      </Actions>
    </Dialog>
  )
}
