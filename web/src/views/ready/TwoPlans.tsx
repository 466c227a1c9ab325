/** Another plan on the same fate: the same weather, thirst, springs and faults befall both. */
import { useState } from 'react'
import { api, type Stores } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { Muted } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { daysAfter } from '../../ui/dates'
import { useUnits } from '../../ui/preferences'
import { Figures } from './YearTable'

type Parts = Parameters<typeof api.twoPlans>[1]
const APART_D = 14

export function TwoPlans() {
  const { sheet, tour } = useDesk()
  const units = useUnits()
  const [chosen, setChosen] = useState('none')
  const plans: { id: string; text: string; parts: Parts }[] = [
    { id: 'earlier', text: `begun ${APART_D} days earlier`, parts: { start_date: daysAfter(sheet.start_date, -APART_D) } },
    { id: 'later', text: `begun ${APART_D} days later`, parts: { start_date: daysAfter(sheet.start_date, APART_D) } },
    ...(tour.has_track ? [{ id: 'turned', text: 'ridden the other way', parts: { turned: true } }] : []),
    ...(sheet.stores.steps.length ? [{ id: 'rule', text: 'stores by the plain rule', parts: { stores: byRule(sheet.stores) } }] : []),
    ...sheet.variants.map((variant) => ({ id: `v-${variant.id}`, text: `on ${variant.name}`, parts: { variant_id: variant.id } })),
    ...sheet.kept_loads.map((load) => ({ id: `l-${load.id}`, text: `loaded as ${load.name}`, parts: { load: load.load } })),
  ]
  const plan = plans.find((one) => one.id === chosen)
  const { data, error, isFetching } = useWorkedOut('two plans', (id, signal) => api.twoPlans(id, plan?.parts ?? {}, signal), {
    about: [chosen],
    wanted: plan !== undefined,
  })
  return (
    <>
      <Choice
        label="The same tour"
        value={chosen}
        options={[{ id: 'none', text: 'choose another plan' }, ...plans.map(({ id, text }) => ({ id, text }))]}
        onChange={setChosen}
      />
      {isFetching && <p role="status">Playing both on the same fate …</p>}
      {error && <p role="alert">{error.message}</p>}
      {!plan && <Muted>Another start, direction, rig or load meets the same weather, springs and faults, play by play.</Muted>}
      {data && plan && (
        <Figures>
          <thead>
            <tr>
              <th scope="col">Of {data.plays} plays</th>
              <th scope="col">Now</th>
              <th scope="col">Then</th>
              <th scope="col">Only now</th>
              <th scope="col">Only then</th>
            </tr>
          </thead>
          <tbody>
            {data.outcomes.map((one) => (
              <tr key={one.id}>
                <th scope="row">{one.name}</th>
                <td>{one.now.count}</td>
                <td>{one.then.count}</td>
                <td>{one.better}</td>
                <td>{one.worse}</td>
              </tr>
            ))}
            {data.year.map((row) => (
              <tr key={row.name}>
                <th scope="row">{row.name}, middle</th>
                <td>{units.show(row.now, row.quantity)}</td>
                <td>{units.show(row.then, row.quantity)}</td>
                <td />
                <td />
              </tr>
            ))}
          </tbody>
        </Figures>
      )}
    </>
  )
}

const byRule = (stores: Stores): Stores => ({ ...stores, steps: [] })
