/** Loads kept under a name, beside the one that rides. */
import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { api, type LoadFigures, type Text } from '../../api/client'
import { useDesk } from '../../api/tour'
import { AIM_WORDS } from '../../instruments/WhyDialog'
import { Actions, Button, Dialog, Field, Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { SideBySide } from '../../ui/SideBySide'

const MOST_NAMED = 3
const MOST_LOADS = 12

export function KeptLoads({ onClose }: { onClose: () => void }) {
  const { tour, sheet, change } = useDesk()
  const units = useUnits()
  const [name, setName] = useState('')
  const { data, error, isFetching } = useQuery({ queryKey: ['loads', tour.id, tour.revision], queryFn: () => api.loads(tour.id), placeholderData: (before) => before })
  const keep = () => {
    let n = sheet.kept_loads.length + 1
    while (sheet.kept_loads.some((k) => k.id === `load-${n}`)) n += 1
    const called = name.trim() || `Load ${n}`
    void change(`Keep this load as ${called}`.slice(0, 200), { kept_loads: [...sheet.kept_loads, { id: `load-${n}`, name: called, load: sheet.load }] })
    setName('')
  }
  const list = (texts: Text[]) => (texts.length ? <ul>{texts.slice(0, MOST_NAMED).map((t, i) => <li key={i}>{units.say(t)}</li>)}{texts.length > MOST_NAMED && <li>and {texts.length - MOST_NAMED} more</li>}</ul> : 'none')
  const dearest = (load: LoadFigures) => Object.entries(load.by_aim).filter(([, v]) => v >= 1).sort(([, a], [, b]) => b - a).slice(0, 3)
    .map(([aim, v]) => `${AIM_WORDS[aim as keyof typeof AIM_WORDS]} ${v.toFixed(0)}`).join(', ')
  const rows: [string, (load: LoadFigures, first: boolean) => ReactNode][] = [
    ['Points by the aims, fewer are better', (l) => <>{l.points.toFixed(0)}<small>{dearest(l)}</small></>],
    ['Most on front and rear wheel', (l) => l.wheels.map((w) => <span key={w.bike}>{units.figure(w.front_kg, 'mass')} and {units.show(w.rear_kg, 'mass')}<small>{w.bike}</small></span>)],
    ['Stays out', (l) => Object.values(l.out).reduce((a, b) => a + b, 0) || 'nothing'],
    ['Rides elsewhere than now', (l, first) => (first ? '' : `${l.moves} things`)],
    ['Trouble it brings', (l, first) => (first ? '' : list(l.gained))],
    ['Trouble it ends', (l, first) => (first ? '' : list(l.lost))],
  ]
  return (
    <Dialog title="Loads side by side" open onClose={onClose} wide>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Muted role="status">Reckoning …</Muted>}
      {data && (
        <div style={{ overflowX: 'auto', opacity: isFetching ? 0.6 : 1 }}>
          <SideBySide>
            <thead><tr><th>{isFetching ? 'Reckoning …' : ''}</th>{data.loads.map((l) => <th key={l.id}>{l.name}</th>)}</tr></thead>
            <tbody>
              {rows.map(([label, show]) => <tr key={label}><td>{label}</td>{data.loads.map((l, i) => <td key={l.id}>{show(l, i === 0)}</td>)}</tr>)}
              <tr>
                <td />
                {data.loads.map((l) => (
                  <td key={l.id}>
                    {l.id && (
                      <div style={{ display: 'flex', gap: 6, flexWrap: 'wrap' }}>
                        <Button $small $wanted onPress={() => void change(`Go back to the load ${l.name}`.slice(0, 200), { load: l.load })}>Take it</Button>
                        <Button $small onPress={() => void change(`Forget the load ${l.name}`.slice(0, 200), { kept_loads: sheet.kept_loads.filter((k) => k.id !== l.id) })}>Forget it</Button>
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
        <Field label="Keep the load as it rides under the name" value={name} onChange={setName} placeholder="for the pass" />
        <Button isDisabled={sheet.kept_loads.length >= MOST_LOADS} onPress={keep}>Keep it</Button>
      </div>
      <Actions><Button onPress={onClose}>Close</Button></Actions>
    </Dialog>
  )
}
