/** Rigs side by side on the same tour and kit; choose one. */
import styled from 'styled-components'
import { api, type RigFigures, type SchoolRig } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted, RailLine } from '../../ui/controls'
import { SettledField } from '../../ui/fields'
import { freeId } from '../../ui/freeId'
import { KeepAs } from '../../ui/KeepAs'
import { useUnits } from '../../ui/preferences'
import { Few, type Rows, SideBySide } from '../../ui/SideBySide'

const MOST_RIGS = 6
const SchoolList = styled.ul`
  display: grid;
  gap: 8px;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  li {
    display: flex;
    flex-direction: column;
    align-items: start;
    gap: 2px;
  }
`

const NAMES = new Intl.DisplayNames('en', { type: 'currency' })
/** Names of currencies as the browser knows them: what prices may be in; any other word does too. */
const CURRENCIES = Intl.supportedValuesOf('currency').map((code) => ({ value: code, words: NAMES.of(code) ?? code }))

export function Variants({ onClose }: { onClose: () => void }) {
  const { sheet, change, ask } = useDesk()
  const units = useUnits()
  const { data, error, isFetching } = useWorkedOut('rigs', api.rigs, { meanwhile: true })
  const rows: Rows<RigFigures> = [
    ['Room', (r) => units.show(r.litres, 'volume')],
    ['Racks and bags, empty', (r) => units.show(r.carriers_kg, 'mass')],
    [
      'Price of racks and bags',
      (r) =>
        r.money === null ? (
          'a price is missing'
        ) : (
          <>
            {r.money.toFixed(0)} {sheet.money}
            <small>{r.money_per_litre?.toFixed(1)} a litre</small>
          </>
        ),
    ],
    ['Heaviest moment, riders apart', (r) => units.show(r.heaviest_kg, 'mass')],
    [
      'Most on front and rear wheel',
      (r) =>
        r.wheels.map((w) => (
          <span key={w.bike}>
            {units.figure(w.front_kg, 'mass')} and {units.show(w.rear_kg, 'mass')}
            <small>{w.bike}</small>
          </span>
        )),
    ],
    ['Widest', (r) => units.show(r.width_mm, 'length')],
    [
      'Pace over this road',
      (r, first) =>
        r.riding_hours === null ? (
          'no road yet'
        ) : (
          <>
            {units.show(r.riding_hours, 'hours', 0)}, {r.days} days
            {r !== first && first.riding_hours !== null && <small>{difference(r.riding_hours - first.riding_hours)}</small>}
          </>
        ),
    ],
    [
      'Finds no place',
      (r) => (
        <Few
          none="nothing"
          entries={Object.entries(r.out).map(([id, n]) => `${n > 1 ? `${n} × ` : ''}${sheet.kit.find((t) => t.id === id)?.name}`)}
        />
      ),
    ],
    ['Trouble it brings', (r, first) => r !== first && <Few entries={r.gained.map(units.say)} />],
    ['Trouble it ends', (r, first) => r !== first && <Few entries={r.lost.map(units.say)} />],
  ]
  return (
    <Dialog title="Rigs side by side" open onClose={onClose} wide>
      <Muted>
        The same tour and kit on each rig. Keep the one that is ridden under a name, then change it freely: what you kept stays here to compare with,
        and to go back to.
      </Muted>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Muted role="status">Playing the tour on every rig …</Muted>}
      <SideBySide
        columns={data?.rigs ?? []}
        rows={rows}
        busy={isFetching}
        takeWords="Ride this one"
        onTake={(r) => void ask(`Ride ${r.name}`, (id, revision) => api.ride(id, r.id, revision))}
        onForget={(r) => void change(`Forget ${r.name}`.slice(0, 200), { variants: sheet.variants.filter((v) => v.id !== r.id) })}
      />
      <KeepAs
        label="Keep the rig as it is ridden under the name"
        placeholder="four panniers"
        stem="rig"
        most={MOST_RIGS}
        taken={sheet.variants.map((v) => v.id)}
        onKeep={(id, name) =>
          void change(`Keep this rig as ${name}`.slice(0, 200), {
            variants: [...sheet.variants, { id, name, rig: sheet.rig, load: sheet.load }],
          })
        }
      />
      <Schools
        onKeep={(school) =>
          void change(`Put ${school.name} beside`.slice(0, 200), {
            variants: [
              ...sheet.variants,
              {
                id: freeId(
                  `rig-${school.id}`,
                  sheet.variants.map((v) => v.id),
                ),
                name: school.name,
                rig: school.rig,
                load: { placements: [], food: [] },
              },
            ],
          })
        }
        full={sheet.variants.length >= MOST_RIGS}
      />
      <SettledField
        optional
        label="Prices are in"
        offers={CURRENCIES}
        value={sheet.money}
        onChange={(money) => void change('Name the money', { money: money.slice(0, 12) })}
      />
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  )
}

/** The same bikes as other schools would hang them, bare of all that hangs on them now. */
function Schools({ onKeep, full }: { onKeep: (school: SchoolRig) => void; full: boolean }) {
  const { sheet } = useDesk()
  const { data } = useWorkedOut('schools', api.rigSchools, { meanwhile: true })
  if (!sheet.rig.bikes.length) return null
  return (
    <>
      <RailLine>
        Other ways to hang it<em>your bikes, catalogue bags</em>
      </RailLine>
      <SchoolList>
        {data?.schools.map((s) => (
          <li key={s.id}>
            <Button $small isDisabled={full} onPress={() => onKeep(s)}>
              {s.name}
            </Button>
            <Muted>
              {s.words}
              {s.wants.length > 0 && (
                <>
                  {' '}
                  No mount here for {s.wants.slice(0, 3).join(', ')}
                  {s.wants.length > 3 && ` and ${s.wants.length - 3} more`}.
                </>
              )}
            </Muted>
          </li>
        ))}
      </SchoolList>
    </>
  )
}

const difference = (hours: number) =>
  `${hours < 0 ? '−' : '+'}${Math.abs(hours) < 1 ? `${Math.round(Math.abs(hours) * 60)}\u00a0min` : `${Math.abs(hours).toFixed(1)}\u00a0h`} against the rig ridden`
