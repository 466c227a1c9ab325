/** A card for each bag, bottom to top, to pack by and to print. */
import { useEffect, useState } from 'react'
import { Checkbox } from 'react-aria-components'
import { flushSync } from 'react-dom'
import styled from 'styled-components'
import type { PackCard } from '../../api/client'
import { useDesk } from '../../api/tour'
import { carrierEntries } from '../../instruments/loadEdits'
import { Button, Muted, RailLine, Section, Title } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useKeptSet } from '../../ui/kept'
import { fixtureWords } from '../../instruments/Fixtures'
import { useUnits } from '../../ui/preferences'
import { whereWords } from '../kit/WhereFields'
import { narrow, phone } from '../../ui/theme'

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
    font-size: 12.5px;
    font-stretch: 86%;
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
    break-after: page;
    clip-path: none;
    background: none;
    border: 1.5px solid #000;
    max-width: none;
    width: 105mm;
    min-height: 140mm;
    margin: 0 0 4mm;
    > div {
      clip-path: none;
      background: none;
      padding: 6mm 6mm 4mm 8mm;
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
    grid-template-columns: 30px 34px 1fr auto;
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
    font-size: 12.5px;
    font-stretch: 86%;
  }
`
const Box = styled(Checkbox)`
  width: 34px;
  height: 34px;
  display: grid;
  place-items: center;
  cursor: pointer;
  i {
    width: 26px;
    height: 26px;
    border: 1.5px solid var(--ink);
    border-radius: 3px;
    display: grid;
    place-items: center;
    background: var(--tag);
  }
  @media print {
    i {
      width: 5mm;
      height: 5mm;
    }
    svg {
      display: none;
    }
  }
`

export function PackView() {
  const { tour, sheet, assessment } = useDesk()
  const units = useUnits()
  const entries = carrierEntries(sheet)
  const cards = assessment.cards.filter((c) => c.layers.length || c.food_l > 0.05)
  const [chosen, choose] = useState<string | null>(null)
  const [printing, setPrinting] = useState(false)
  const [ticked, setTicked] = useKeptSet(`packed ${tour.id}`)
  const current = cards.find((c) => c.carrier_id === chosen) ?? cards[0]
  const label = (id: string) => entries.find((e) => e.id === id)?.label ?? ''
  const toggle = (key: string) => {
    const next = new Set(ticked)
    if (!next.delete(key)) next.add(key)
    setTicked(next)
  }
  useEffect(() => {
    const whole = (printing: boolean) => () => flushSync(() => setPrinting(printing))
    const [before, after] = [whole(true), whole(false)]
    window.addEventListener('beforeprint', before)
    window.addEventListener('afterprint', after)
    return () => {
      window.removeEventListener('beforeprint', before)
      window.removeEventListener('afterprint', after)
    }
  }, [])
  if (!current) {
    return (
      <Stage>
        <Muted>Nothing is stowed yet. Under Load, let a load be proposed or stow things by hand; each bag then gets its card.</Muted>
      </Stage>
    )
  }
  return (
    <Stage>
      <nav aria-label="Bags" className="no-print">
        <Section>Bags</Section>
        {sheet.rig.bikes.map((bike) => (
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
                const done = card.layers.filter((l) => ticked.has(`${card.carrier_id}/${l.thing_id}`)).length
                return (
                  <BagLine key={card.carrier_id} type="button" aria-current={card === current} onClick={() => choose(card.carrier_id)}>
                    <b>{label(card.carrier_id)}</b>
                    <span>{units.show(card.mass_kg, 'mass', 2)}</span>
                    <span style={{ textAlign: 'left' }}>
                      {card.layers.length} {card.layers.length === 1 ? 'thing' : 'things'}
                    </span>
                    <span>{done === card.layers.length ? 'packed' : `${done} of ${card.layers.length} in`}</span>
                  </BagLine>
                )
              })}
          </div>
        ))}
        <p style={{ marginTop: 12 }}>
          <Button $wanted onPress={() => window.print()}>
            <Icon name="print" size={16} />
            Print all cards
          </Button>
        </p>
        {ticked.size > 0 && (
          <p style={{ marginTop: 8 }}>
            <Button onPress={() => setTicked(new Set())}>
              Pack anew: clear {ticked.size} {ticked.size === 1 ? 'tick' : 'ticks'}
            </Button>
          </p>
        )}
        <Muted style={{ marginTop: 10 }}>
          Before you leave: weigh each bag on a hanging scale, check every bolt and strap, ride the loaded bike on your worst surface.
        </Muted>
      </nav>
      <div>
        {(printing ? cards : [current]).map((card) => (
          <BagCard key={card.carrier_id} card={card} label={label(card.carrier_id)} ticked={ticked} toggle={toggle} />
        ))}
        <NotInBags />
      </div>
    </Stage>
  )
}

/** What is worn, fixed, posted or waits somewhere: it is packed in no bag at the start, and easily forgotten. */
function NotInBags() {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const fixed = assessment.bikes.flatMap((bike) => bike.fixtures)
  const away = sheet.kit.filter((t) => t.where.some((w) => w.from_km > 0 || ['posted', 'waiting', 'home'].includes(w.how)))
  if (!fixed.length && !away.length) return null
  return (
    <Card aria-label="Not in a bag" style={{ marginTop: 12 }}>
      <div>
        <Title as="h2">Not in a bag</Title>
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
                  {t.name}: {whereWords(t.where, (km) => units.show(km, 'distance'))}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </Card>
  )
}

function BagCard({ card, label, ticked, toggle }: { card: PackCard; label: string; ticked: ReadonlySet<string>; toggle: (key: string) => void }) {
  const { sheet } = useDesk()
  const units = useUnits()
  const bike = sheet.rig.bikes.find((b) => b.id === card.bike_id)
  const carrier = bike?.carriers.find((c) => c.id === card.carrier_id)
  const tall = (litres: number) => ({ minHeight: Math.max(40, Math.min(litres * 24, 130)) })
  const kept = card.empty_l > 0.3 && ['riding', 'stop'].includes(carrier?.reach ?? '')
  return (
    <Card aria-label={label}>
      <div>
        <Title as="h2">{label}</Title>
        <Muted>
          {bike?.name}. {units.show(card.mass_kg, 'mass', 2)} of {units.show(carrier?.limit_kg ?? 0, 'mass', 2)},{' '}
          {units.show(card.volume_l, 'volume')} of {units.show(card.room_l, 'volume')}, leaving on day 1. Step 1 is at the bottom.
        </Muted>
        <Layers reversed>
          {card.empty_l > 0.3 && (
            <li className="empty" style={tall(card.empty_l)}>
              {units.show(card.empty_l, 'volume')} empty{kept ? ', kept for shopping' : ''}
            </li>
          )}
          {card.food_l > 0.05 && (
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
            .reverse()
            .map(({ layer, step }) => {
              const thing = sheet.kit.find((t) => t.id === layer.thing_id)
              const key = `${card.carrier_id}/${layer.thing_id}`
              return (
                <li key={key} className={ticked.has(key) ? 'in' : ''} style={tall(layer.volume_l)}>
                  <span className="no">{step}</span>
                  <Box isSelected={ticked.has(key)} onChange={() => toggle(key)} aria-label={`${thing?.name} is in`}>
                    <i>{ticked.has(key) && <Icon name="tick" size={16} />}</i>
                  </Box>
                  <span>
                    {layer.count > 1 ? `${layer.count} × ` : ''}
                    {thing?.name}
                    {thing?.dry === 'own_bag' && <Muted as="span"> in its own dry bag</Muted>}
                    {thing?.wet && <Muted as="span"> gets wet</Muted>}
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
