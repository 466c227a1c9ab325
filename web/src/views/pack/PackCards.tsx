/** A card for each bag, bottom to top, to pack by and to print. */
import { useEffect, useState } from 'react'
import { flushSync } from 'react-dom'
import styled from 'styled-components'
import type { PackCard, TourSheet } from '../../api/client'
import { useDesk } from '../../api/tour'
import { carrierEntries } from '../../instruments/loadEdits'
import { Button, Muted, RailLine, Section, Title } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { Swatch } from '../../ui/Swatch'
import { TickBox } from '../../ui/TickBox'
import { usePhone } from '../../ui/usePhone'
import { fixtureWords } from '../../instruments/Fixtures'
import { useUnits } from '../../ui/preferences'
import { whereWords } from '../kit/WhereFields'
import { narrow, phone } from '../../ui/theme'
import { CampOrder } from './CampOrder'
import { type Ticks, useTicks } from './ticks'

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
const Card = styled.article`
  background: var(--edge);
  max-width: 640px;
  clip-path: polygon(18px 0, 100% 0, 100% 100%, 18px 100%, 0 calc(100% - 18px), 0 18px);
  padding: 1.5px;
  > div {
    background: var(--tag);
    clip-path: polygon(17.4px 0, 100% 0, 100% 100%, 17.4px 100%, 0 calc(100% - 17.4px), 0 17.4px);
    padding: 16px 20px 14px 44px;
    position: relative;
  }
  ${phone} {
    > div {
      padding: 14px 12px 12px 24px;
    }
    > div::before {
      display: none;
    }
  }
  > div::before {
    content: '';
    position: absolute;
    left: 16px;
    top: 22px;
    width: 13px;
    height: 13px;
    border-radius: 50%;
    border: 1.5px solid var(--edge);
    background: var(--sky);
  }
  @media print {
    break-inside: avoid;
    clip-path: none;
    background: none;
    border: 1.5px solid #000;
    max-width: none;
    margin: 0 0 4mm;
    > div {
      clip-path: none;
      background: none;
      padding: 3mm 4mm 2mm;
    }
    > div::before {
      display: none;
    }
  }
`
const Layers = styled.ol`
  border: 2px solid var(--ink);
  border-top-width: 1px;
  margin: 10px 0;
  display: flex;
  flex-direction: column;
  li {
    display: grid;
    grid-template-columns: 30px 44px 1fr auto;
    align-items: center;
    gap: 8px;
    border-top: 1px solid var(--ink);
    padding: 0 10px;
  }
  li.empty {
    border-top: 1px dashed var(--ink);
    color: var(--ink2);
    grid-template-columns: 1fr;
    text-align: center;
    background: repeating-linear-gradient(0deg, transparent 0 7px, var(--hair) 7px 8px);
  }
  li.in {
    background: var(--kit-t);
  }
  li > .no {
    font-family: 'Archivo Variable', Arial, sans-serif;
    font-weight: 780;
  }
  li > .fig {
    text-align: right;
    white-space: nowrap;
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
  }
  ${phone} {
    li {
      grid-template-columns: 22px 44px 1fr auto;
      gap: 4px;
      padding: 0 6px;
    }
  }
  @media print {
    display: block;
    margin: 2mm 0;
    font-size: 9pt;
    li {
      grid-template-columns: 6mm 6mm 1fr auto;
      min-height: 6.4mm !important;
    }
    li > .fig {
      font-size: 8pt;
    }
  }
`
/** Two columns of cards on paper: two to four on a sheet. */
const Cards = styled.div`
  @media print {
    columns: 2;
    column-gap: 5mm;
  }
`
/** Steps of one card on paper; a fuller bag goes on on the next, from the bottom up. */
const ON_PAPER = 16

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

const carrierOf = (sheet: TourSheet, id: string) => sheet.rig.bikes.flatMap((b) => b.carriers).find((c) => c.id === id)

/** Some steps of a card: from the first of them to before the last. */
interface Part {
  from: number
  to: number
  number: number
  of: number
}

/** A card in parts that each fit half a sheet, bottom first. */
function partsOf(card: PackCard): Part[] {
  const of = Math.max(1, Math.ceil(card.layers.length / ON_PAPER))
  const each = Math.ceil(card.layers.length / of)
  return Array.from({ length: of }, (_, k) => ({ from: k * each, to: Math.min((k + 1) * each, card.layers.length), number: k + 1, of }))
}

/** Whether the page is being printed. */
function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false)
  useEffect(() => {
    const whole = (now: boolean) => () => flushSync(() => setPrinting(now))
    const [before, after] = [whole(true), whole(false)]
    window.addEventListener('beforeprint', before)
    window.addEventListener('afterprint', after)
    return () => {
      window.removeEventListener('beforeprint', before)
      window.removeEventListener('afterprint', after)
    }
  }, [])
  return printing
}

/** What is on the shelf still, worn, fixed, posted or waits somewhere: it is in no bag at the start, and easily forgotten. */
function NotInBags() {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const fixed = assessment.bikes.flatMap((bike) => bike.fixtures)
  const away = sheet.kit.filter((t) => t.where.some((w) => w.from_km > 0 || ['posted', 'waiting', 'home'].includes(w.how)))
  const holds = (id: string) => sheet.kit.filter((t) => t.inside === id).map((t) => t.name)
  const out = sheet.kit.filter((t) => (assessment.shelf[t.id] ?? 0) > 0)
  if (!fixed.length && !away.length && !out.length) return null
  return (
    <Card aria-label="Not in a bag" style={{ marginTop: 12 }}>
      <div>
        <Title as="h2">Not in a bag</Title>
        {out.length > 0 && (
          <>
            <Muted>Not stowed: it stays here as things stand.</Muted>
            <ul>
              {out.map((t) => (
                <li key={t.id}>
                  {(assessment.shelf[t.id] ?? 0) > 1 ? `${assessment.shelf[t.id]} × ` : ''}
                  {t.name}
                </li>
              ))}
            </ul>
          </>
        )}
        {fixed.length > 0 && (
          <ul>
            {fixed.map((f) => (
              <li key={`${f.thing_id}${f.from_km}`}>{fixtureWords(f, units)}</li>
            ))}
          </ul>
        )}
        {away.length > 0 && (
          <>
            <Muted style={{ marginTop: 8 }}>Comes and goes on the way: post it in time, and tell who waits for it.</Muted>
            <ul>
              {away.map((t) => (
                <li key={t.id}>
                  {t.name}
                  {holds(t.id).length > 0 && `, with ${holds(t.id).join(', ')}`}: {whereWords(t.where, (km) => units.show(km, 'distance'))}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </Card>
  )
}

function BagCard({ card, part, label, ticks }: { card: PackCard; part?: Part; label: string; ticks: Ticks }) {
  const { sheet } = useDesk()
  const units = useUnits()
  const bike = sheet.rig.bikes.find((b) => b.id === card.bike_id)
  const carrier = carrierOf(sheet, card.carrier_id)
  const top = !part || part.number === part.of
  const tall = (litres: number) => ({ minHeight: Math.max(40, Math.min(litres * 24, 130)) })
  return (
    <Card aria-label={label}>
      <div>
        <Title as="h2">
          <Swatch colour={carrier?.colour ?? ''} />
          {label}
          {part && part.of > 1 && `, steps ${part.from + 1} to ${part.to}`}
        </Title>
        <Muted>
          {bike?.name}. {units.show(card.mass_kg, 'mass', 2)} of {units.show(carrier?.limit_kg ?? 0, 'mass', 2)},{' '}
          {units.show(card.volume_l, 'volume')} of {units.show(card.room_l, 'volume')}, leaving on day 1.{' '}
          {part && part.number > 1 ? 'It goes on from the card before, upwards.' : 'Step 1 is at the bottom.'}
        </Muted>
        <Layers reversed>
          {top && card.empty_l > 0.3 && (
            <li className="empty" style={tall(card.empty_l)}>
              {units.show(card.empty_l, 'volume')} empty{card.kept_for_shopping ? ', kept for shopping' : ''}
            </li>
          )}
          {top && card.food_l > 0.05 && (
            <li style={tall(card.food_l)}>
              <span className="no" />
              <span />
              <span>Food bought on the way, on top</span>
              <span className="fig">
                {units.show(card.food_kg, 'mass', 2)}, {units.show(card.food_l, 'volume')}
              </span>
            </li>
          )}
          {card.layers
            .map((layer, i) => ({ layer, step: i + 1 }))
            .slice(part?.from, part?.to)
            .reverse()
            .map(({ layer, step }) => {
              const thing = sheet.kit.find((t) => t.id === layer.thing_id)
              const isIn = ticks.has(card.carrier_id, layer.thing_id)
              return (
                <li key={layer.thing_id} className={isIn ? 'in' : ''} style={tall(layer.volume_l)}>
                  <span className="no">{step}</span>
                  <TickBox
                    isSelected={isIn}
                    onChange={(packed) => ticks.set(card.carrier_id, layer.thing_id, packed)}
                    label={`${thing?.name} is in`}
                  />
                  <span>
                    {layer.count > 1 ? `${layer.count} × ` : ''}
                    {thing?.name}
                    {thing?.dry === 'own_bag' && <Muted as="span"> in its own dry bag</Muted>}
                    {thing?.wet && <Muted as="span"> gets wet</Muted>}
                    {layer.place && <Muted as="span"> {layer.place}</Muted>}
                  </span>
                  <span className="fig">
                    {units.show(layer.mass_kg, 'mass', 2)}, {units.show(layer.volume_l, 'volume', layer.volume_l < 0.1 ? 2 : 1)}
                  </span>
                </li>
              )
            })}
        </Layers>
        {card.water_l > 0.05 && <Muted>With {units.show(card.water_l, 'volume')} of water in it on leaving.</Muted>}
      </div>
    </Card>
  )
}
