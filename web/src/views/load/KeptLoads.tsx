/** Loads kept under a name, beside the one that rides. */
import { api, type LoadFigures } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { dearest } from '../../instruments/WhyDialog'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted } from '../../ui/controls'
import { KeepAs } from '../../ui/KeepAs'
import { useUnits } from '../../ui/preferences'
import { Few, type Rows, SideBySide } from '../../ui/SideBySide'

const MOST_LOADS = 12

export function KeptLoads({ onClose }: { onClose: () => void }) {
  const { sheet, change } = useDesk()
  const units = useUnits()
  const { data, error, isFetching } = useWorkedOut('loads', api.loads, { meanwhile: true })
  const rows: Rows<LoadFigures> = [
    [
      'Points by the aims, fewer are better',
      (l) => (
        <>
          {l.points.toFixed(0)}
          <small>{dearest(l.by_aim, 1, (v) => v.toFixed(0))}</small>
        </>
      ),
    ],
    [
      'Most on front and rear wheel',
      (l) =>
        l.wheels.map((w) => (
          <span key={w.bike}>
            {units.figure(w.front_kg, 'mass')} and {units.show(w.rear_kg, 'mass')}
            <small>{w.bike}</small>
          </span>
        )),
    ],
    ['Stays out', (l) => Object.values(l.out).reduce((a, b) => a + b, 0) || 'nothing'],
    ['Rides elsewhere than now', (l, first) => l !== first && `${l.moves} things`],
    ['Trouble it brings', (l, first) => l !== first && <Few entries={l.gained.map(units.say)} />],
    ['Trouble it ends', (l, first) => l !== first && <Few entries={l.lost.map(units.say)} />],
  ]
  return (
    <Dialog title="Loads side by side" open onClose={onClose} wide>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Muted role="status">Reckoning …</Muted>}
      <SideBySide
        columns={data?.loads ?? []}
        rows={rows}
        busy={isFetching}
        takeWords="Take it"
        onTake={(l) => void change(`Go back to the load ${l.name}`.slice(0, 200), { load: l.load })}
        onForget={(l) => void change(`Forget the load ${l.name}`.slice(0, 200), { kept_loads: sheet.kept_loads.filter((k) => k.id !== l.id) })}
      />
      <KeepAs
        label="Keep the load as it rides under the name"
        placeholder="for the pass"
        stem="load"
        most={MOST_LOADS}
        taken={sheet.kept_loads.map((k) => k.id)}
        onKeep={(id, name) =>
          void change(`Keep this load as ${name}`.slice(0, 200), {
            kept_loads: [...sheet.kept_loads, { id, name, load: sheet.load }],
          })
        }
      />
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  )
}
