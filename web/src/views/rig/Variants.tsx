/** Rigs side by side on the same tour and kit; choose one. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type RigFigures, type Text } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Actions, Button, Dialog, Field, Muted } from '../../ui/controls'
import { SideBySide } from '../../ui/SideBySide'
import { useUnits } from '../../ui/preferences'

const MOST_NAMED = 4

export function Variants({ onClose }: { onClose: () => void }) {
  const { tour, sheet, change, ask } = useDesk()
  const units = useUnits()
  const [name, setName] = useState('')
  const { data, error, isFetching } = useQuery({ queryKey: ['rigs', tour.id, tour.revision], queryFn: () => api.rigs(tour.id), placeholderData: (before) => before })
  const keep = () => {
    let n = sheet.variants.length + 1
    while (sheet.variants.some((v) => v.id === `rig-${n}`)) n += 1
    const called = name.trim() || `Rig ${n}`
    void change(`Keep this rig as ${called}`.slice(0, 200), { variants: [...sheet.variants, { id: `rig-${n}`, name: called, rig: sheet.rig, load: sheet.load }] })
    setName('')
  }
  const list = (texts: Text[]) => (texts.length ? <ul>{texts.slice(0, MOST_NAMED).map((t, i) => <li key={i}>{units.say(t)}</li>)}{texts.length > MOST_NAMED && <li>and {texts.length - MOST_NAMED} more</li>}</ul> : 'none')
  const rows: [string, (r: RigFigures, first: RigFigures) => React.ReactNode][] = [
    ['Room', (r) => units.show(r.litres, 'volume')],
    ['Racks and bags, empty', (r) => units.show(r.carriers_kg, 'mass')],
    ['Price of racks and bags', (r) => (r.money === null ? 'a price is missing' : <>{r.money.toFixed(0)} {sheet.money}<small>{r.money_per_litre?.toFixed(1)} a litre</small></>)],
    ['Heaviest moment, riders apart', (r) => units.show(r.heaviest_kg, 'mass')],
    ['Most on front and rear wheel', (r) => r.wheels.map((w) => <span key={w.bike}>{units.figure(w.front_kg, 'mass')} and {units.show(w.rear_kg, 'mass')}<small>{w.bike}</small></span>)],
    ['Widest', (r) => units.show(r.width_mm, 'length')],
    ['Pace over this road', (r, first) => (r.riding_hours === null ? 'no road yet' : <>{units.show(r.riding_hours, 'hours', 0)}, {r.days} days{r !== first && first.riding_hours !== null && <small>{difference(r.riding_hours - first.riding_hours)}</small>}</>)],
    ['Finds no place', (r) => {
      const out = Object.entries(r.out)
      return out.length ? <ul>{out.slice(0, MOST_NAMED).map(([id, n]) => <li key={id}>{n > 1 && `${n} × `}{sheet.kit.find((t) => t.id === id)?.name}</li>)}{out.length > MOST_NAMED && <li>and {out.length - MOST_NAMED} more</li>}</ul> : 'nothing'
    }],
    ['Trouble it brings', (r, first) => (r === first ? '' : list(r.gained))],
    ['Trouble it ends', (r, first) => (r === first ? '' : list(r.lost))],
  ]
  const rigs = data?.rigs ?? []
  const first = rigs[0]
  return (
    <Dialog title="Rigs side by side" open onClose={onClose} wide>
      <Muted>The same tour and kit on each rig. Keep the one that is ridden under a name, then change it freely: what you kept stays here to compare with, and to go back to.</Muted>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Muted role="status">Playing the tour on every rig …</Muted>}
      {first && (
        <div style={{ overflowX: 'auto', opacity: isFetching ? 0.6 : 1 }}>
          <SideBySide>
            <thead>
              <tr><th>{isFetching ? 'Reckoning …' : ''}</th>{rigs.map((r) => <th key={r.id}>{r.name}</th>)}</tr>
            </thead>
            <tbody>
              {rows.map(([label, show]) => <tr key={label}><td>{label}</td>{rigs.map((r) => <td key={r.id}>{show(r, first)}</td>)}</tr>)}
              <tr>
                <td />
                {rigs.map((r) => (
                  <td key={r.id}>
                    {r.id && (
                      <div style={{ display: 'flex', gap: 6, flexWrap: 'wrap' }}>
                        <Button $small $wanted onPress={() => void ask(`Ride ${r.name}`, (id, revision) => api.ride(id, r.id, revision))}>Ride this one</Button>
                        <Button $small onPress={() => void change(`Forget ${r.name}`.slice(0, 200), { variants: sheet.variants.filter((v) => v.id !== r.id) })}>Forget it</Button>
                      </div>
                    )}
                  </td>
                ))}
              </tr>
            </tbody>
          </SideBySide>
        </div>
      )}
      <div style={{ display: 'flex', gap: 10, alignItems: 'end' }}>
        <Field label="Keep the rig as it is ridden under the name" value={name} onChange={setName} placeholder="four panniers" />
        <Button isDisabled={sheet.variants.length >= 6} onPress={keep}>Keep it</Button>
      </div>
      <Actions><Button onPress={onClose}>Close</Button></Actions>
    </Dialog>
  )
}

const difference = (hours: number) => `${hours < 0 ? '−' : '+'}${Math.abs(hours) < 1 ? `${Math.round(Math.abs(hours) * 60)}\u00a0min` : `${Math.abs(hours).toFixed(1)}\u00a0h`} against the rig ridden`
