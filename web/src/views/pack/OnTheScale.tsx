/** What is on the scale: its live reading, three readings, and the middle one kept. */
import styled from 'styled-components'
import { Button, Muted, Section } from '../../ui/controls'
import { Measure } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { useUnits } from '../../ui/preferences'
import { LiveBoard, ReadingTrace, ScaleDrawing } from './ScaleDrawing'
import { median, type Weighing } from './useWeighIn'

const Deeds = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
  > :first-child {
    flex: 1 1 220px;
  }
`
/** So many readings are taken; the middle one counts. */
const READINGS = 3

export function OnTheScale({ weighing }: { weighing: Weighing }) {
  const { bike, mine, current, name, wheel, board, trouble, put, keep } = weighing
  const { scale, now, past, taken, armed, take, begin } = weighing.scale
  const units = useUnits()
  return (
    <div>
      <Section as="h2">{name} on the scale</Section>
      <Muted>
        {scale
          ? `${scale.name === 'simulated' ? 'Simulated scale' : scale.name}, to ${units.show(scale.most_kg, 'mass', 0)} in steps of ${units.show(scale.step_kg, 'mass', 2)}.`
          : 'Looking for the scale.'}{' '}
        Three readings, the middle one counts.
      </Muted>
      <ScaleDrawing
        bike={bike}
        wheel={wheel}
        board={board}
        rear={mine.find((l) => l.weighed === 'rear_wheel')}
        front={mine.find((l) => l.weighed === 'front_wheel')}
      />
      <div style={{ display: 'flex', justifyContent: 'center', marginTop: 6 }}>
        <LiveBoard name={`${name}, now`} now={now} />
      </div>
      <ReadingTrace past={past} taken={taken} band={scale?.band_kg ?? 0} />
      {trouble && (
        <p role="alert">
          <b>{trouble}</b>
        </p>
      )}
      <Deeds>
        {taken.length < READINGS ? (
          <Button $wanted isDisabled={armed || now?.state === 'none'} onPress={() => take()}>
            {armed ? 'Taken as soon as it is still' : `Take reading ${taken.length + 1} of ${READINGS} when it is still`}
          </Button>
        ) : (
          <Button $wanted onPress={() => void keep(taken.map((t) => t.kg))}>
            Keep {units.show(median(taken.map((t) => t.kg)), 'mass', 2)}, the middle of {taken.map((t) => units.figure(t.kg, 'mass', 2)).join(', ')}
          </Button>
        )}
        {taken.length > 0 && <Button onPress={() => begin()}>Read anew</Button>}
        <Button onPress={() => put({ zero: true })}>Zero</Button>
      </Deeds>
      {scale?.name === 'simulated' && (
        <Deeds aria-label="Simulated scale">
          <Button onPress={() => put({ key: current })}>Put it on</Button>
          <Button onPress={() => put({ kg: 0 })}>Take it off</Button>
        </Deeds>
      )}
      <Fold summary="Type it instead">
        <Measure label={`${name} by your own scale`} value={null} quantity="mass" decimals={2} onChange={(kg) => void keep([kg])} />
      </Fold>
    </div>
  )
}
