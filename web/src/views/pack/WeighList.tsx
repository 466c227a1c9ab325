/** What can be put on the scale, what to see to before it is read, and the zones of the bike as reckoned. */
import styled from 'styled-components'
import type { WeighLine } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Muted, RailLine } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { boxLook, TickBox } from '../../ui/TickBox'
import { Figures } from './PartsAgainstScale'
import { OF_A_BIKE, OF_THE_RIDER, type Weighing } from './useWeighIn'

const What = styled.button`
  display: grid;
  grid-template-columns: 26px 1fr auto;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 40px;
  padding: 4px;
  border-bottom: 1px solid var(--hair);
  font-weight: 600;
  font-stretch: var(--width-text);
  em {
    font-style: normal;
    font-weight: 500;
    font-size: var(--size-note);
    color: var(--ink2);
    font-stretch: var(--width-narrow);
  }
  i {
    ${boxLook}
  }
  &[aria-current='true'] {
    background: var(--ink);
    color: var(--tag);
    em {
      color: var(--tag);
    }
    i {
      color: var(--ink);
    }
  }
`
export function WeighList({ weighing }: { weighing: Weighing }) {
  const { bike, mine, things, current, weighed, thing, choose } = weighing
  const { sheet } = useDesk()
  const units = useUnits()
  const row = (l: WeighLine) => (
    <What key={l.key} type="button" aria-current={l.key === current} onClick={() => choose({ line: l.key })}>
      <i>{l.scale_kg !== null && <Icon name="tick" size={15} />}</i>
      {l.name}
      <em>{l.scale_kg === null ? `${units.show(l.parts_kg, 'mass', 1)} in parts` : units.show(l.scale_kg, 'mass', 2)}</em>
    </What>
  )
  return (
    <nav aria-label="What is weighed">
      {sheet.rig.bikes.length > 1 && (
        <Choice
          label="Bike"
          value={bike.id}
          options={sheet.rig.bikes.map((b) => ({ id: b.id, text: b.name }))}
          onChange={(id) => choose({ bike: id, line: null })}
        />
      )}
      <RailLine style={{ marginTop: 8 }}>
        <Icon name="load" size={17} />
        Wheel by wheel
        <em>rider off</em>
      </RailLine>
      {mine.filter((l) => OF_A_BIKE.includes(l.weighed)).map(row)}
      <Fold summary="Bags on the hanging scale" open={weighed === 'bag'}>
        {mine.filter((l) => l.weighed === 'bag').map(row)}
      </Fold>
      <Fold summary="Rider with bags, less the rider" open={OF_THE_RIDER.includes(weighed)}>
        {mine.filter((l) => OF_THE_RIDER.includes(l.weighed)).map(row)}
      </Fold>
      <Fold summary={`Things on the kitchen scale: ${things.length} weighed`} open={weighed === 'thing'}>
        <Choice
          label="Thing"
          value={thing || 'none'}
          options={[
            { id: 'none', text: 'Choose a thing' },
            ...sheet.kit.map((t) => ({ id: t.id, text: `${t.name}${t.guessed.includes('mass') ? ' (guess)' : ''}` })),
          ]}
          onChange={(id) => choose({ thing: id === 'none' ? '' : id })}
        />
      </Fold>
      <BeforeReading weighing={weighing} />
      <Zones weighing={weighing} />
    </nav>
  )
}

function BeforeReading({ weighing }: { weighing: Weighing }) {
  const { bike, told, wheel, thing, weighed, board, setBoard, raised, setRaised, dry, setDry } = weighing
  const units = useUnits()
  return (
    <>
      <RailLine style={{ marginTop: 14 }}>
        <Icon name="tick" size={17} />
        Before you read it
      </RailLine>
      {wheel && (
        <>
          <TickBox isSelected={board} onChange={setBoard}>
            Other wheel on a board as high
          </TickBox>
          {!board && (
            <>
              <Measure label="The scale is higher by" value={raised} quantity="length" onChange={setRaised} range={[-500, 500]} />
              <Muted>
                Without a board a wheel reads too little: about {units.show(told.board_matters_kg[bike.id] ?? 0, 'mass', 2)} at 60 mm. It is added.
              </Muted>
            </>
          )}
          <Muted>Tyres at pressure, bars straight, bike upright, hands off.</Muted>
        </>
      )}
      {!thing && !OF_THE_RIDER.includes(weighed) && (
        <TickBox isSelected={dry} onChange={setDry}>
          Without water and food
        </TickBox>
      )}
    </>
  )
}

function Zones({ weighing: { bike, told } }: { weighing: Weighing }) {
  const units = useUnits()
  return (
    <>
      <RailLine style={{ marginTop: 14 }}>
        <Icon name="pack" size={17} />
        Zones
        <em>as reckoned; dry in brackets</em>
      </RailLine>
      <Figures>
        <tbody>
          {told.zones
            .filter((z) => z.bike_id === bike.id)
            .map((z) => (
              <tr key={z.name}>
                <th scope="row">{z.name}</th>
                <td>
                  {units.show(z.kg, 'mass')} ({units.show(z.dry_kg, 'mass')})
                </td>
              </tr>
            ))}
        </tbody>
      </Figures>
    </>
  )
}
