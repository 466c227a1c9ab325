/** What each column of a list was taken for; the unsure ones are asked, and every one can be said. */
import type { KitPreview, KitText } from '../../api/client'
import { Fold } from '../../ui/Fold'
import { Sheet } from '../../ui/sheet'

type Column = KitPreview['columns'][number]
type Field = NonNullable<Column['field']>
const FIELDS: Record<Field, string> = {
  name: 'name',
  group: 'kit it belongs to',
  count: 'how many',
  mass: 'mass of one',
  total_mass: 'mass of all of them',
  volume: 'packed volume',
  pressed: 'volume pressed',
  longest: 'longest side',
  thick: 'thickness',
  reach: 'moment of use',
  dry: 'must stay dry',
  wet: 'gets wet',
  natures: 'what it is like',
  not_with: 'must not ride with',
  rider: 'who carries it',
  holds_water: 'holds water',
  soft_vessel: 'soft vessel',
  salts: 'for drinks with salts',
  fuel: 'is fuel',
  food: 'is food',
  guessed: 'what is a guess',
  price: 'price',
  inside: 'rides in',
  because: 'why it comes',
  bag: 'is a bag',
  may_stay: 'may stay',
  does: 'what it does for the stores',
  where: 'where it is',
  closed: 'stays shut',
  serves: 'what it serves',
  fit: 'what it fits',
  condition: 'its condition',
  held: 'owned or not',
  spare: 'is a spare',
  must: 'must come',
  unused_tours: 'tours it was not used on',
  last_time: 'what the last tour taught of it',
  year: 'year',
}
const UNITS: Partial<Record<Field, string[]>> = {
  mass: ['kg', 'g', 'lb', 'oz'],
  total_mass: ['kg', 'g', 'lb', 'oz'],
  volume: ['l', 'ml', 'fl oz', 'in3'],
  pressed: ['l', 'ml'],
  holds_water: ['l', 'ml', 'fl oz'],
  longest: ['mm', 'cm', 'in'],
  thick: ['mm', 'cm', 'in'],
}
type Choice = NonNullable<KitText['columns']>[number]

export function ColumnsRead({ columns, onChoose }: { columns: Column[]; onChoose: (choice: Choice) => void }) {
  const numbered = columns.map((column, n) => ({ column, n }))
  const unsure = numbered.filter(({ column }) => column.ask)
  const sure = numbered.filter(({ column }) => !column.ask)
  return (
    <>
      {unsure.length > 0 && <Table rows={unsure} onChoose={onChoose} />}
      {sure.length > 0 && (
        <Fold summary={`${unsure.length ? 'Understood' : 'All understood'}: ${sure.map(({ column }) => said(column)).join(' · ')}`}>
          <Table rows={sure} onChoose={onChoose} />
        </Fold>
      )}
    </>
  )
}

const said = (c: Column) => `${c.heading} → ${c.field ? FIELDS[c.field] + (c.unit ? ` in ${c.unit}` : '') : 'left aside'}`

function Table({ rows, onChoose }: { rows: { column: Column; n: number }[]; onChoose: (choice: Choice) => void }) {
  return (
    <Sheet>
      <thead>
        <tr>
          <th>Column</th>
          <th>Begins with</th>
          <th>Holds</th>
          <th>Unit</th>
          <th>Please look</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ column, n }) => (
          <tr key={n}>
            <td>{column.heading}</td>
            <td>{column.shows}</td>
            <td>
              <select
                aria-label={`What ${column.heading} holds`}
                value={column.field ?? ''}
                onChange={(e) => {
                  const field = (e.target.value || null) as Field | null
                  onChoose({ column: n, field, unit: field && UNITS[field]?.includes(column.unit) ? column.unit : '' })
                }}
              >
                <option value="">nothing, left aside</option>
                {Object.entries(FIELDS).map(([id, words]) => (
                  <option key={id} value={id}>
                    {words}
                  </option>
                ))}
              </select>
            </td>
            <td>
              {column.field && UNITS[column.field] && (
                <select
                  aria-label={`Unit of ${column.heading}`}
                  value={column.unit}
                  onChange={(e) => onChoose({ column: n, field: column.field, unit: e.target.value })}
                >
                  {[...new Set([column.unit, ...(UNITS[column.field] ?? [])])].map((unit) => (
                    <option key={unit}>{unit}</option>
                  ))}
                </select>
              )}
            </td>
            <td>{column.ask}</td>
          </tr>
        ))}
      </tbody>
    </Sheet>
  )
}
