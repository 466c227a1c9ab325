/** A card for each bag, bottom to top, to pack by and to print. */
import { useState } from 'react'
import styled from 'styled-components'
import type { PackCard } from '../../api/client'
import { useDesk } from '../../api/tour'
import { carrierEntries } from '../../instruments/loadEdits'
import { Button, Muted, RailLine, Section } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { Swatch } from '../../ui/Swatch'
import { usePhone } from '../../ui/usePhone'
import { usePrinting } from '../../ui/usePrinting'
import { useUnits } from '../../ui/preferences'
import { narrow, phone } from '../../ui/theme'
import { BagCard, carrierOf, type Part, partsOf } from './BagCard'
import { CampOrder } from './CampOrder'
import { NotInBags } from './NotInBags'
import { useTicks } from './ticks'

const Stage = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 318px minmax(0, 1fr);
  gap: 24px;
  padding: 12px 20px 0;
  > * {
    min-height: 0;
    overflow: auto;
    padding-bottom: 24px;
    scrollbar-width: thin;
  }
  ${narrow} {
    display: block;
    overflow: auto;
  }
  ${phone} {
    padding: 10px 14px;
  }
  @media print {
    display: block;
    padding: 0;
    > * {
      overflow: visible;
      padding: 0;
    }
  }
`
const BagLine = styled.button`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 10px;
  width: 100%;
  padding: 6px 4px;
  border-bottom: 1px solid var(--hair);
  b {
    font-weight: 620;
  }
  span {
    color: var(--ink2);
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    text-align: right;
  }
  &[aria-current='true'] {
    background: var(--tag);
    box-shadow: inset 4px 0 0 var(--ink);
    padding-left: 10px;
  }
`
/** Two columns of cards on paper: two to four on a sheet. */
const Cards = styled.div`
  @media print {
    columns: 2;
    column-gap: 5mm;
  }
`
export function PackCards() {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const entries = carrierEntries(sheet)
  const cards = assessment.cards.filter((c) => c.layers.length || c.food_l > 0.05)
  const [chosen, choose] = useState<string | null>(null)
  const onPhone = usePhone()
  const printing = usePrinting()
  const ticks = useTicks()
  const current = cards.find((c) => c.carrier_id === chosen) ?? (onPhone ? undefined : cards[0])
  const label = (id: string) => entries.find((e) => e.id === id)?.label ?? ''
  if (!cards.length) {
    return (
      <Stage>
        <Muted>Nothing is stowed yet. Under Load, let a load be proposed or stow things by hand; each bag then gets its card.</Muted>
      </Stage>
    )
  }
  const cardOf = (card: PackCard, part?: Part) => (
    <BagCard key={`${card.carrier_id} ${part?.from ?? ''}`} card={card} part={part} label={label(card.carrier_id)} ticks={ticks} />
  )
  const bags = sheet.rig.bikes.map((bike) => (
    <div key={bike.id} style={{ marginTop: 8 }}>
      <RailLine>
        <Icon name="load" size={17} />
        {bike.name}
        <em>
          {units.show(
            cards.filter((c) => c.bike_id === bike.id).reduce((s, c) => s + c.mass_kg, 0),
            'mass',
          )}
        </em>
      </RailLine>
      {cards
        .filter((c) => c.bike_id === bike.id)
        .map((card) => {
          const done = card.layers.filter((l) => ticks.has(card.carrier_id, l.thing_id)).length
          const open = card === current
          return (
            <div key={card.carrier_id}>
              <BagLine
                type="button"
                aria-current={open}
                aria-expanded={onPhone ? open : undefined}
                onClick={() => choose(onPhone && open ? null : card.carrier_id)}
              >
                <b>
                  <Swatch colour={carrierOf(sheet, card.carrier_id)?.colour ?? ''} />
                  {label(card.carrier_id)}
                </b>
                <span>{units.show(card.mass_kg, 'mass', 2)}</span>
                <span style={{ textAlign: 'left' }}>
                  {card.layers.length} {card.layers.length === 1 ? 'thing' : 'things'}
                </span>
                <span>{done === card.layers.length ? 'packed' : `${done} of ${card.layers.length} in`}</span>
              </BagLine>
              {onPhone && open && !printing && cardOf(card)}
            </div>
          )
        })}
    </div>
  ))
  return (
    <Stage>
      <nav aria-label="Bags" className="no-print">
        <Section>Bags</Section>
        {bags}
        <p style={{ marginTop: 12 }}>
          <Button $wanted onPress={() => window.print()}>
            <Icon name="print" size={16} />
            Print all cards
          </Button>
        </p>
        {ticks.count > 0 && (
          <p style={{ marginTop: 8 }}>
            <Button onPress={ticks.clear}>
              Pack anew: clear {ticks.count} {ticks.count === 1 ? 'tick' : 'ticks'}
            </Button>
          </p>
        )}
        {ticks.trouble && <Muted role="alert">{ticks.trouble}</Muted>}
        <CampOrder />
      </nav>
      <Cards>
        {printing ? cards.flatMap((card) => partsOf(card).map((part) => cardOf(card, part))) : !onPhone && current && cardOf(current)}
        <NotInBags />
      </Cards>
    </Stage>
  )
}
