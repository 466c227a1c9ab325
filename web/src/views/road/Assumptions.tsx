/** Every default the answers rest on: its value, to be overwritten, its usual range and source, and what it moves on this tour. */
import { useState } from 'react'
import { api, type Assumption, type Quantity } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { Button, Muted } from '../../ui/controls'
import { Measure } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { isQuantity } from '../../ui/units'
import { Sheet } from '../../ui/sheet'

/** A figure in the unit of its default: a quantity in the reader's own unit, any other as it is. */
function useShown() {
  const units = useUnits()
  return (value: number, unit: string) =>
    isQuantity(unit) ? units.show(value, unit, decimalsOf(value, unit)) : `${Number(value.toPrecision(4))}${unit ? `\u00a0${unit}` : ''}`
}

const decimalsOf = (value: number, unit: string) =>
  unit === 'share' || unit === 'grade'
    ? Number.isInteger(Math.round(value * 1000) / 10)
      ? 0
      : 1
    : unit === 'temperature' || unit === 'count'
      ? 0
      : 1

/** Where what is assumed can be said instead: a sheet of this view, the track, the party, or another view. */
const SAID_AT = {
  weather: 'Say the weather',
  track: 'Track and pace',
  zones: 'Say the hours',
  party: 'Say it of the rider',
  rig: 'Measure it on the rig',
  kit: 'Say it of the thing',
  stores: 'Say how you eat',
}
export type SaidAt = keyof typeof SAID_AT

export function Assumptions({ onSay }: { onSay: (at: SaidAt) => void }) {
  const { assessment, sheet, change } = useDesk()
  const units = useUnits()
  const shown = useShown()
  const [open, setOpen] = useState<string | null>(null)
  const put = (a: Assumption, value: number | null) => {
    const others = Object.fromEntries(Object.entries(sheet.own_values).filter(([key]) => key !== a.key))
    void change(`${value === null ? 'Usual value' : 'Own value'} of: ${a.name}`.slice(0, 200), {
      own_values: value === null || a.key === null ? others : { ...others, [a.key]: value },
    })
  }
  const lowOf = (a: Assumption) => (isQuantity(a.unit) ? units.figure(a.low ?? 0, a.unit, decimalsOf(a.low ?? 0, a.unit)) : shown(a.low ?? 0, ''))
  const left = assessment.assumptions.filter((a) => a.key === null)
  const values = assessment.assumptions.filter((a) => a.key !== null)
  return (
    <>
      <Muted>
        What nobody has measured on you, your bike or your road stands here with its source. Overwrite what you know better; press “What it moves” to
        see this tour at both ends of the usual range.
      </Muted>
      <ul>
        {left.map((a) => (
          <li key={a.name + a.value.words}>
            <b>{a.name}:</b> {units.say(a.value)} <Muted as="span">({a.source})</Muted>{' '}
            {a.said_at && (
              <Button $small onPress={() => a.said_at && onSay(a.said_at)}>
                {SAID_AT[a.said_at]}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Sheet aria-label="Defaults">
        <thead>
          <tr>
            <th className="wide">What</th>
            <th>Counts as</th>
            <th>Usual range</th>
            <th>Source</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {values.map((a) => [
            <tr key={a.key} data-default={a.key}>
              <td className="wide">
                {a.own ? <b>{a.name}</b> : a.name}
                {a.own && <Muted> yours; usual is {shown(a.usual ?? 0, a.unit)}</Muted>}
              </td>
              <td style={{ minWidth: 96 }}>
                <Measure
                  hidden
                  label={a.name}
                  value={a.set_to}
                  quantity={isQuantity(a.unit) ? a.unit : 'count'}
                  decimals={isQuantity(a.unit) ? decimalsOf(a.set_to ?? 0, a.unit) : undefined}
                  range={[a.least ?? 0, a.most ?? Infinity]}
                  onChange={(value) => put(a, value)}
                />
              </td>
              <td style={{ whiteSpace: 'nowrap' }}>
                {lowOf(a)} to {shown(a.high ?? 0, a.unit)}
              </td>
              <td>
                <Muted as="span">{a.own ? 'yours' : a.source}</Muted>
              </td>
              <td style={{ whiteSpace: 'nowrap' }}>
                <Button $small aria-label={`What it moves: ${a.name}`} onPress={() => setOpen(open === a.key ? null : a.key)}>
                  {open === a.key ? 'Close' : 'What it moves'}
                </Button>
                {a.own && (
                  <Button $small aria-label={`Usual value again: ${a.name}`} onPress={() => put(a, null)}>
                    Usual again
                  </Button>
                )}
              </td>
            </tr>,
            open === a.key && (
              <tr key={`${a.key}-moves`}>
                <td colSpan={5}>
                  <Effect assumption={a} />
                </td>
              </tr>
            ),
          ])}
        </tbody>
      </Sheet>
    </>
  )
}

function Effect({ assumption }: { assumption: Assumption }) {
  const units = useUnits()
  const shown = useShown()
  const key = assumption.key ?? ''
  const { data } = useWorkedOut('effect', (id, signal) => api.effect(id, key, signal), { about: [key] })
  if (!data) return <Muted role="status">Riding the tour at both ends of the range …</Muted>
  if (!data.figures.length) return <Muted>On this tour it moves nothing that is counted here.</Muted>
  const figure = (value: number, quantity: Quantity) => units.show(value, quantity, quantity === 'count' ? 0 : 1)
  return (
    <Sheet aria-label={`What ${assumption.name} moves`}>
      <thead>
        <tr>
          <td />
          <th className="n">at {shown(data.low, assumption.unit)}</th>
          <th className="n">now</th>
          <th className="n">at {shown(data.high, assumption.unit)}</th>
        </tr>
      </thead>
      <tbody>
        {data.figures.map((moved) => (
          <tr key={moved.name}>
            <td>{moved.name}</td>
            <td className="n">{figure(moved.low, moved.quantity)}</td>
            <td className="n">
              <b>{figure(moved.now, moved.quantity)}</b>
            </td>
            <td className="n">{figure(moved.high, moved.quantity)}</td>
          </tr>
        ))}
      </tbody>
    </Sheet>
  )
}
