/** Foods of a rider's own: added to those that ship with Omnifer, or in place of one of them. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Food } from '../../api/client'
import { Button, Muted, Row, Section } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { freeId } from '../../ui/freeId'
import { useUnits } from '../../ui/preferences'
import { FoodForm, NEW } from './FoodForm'

/** Lines with what can be done to each. */
export const List = styled.ul`
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

interface Props {
  own: Food[]
  /** Those of the table, and one's own in their place. */
  known: Food[]
  money: string
  onChange: (own: Food[]) => void
}

export function OwnFoods({ own, known, money, onChange }: Props) {
  const units = useUnits()
  const [food, setFood] = useState<Food | null>(null)
  const take = (one: Food) => {
    if (!one.name.trim()) return
    const id =
      one.id ||
      freeId(
        'food',
        own.map((f) => f.id),
      )
    onChange([...own.filter((f) => f.id !== id), { ...one, id, name: one.name.trim() }])
    setFood(null)
  }
  return (
    <>
      <Section as="h3">Foods of your own</Section>
      <Muted>
        They are added to the foods that ship with Omnifer, or take the place of one of the same identifier;{' '}
        {own.filter((f) => f.price_per_kg !== null).length} of {own.length} have a price.
      </Muted>
      <List>
        {own.map((f) => (
          <li key={f.id}>
            <span>
              {f.name}: {f.kcal_per_100g} kcal in 100 g, {units.show(f.l_per_kg, 'volume')} a kilogram
              {f.price_per_kg === null ? '' : `, ${f.price_per_kg.toFixed(2)} ${money}`}
            </span>
            <Button $small onPress={() => setFood(f)}>
              Change
            </Button>
            <Button $small onPress={() => onChange(own.filter((o) => o.id !== f.id))}>
              Remove
            </Button>
          </li>
        ))}
      </List>
      {food ? (
        <FoodForm food={food} onChange={setFood} onTake={() => take(food)} onClose={() => setFood(null)} />
      ) : (
        <Row $min={200}>
          <Choice
            label="A food of the table, to price or change"
            value=""
            onChange={(id) => setFood(known.find((f) => f.id === id) ?? NEW)}
            options={known.filter((f) => !own.includes(f)).map((f) => ({ id: f.id, text: f.name }))}
          />
          <Button $small onPress={() => setFood(NEW)}>
            Add another food
          </Button>
        </Row>
      )}
    </>
  )
}
