/** The rig: a bike with its mounts, and what hangs on them; every figure can be overwritten with the maker's. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, type Bike } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useFocus } from '../../instruments/moment'
import { Button, Muted, RailLine, Section } from '../../ui/controls'
import { Dot, Icon } from '../../ui/icons'
import { narrow } from '../../ui/theme'
import { MOST_RIDERS, PartyDialog } from '../tours/Riders'
import { BikeFigures } from './BikeFigures'
import { ChooseBike } from './ChooseBike'
import { DrawnBike } from './DrawnBike'
import { HungList } from './HungList'
import { PartsDialog } from './PartsDialog'
import { Variants } from './Variants'

const Stage = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 268px minmax(0, 1fr) 348px;
  gap: 16px;
  padding: 10px 20px 10px;
  > section {
    min-height: 0;
    overflow: auto;
    padding: 2px 4px 12px 2px;
    display: flex;
    flex-direction: column;
    gap: 10px;
    scrollbar-width: thin;
  }
  > .drawing {
    display: flex;
    flex-direction: column;
    > div:first-child {
      min-height: 400px;
      flex: 1 0 400px;
    }
  }
  ${narrow} {
    display: flex;
    flex-direction: column;
    overflow: auto;
    > section {
      overflow: visible;
      flex: none;
    }
    > .drawing {
      order: -1;
    }
    > .drawing > div:first-child {
      min-height: 340px;
      flex-basis: 340px;
    }
  }
`
export function RigView() {
  const { sheet, assessment, change } = useDesk()
  const { bikeId, setBike } = useFocus()
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue })
  const [choosing, setChoosing] = useState(false)
  const [joining, setJoining] = useState(false)
  const [tending, setTending] = useState(false)
  const bikes = sheet.rig.bikes
  const bike = bikes.find((b) => b.id === bikeId)
  const trace = assessment.bikes.find((b) => b.bike_id === bikeId)
  const put = (what: string, changed: Bike) =>
    void change(what.slice(0, 200), { rig: { bikes: bikes.map((b) => (b.id === changed.id ? changed : b)) } })
  const without = sheet.riders.filter((r) => !bikes.some((b) => b.rider_id === r.id))
  return (
    <Stage>
      <section aria-label="Bikes">
        <Section>Rig</Section>
        {bikes.map((b) => (
          <Button key={b.id} $small aria-pressed={b.id === bikeId} onPress={() => setBike(b.id)}>
            <Dot on={b.id === bikeId} />
            {b.name}
          </Button>
        ))}
        <Button $small onPress={() => setChoosing(true)}>
          <Icon name="plus" size={14} />
          {without.length ? `Choose a bike for ${without[0]?.name}` : 'Choose another bike'}
        </Button>
        {sheet.riders.length < MOST_RIDERS && (
          <Button $small onPress={() => setJoining(true)}>
            <Icon name="rider" size={14} />A friend comes along
          </Button>
        )}
        <CompareRigs />
        {bike && trace && (
          <>
            <RailLine>
              Figures<em>yours to overwrite</em>
            </RailLine>
            <BikeFigures key={bike.id} bike={bike} trace={trace} onChange={put} />
            <Button $small onPress={() => setTending(true)}>
              Parts, care and choices
            </Button>
            {tending && <PartsDialog bike={bike} onChange={put} onClose={() => setTending(false)} />}
            <Button
              $small
              onPress={() => void change(`Remove ${bike.name}`.slice(0, 200), { rig: { bikes: bikes.filter((b) => b.id !== bike.id) } })}
            >
              Remove this bike
            </Button>
          </>
        )}
      </section>
      <section className="drawing" aria-label="Drawing">
        {bike && trace ? (
          <DrawnBike {...{ bike, bikes, trace, catalogue }} onChange={put} />
        ) : (
          <Muted style={{ margin: 'auto' }}>No bike yet. Choose one, then hang racks, cages and bags on its mounts.</Muted>
        )}
      </section>
      <section aria-label="What hangs on it">
        {bike && trace && <HungList bike={bike} bikes={bikes} trace={trace} catalogue={catalogue} onChange={put} />}
      </section>
      {joining && <PartyDialog joining onClose={() => setJoining(false)} />}
      {choosing && <ChooseBike rider={without[0]} onClose={() => setChoosing(false)} />}
    </Stage>
  )
}

function CompareRigs() {
  const { sheet } = useDesk()
  const [comparing, setComparing] = useState(false)
  return (
    <>
      <Button $small isDisabled={!sheet.rig.bikes.length} onPress={() => setComparing(true)}>
        Compare rigs{sheet.variants.length ? ` (${sheet.variants.length} kept)` : ''}
      </Button>
      {comparing && <Variants onClose={() => setComparing(false)} />}
    </>
  )
}
