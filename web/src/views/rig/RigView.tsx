/** The rig: a bike with its mounts, and what hangs on them; every figure can be overwritten with the maker's. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, type Bike } from '../../api/client'
import { useDesk } from '../../api/tour'
import { usePlayhead } from '../../instruments/moment'
import { RigDrawing } from '../../instruments/RigDrawing'
import { Button, Choice, Dialog, Measure, Menu, Muted, RailLine, Row, Section } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { narrow } from '../../ui/theme'
import { HungList } from './HungList'
import { hang, MOUNT_WORDS, sockets, type Socket } from './mounting'

const Stage = styled.div`
  flex: 1; min-height: 0; display: grid; grid-template-columns: 268px minmax(0, 1fr) 348px; gap: 16px; padding: 10px 20px 10px;
  > section { min-height: 0; overflow: auto; padding: 2px 4px 12px 2px; display: flex; flex-direction: column; gap: 10px; scrollbar-width: thin; }
  > .drawing { display: flex; flex-direction: column; overflow: hidden; }
  ${narrow} { display: block; overflow: auto; > section { overflow: visible; margin-bottom: 16px; } > .drawing { height: 420px; } }
`
const Sockets = styled.ul`
  display: flex; flex-wrap: wrap; gap: 6px; padding-top: 6px;
  button { border: 1.5px dashed var(--ink2); border-radius: 3px; min-height: 36px; padding: 2px 10px; font-size: 13px; font-stretch: 86%; background: none; }
  button:hover { background: var(--tag); }
`
const FIGURES = [
  ['mass_kg', 'Bare bike', 'mass', 1000], ['maximum_system_kg', 'Maker’s limit, all', 'mass', 1000], ['front_wheel_limit_kg', 'Front wheel limit', 'mass', 1000],
  ['rear_wheel_limit_kg', 'Rear wheel limit', 'mass', 1000], ['wheelbase_mm', 'Wheelbase', 'length', 2500], ['chainstay_mm', 'Chainstay', 'length', 700],
  ['wheel_radius_mm', 'Wheel radius', 'length', 400], ['tyre_width_mm', 'Tyre width', 'length', 130], ['stack_mm', 'Stack', 'length', 800],
  ['reach_mm', 'Frame reach', 'length', 600], ['saddle_height_mm', 'Saddle height', 'length', 1000], ['front_share_low', 'Front share from', 'share', 1], ['front_share_high', 'Front share to', 'share', 1],
] as const

export function RigView() {
  const { sheet, assessment, change } = useDesk()
  const { bikeId, setBike } = usePlayhead()
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue })
  const units = useUnits()
  const [leftSide, setLeft] = useState(false)
  const [choosing, setChoosing] = useState(false)
  const bikes = sheet.rig.bikes
  const bike = bikes.find((b) => b.id === bikeId)
  const trace = assessment.bikes.find((b) => b.bike_id === bikeId)
  const put = (what: string, changed: Bike) => void change(what.slice(0, 200), { rig: { bikes: bikes.map((b) => (b.id === changed.id ? changed : b)) } })
  const without = sheet.riders.filter((r) => !bikes.some((b) => b.rider_id === r.id))
  const free: Socket[] = bike && catalogue ? sockets(bike, catalogue) : []
  return (
    <Stage>
      <section aria-label="Bikes">
        <Section>Rig</Section>
        {bikes.map((b) => (
          <Button key={b.id} $small aria-pressed={b.id === bikeId} onPress={() => setBike(b.id)}>{b.id === bikeId ? '● ' : '○ '}{b.name}</Button>
        ))}
        <Button $small onPress={() => setChoosing(true)}><Icon name="plus" size={14} />{without.length ? `Choose a bike for ${without[0]?.name}` : 'Choose another bike'}</Button>
        {bike && (
          <>
            <RailLine>Figures<em>yours to overwrite</em></RailLine>
            <Row $min={110}>
              {FIGURES.map(([key, name, quantity, most]) => (
                <Measure key={key} label={name} value={bike[key]} quantity={quantity} most={most} onChange={(v) => put(`${name} of ${bike.name}`, { ...bike, [key]: v })} />
              ))}
            </Row>
            <Choice label="Handlebar" value={bike.drop_bar ? 'drop' : 'flat'} onChange={(v) => put(`Bar of ${bike.name}`, { ...bike, drop_bar: v === 'drop' })}
              options={[{ id: 'drop', text: 'Drop bar' }, { id: 'flat', text: 'Flat bar' }]} />
            <Muted>Figures of the catalogue are common practice. The maker’s limits count, the lowest in a chain first.</Muted>
            <Button $small onPress={() => void change(`Remove ${bike.name}`.slice(0, 200), { rig: { bikes: bikes.filter((b) => b.id !== bike.id) } })}>Remove this bike</Button>
          </>
        )}
      </section>
      <section className="drawing" aria-label="Drawing">
        {bike && trace ? (
          <>
            <RigDrawing bike={bike} trace={trace} leftSide={leftSide} riderOn={false} />
            <div style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
              <Button $small onPress={() => setLeft(!leftSide)}><Icon name="flip" size={16} />{leftSide ? 'Right side' : 'Left side'}</Button>
              <Muted>{bike.name} weighs {units.show(trace.total_kg[0] ?? 0, 'mass')} as loaded at the start.</Muted>
            </div>
            <RailLine>Free places<em>press one to hang something there</em></RailLine>
            <Sockets>
              {free.map((socket) => (
                <li key={socket.id}>
                  <Menu label={`Hang on ${socket.name}`} entries={socket.offers.map((o) => ({ id: o.key, text: o.name, note: o.note }))}
                    onChoose={(key) => {
                      const offer = socket.offers.find((o) => o.key === key)
                      if (offer && catalogue) put(`Hang ${offer.name} on ${bike.name}`, hang(bike, sheet.rig.bikes, socket, offer, catalogue))
                    }}>
                    <Button $small>{socket.name}</Button>
                  </Menu>
                </li>
              ))}
              {!free.length && <li><Muted>Every place is taken.</Muted></li>}
            </Sockets>
          </>
        ) : (
          <Muted style={{ margin: 'auto' }}>No bike yet. Choose one, then hang racks, cages and bags on its mounts.</Muted>
        )}
      </section>
      <section aria-label="What hangs on it">
        {bike && trace && <HungList bike={bike} trace={trace} onChange={put} />}
      </section>
      <Dialog title="Choose a bike" open={choosing} onClose={() => setChoosing(false)}>
        {(catalogue?.bikes ?? []).map((preset) => (
          <Button key={preset.id} onPress={() => {
            const rider = without[0] ?? sheet.riders[0]
            if (!rider) return
            let n = bikes.length + 1
            while (bikes.some((b) => b.id === `bike-${n}`)) n += 1
            const added: Bike = { ...preset, id: `bike-${n}`, rider_id: rider.id, name: `${rider.name}: ${preset.name.toLowerCase()}` }
            void change(`Choose ${preset.name} for ${rider.name}`, { rig: { bikes: [...bikes, added] } }).then(() => setBike(added.id))
            setChoosing(false)
          }}>
            {preset.name}: {units.show(preset.mass_kg, 'mass')}, limit {units.show(preset.maximum_system_kg, 'mass', 0)}
          </Button>
        ))}
        <Muted>Mounts: {MOUNT_WORDS.rear_eyelets}, {MOUNT_WORDS.fork_eyelets} and so on come with the type; every figure can be changed.</Muted>
      </Dialog>
    </Stage>
  )
}
