/** The card of one bag, bottom to top; on paper in parts. */
import styled from 'styled-components'
import type { PackCard, TourSheet } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Muted, Title } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { Swatch } from '../../ui/Swatch'
import { phone } from '../../ui/theme'
import { TickBox } from '../../ui/TickBox'
import type { Ticks } from './ticks'

export const Card = styled.article`
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
/** Steps of one card on paper; a fuller bag goes on on the next, from the bottom up. */
const ON_PAPER = 16

export const carrierOf = (sheet: TourSheet, id: string) => sheet.rig.bikes.flatMap((b) => b.carriers).find((c) => c.id === id)

/** Some steps of a card: from the first of them to before the last. */
export interface Part {
  from: number
  to: number
  number: number
  of: number
}

/** A card in parts that each fit half a sheet, bottom first. */
export function partsOf(card: PackCard): Part[] {
  const of = Math.max(1, Math.ceil(card.layers.length / ON_PAPER))
  const each = Math.ceil(card.layers.length / of)
  return Array.from({ length: of }, (_, k) => ({ from: k * each, to: Math.min((k + 1) * each, card.layers.length), number: k + 1, of }))
}

export function BagCard({ card, part, label, ticks }: { card: PackCard; part?: Part; label: string; ticks: Ticks }) {
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
        {card.under.length > 0 && (
          <p>
            <b>First take off {card.under.map((id) => carrierOf(sheet, id)?.name).join(' and ')}:</b> {units.show(card.under_minutes, 'minutes')} off
            and on.
          </p>
        )}
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
