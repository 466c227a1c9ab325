/** What the meals are made of, where a rider says so. */
import { useState } from 'react'
import type { Food, Stores } from '../../api/client'
import { Button, Muted, Row, Section } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { List } from './OwnFoods'

const MEALS = { breakfast: 'Breakfast', riding: 'While riding', evening: 'Evening' } as const

export function OwnMenu({ menu, known, onChange }: { menu: Stores['menu']; known: Food[]; onChange: (menu: Stores['menu']) => void }) {
  const [serving, setServing] = useState({ meal: 'evening' as keyof typeof MEALS, food_id: '', percent: 50 })
  return (
    <>
      <Section as="h3">Menu of your own</Section>
      <Muted>A meal without entries is eaten by the usual menu of the way of cooking.</Muted>
      <List>
        {menu.map((s, i) => (
          <li key={`${s.meal}${s.food_id}${i}`}>
            <span>
              {MEALS[s.meal]}: {known.find((f) => f.id === s.food_id)?.name ?? s.food_id}, {Math.round(s.share * 100)} % of its energy
            </span>
            <Button $small onPress={() => onChange(menu.filter((o) => o !== s))}>
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
          onPress={() => onChange([...menu, { meal: serving.meal, food_id: serving.food_id, share: serving.percent / 100 }])}
        >
          Put on the menu
        </Button>
      </Row>
    </>
  )
}
