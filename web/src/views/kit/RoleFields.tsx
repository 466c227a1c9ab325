/** What a thing does for the stores: its role, and the figures that the role asks for. */
import { BOUNDS, FUEL_WORDS } from '../../api/bounds'
import { useKinds } from '../../api/useKinds'
import type { Quantity, Role } from '../../api/client'
import { Row } from '../../ui/controls'
import { Choice, Field, Measure } from '../../ui/fields'
import { Picks } from '../../ui/Picks'

type Does = Role['does']
type Entry =
  | { field: string; label: string; quantity: Quantity; open?: boolean; decimals?: number }
  | { field: string; label: string; options: Record<string, string> }
  | { field: string; label: string; flag: true }
  | { field: string; label: string; words: true }
  | { field: string; label: string; word: true }

const energy = (field: string, label: string, open = false): Entry => ({ field, label, quantity: 'energy', open, decimals: 1 })
const count = (field: string, label: string, open = false): Entry => ({ field, label, quantity: 'count', open, decimals: 2 })
const flag = (field: string, label: string): Entry => ({ field, label, flag: true })

/** `told` is the name with the figures that matter most. */
const ROLES: Record<Does, { name: string; told?: string; entries: Entry[] }> = {
  sleeping_bag: {
    name: 'is slept in',
    told: 'is slept in, comfort {comfort_c}',
    entries: [{ field: 'comfort_c', label: 'Comfort on its label, never the extreme', quantity: 'temperature' }],
  },
  bed_layer: {
    name: 'warms in bed',
    told: 'warms in bed by about {warms_k}',
    entries: [{ field: 'warms_k', label: 'The night may be colder by', quantity: 'temperature_difference', decimals: 1 }],
  },
  garment: {
    name: 'is worn riding, and washed',
    told: 'is worn riding, {piece}, dries in {dries_h}',
    entries: [
      { field: 'piece', label: 'Which piece', options: { shirt: 'a shirt', shorts: 'shorts', underwear: 'underwear', socks: 'socks' } },
      { field: 'dries_h', label: 'Dries at 20 °C, still, in', quantity: 'hours' },
    ],
  },
  mat: {
    name: 'lies under a sleeper',
    told: 'lies under a sleeper, R {r_value}',
    entries: [count('r_value', 'R on its label')],
  },
  stove: {
    name: 'is a stove',
    told: 'is a stove that burns {burns}',
    entries: [
      { field: 'burns', label: 'Burns', options: FUEL_WORDS },
      { field: 'efficiency', label: 'Heat in the pot, open: the usual', quantity: 'share', open: true },
      flag('shielded', 'behind a windshield'),
      flag('exchanger', 'pot with a heat exchanger'),
      flag('bears_frost', 'takes its gas liquid'),
    ],
  },
  fuel_vessel: {
    name: 'holds fuel',
    told: 'holds {holds_kg} of fuel: {burns}',
    entries: [
      { field: 'burns', label: 'For', options: FUEL_WORDS },
      { field: 'holds_kg', label: 'Holds', quantity: 'mass', decimals: 3 },
      { field: 'fill_price', label: 'A filling costs', quantity: 'money', open: true },
    ],
  },
  fire_lighter: { name: 'makes fire', entries: [] },
  treatment: {
    name: 'makes water fit to drink',
    told: 'makes water fit to drink by {by}',
    entries: [
      { field: 'by', label: 'By', options: { press: 'pressing', pump: 'pumping or squeezing', gravity: 'hanging up', boiling: 'boiling' } },
      count('minutes_per_l', 'Minutes a litre, open: the usual', true),
      { field: 'wait_min', label: 'Then wait', quantity: 'minutes', open: true },
      { field: 'litres_a_piece', label: 'One filling of a press', quantity: 'volume', decimals: 2 },
      flag('freezes', 'frost destroys it once wet'),
    ],
  },
  device: {
    name: 'uses electricity',
    told: 'uses {wh_a_day} {used}',
    entries: [
      energy('wh_a_day', 'A day of use'),
      { field: 'used', label: 'Used', options: { always: 'all day', riding: 'on riding days', camp: 'in camp' } },
      energy('battery_wh', 'Its battery, or a set of cells'),
      { field: 'fed_by', label: 'Charged', options: { cable: 'by cable', cells: 'runs on cells', hub: 'runs off the hub' } },
      { field: 'charged', label: 'Full at the start', quantity: 'share' },
      energy('saver_wh_a_day', 'In saver mode', true),
      energy('wh_a_dark_hour', 'An hour of riding in the dark'),
      flag('saver', 'kept in saver mode'),
      { field: 'socket', label: 'Its socket, as you call it', word: true },
      flag('navigates', 'finds the way'),
      flag('light', 'is a light'),
    ],
  },
  bank: {
    name: 'is a power bank',
    told: 'is a power bank of {holds_wh}',
    entries: [
      energy('holds_wh', 'Holds, by its label'),
      count('takes_w', 'Charges at, W'),
      { field: 'charged', label: 'Full at the start', quantity: 'share' },
    ],
  },
  cells: { name: 'is a set of spare cells', told: 'is a set of spare cells, {set_wh}', entries: [energy('set_wh', 'A set')] },
  panel: { name: 'is a solar panel', told: 'is a solar panel, {peak_w} W peak', entries: [count('peak_w', 'Peak, W')] },
  hub: { name: 'charges from the hub', entries: [flag('lamps_first', 'gives nothing while the lamps are on')] },
  charger: {
    name: 'charges from the wall',
    told: 'charges from the wall, {output_w} W',
    entries: [
      count('outputs', 'Outputs'),
      count('output_w', 'One output, W'),
      { field: 'plugs', label: 'Fits sockets of shape, none: all', words: true },
    ],
  },
  cable: { name: 'is the cable', entries: [{ field: 'ends', label: 'Fits sockets, none: all', words: true }] },
  paper_map: { name: 'finds the way on paper', entries: [] },
  used_up: {
    name: 'is used up',
    told: 'is used up, {rate} {unit} for each {per}',
    entries: [
      { field: 'unit', label: 'Counted in', options: { g: 'grams', ml: 'millilitres', pieces: 'pieces' } },
      count('holds', 'A full container'),
      { field: 'content_kg', label: 'Its content weighs', quantity: 'mass', decimals: 3 },
      count('rate', 'Used up'),
      { field: 'per', label: 'For each', options: { person_day: 'person and day', km: 'kilometre', litre_treated: 'litre treated' } },
      { field: 'sold_at', label: 'Sold at', options: { basic: 'basic shops too', full: 'full shops', nowhere: 'nowhere on the way' } },
      { field: 'waste', label: 'Left as waste', quantity: 'share' },
    ],
  },
}
const BOUNDS_OF: Record<Does, string> = {
  sleeping_bag: 'SleepingBag',
  bed_layer: 'BedLayer',
  garment: 'Garment',
  mat: 'Mat',
  stove: 'Stove',
  fuel_vessel: 'FuelVessel',
  fire_lighter: 'FireLighter',
  treatment: 'Treatment',
  device: 'Device',
  bank: 'Bank',
  cells: 'Cells',
  panel: 'Panel',
  hub: 'Hub',
  charger: 'Charger',
  cable: 'Cable',
  paper_map: 'PaperMap',
  used_up: 'UsedUp',
}

/** A role as it usually is, for those who choose it. */
export const roleOf = (roles: Role[], does: Does): Role => roles.find((r) => r.does === does) ?? ({ does } as Role)
/** All that a thing can do, for lists. */
export const DOES = (Object.keys(ROLES) as Does[]).map((id) => ({ id, text: ROLES[id].name }))

/** What a thing does, in words with its figures. */
export function roleWords(role: Role, show: (value: number, quantity: Quantity, decimals?: number) => string): string {
  const { name, told = name, entries } = ROLES[role.does]
  const values = role as unknown as Record<string, number | string>
  return told.replace(/\{(\w+)\}/g, (_, field: string) => {
    const entry = entries.find((e) => e.field === field)
    const value = values[field] ?? ''
    if (entry && 'options' in entry) return entry.options[value] ?? String(value)
    return entry && 'quantity' in entry ? show(Number(value), entry.quantity) : String(value)
  })
}

export function RoleFields({ role, onChange }: { role: Role | null; onChange: (role: Role | null) => void }) {
  const { roles } = useKinds()
  const set = (part: object) => role && onChange({ ...role, ...part } as Role)
  const values = (role ?? {}) as unknown as Record<string, number | string | boolean | string[] | null>
  const entries = role ? ROLES[role.does].entries : []
  const flags = entries.filter((e) => 'flag' in e)
  const bounds = (role ? ((BOUNDS as Record<string, unknown>)[BOUNDS_OF[role.does]] ?? {}) : {}) as Record<string, [number, number]>
  return (
    <>
      <Row $min={150}>
        <Choice
          label="What it does"
          value={role?.does ?? '-'}
          onChange={(v) => onChange(v === '-' ? null : roleOf(roles, v))}
          options={[{ id: '-' as const, text: 'choose' }, ...DOES]}
        />
        {entries.map((e) => {
          if ('quantity' in e) {
            const value = values[e.field]
            return (
              <Measure
                key={e.field}
                label={e.label}
                value={typeof value === 'number' ? value : null}
                quantity={e.quantity}
                decimals={e.decimals}
                range={bounds[e.field] ?? [0, Infinity]}
                onChange={(v) => set({ [e.field]: e.field === 'outputs' ? Math.round(v) : v })}
                {...(e.open && { onClear: () => set({ [e.field]: null }) })}
              />
            )
          }
          if ('options' in e) {
            return (
              <Choice
                key={e.field}
                label={e.label}
                value={String(values[e.field])}
                onChange={(v) => set({ [e.field]: v })}
                options={Object.entries(e.options).map(([id, text]) => ({ id, text }))}
              />
            )
          }
          if ('word' in e) {
            return (
              <Field key={e.field} label={e.label} value={String(values[e.field] ?? '')} maxLength={20} onChange={(v) => set({ [e.field]: v })} />
            )
          }
          if ('words' in e) {
            const words = values[e.field]
            return (
              <Field
                key={e.field}
                label={e.label}
                value={Array.isArray(words) ? words.join(' ') : ''}
                onChange={(v) => set({ [e.field]: v.split(/\s+/).filter(Boolean) })}
              />
            )
          }
          return null
        })}
      </Row>
      {flags.length > 0 && (
        <Picks
          label="It"
          options={flags.map((e) => ({ id: e.field, text: e.label }))}
          chosen={flags.filter((e) => values[e.field] === true).map((e) => e.field)}
          onChange={(chosen) => set(Object.fromEntries(flags.map((e) => [e.field, chosen.includes(e.field)])))}
        />
      )}
    </>
  )
}
