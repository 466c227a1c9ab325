/** What is not stowed yet, by the moment a hand needs it; and what rides where. */
import { type ComponentProps, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { Tab, TabList, TabPanel, Tabs, ToggleButton } from 'react-aria-components'
import styled from 'styled-components'
import type { Placement, Thing } from '../api/client'
import { useDesk } from '../api/tour'
import { Button, IconButton, Menu, type MenuEntry, Muted, RailLine, Section } from '../ui/controls'
import { Icon, REACH_WORDS } from '../ui/icons'
import { Swatch } from '../ui/Swatch'
import { usePreferences, useUnits } from '../ui/preferences'
import { phone } from '../ui/theme'
import { type CarrierEntry, pinCarrier, swapCarriers } from './loadEdits'
import { useFocus, useHand } from './moment'
import { minutesWords } from './Tag'
import { ThingRow } from './ThingRow'
import { useStow } from './useStow'

const Column = styled.section`
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 9px 0 0 20px;
  .scroll {
    overflow-y: auto;
    flex: 1;
    min-height: 0;
    padding: 4px 3px 8px;
    scrollbar-width: thin;
  }
  .group {
    margin-bottom: 8px;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    column-gap: 14px;
    flex: none;
    button {
      text-align: left;
      font-size: var(--size-small);
      font-weight: 600;
      font-stretch: var(--width-narrow);
      min-height: 32px;
      cursor: pointer;
    }
  }
  ${phone} {
    .scroll {
      order: 2;
    }
    .ways {
      order: 1;
      button {
        min-height: 48px;
      }
    }
    &[data-held] {
      padding-bottom: 46dvh;
    }
    > * {
      order: 3;
    }
    > :first-child {
      order: 0;
    }
  }
  .food {
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 4px 0;
    font-size: var(--size-note);
  }
`
const Head = styled.div`
  display: flex;
  align-items: baseline;
  gap: 12px;
  margin-bottom: 5px;
  > div {
    display: flex;
    gap: 12px;
  }
  [role='tab'] {
    display: flex;
    align-items: center;
    font-size: var(--size-small);
    font-stretch: var(--width-narrow);
    font-weight: 500;
    color: var(--ink2);
    padding: 3px 0;
    border-bottom: 2px solid transparent;
    cursor: pointer;
  }
  [role='tab'][aria-selected='true'] {
    color: var(--ink);
    font-weight: 700;
    border-color: var(--ink);
  }
  ${phone} {
    [role='tab'] {
      min-height: 44px;
    }
  }
`
const Sides = styled(Tabs)`
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
  ${phone} {
    flex: none;
  }
`
const Bill = styled.p`
  border-top: 1px solid var(--edge);
  padding: 4px 0 6px;
  font-size: var(--size-note);
  font-stretch: var(--width-narrow);
  color: var(--ink2);
  b {
    color: var(--ink);
  }
`
const Find = styled.input`
  width: 100%;
  min-height: 32px;
  padding: 2px 8px;
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  background: var(--tag);
  font-size: var(--size-small);
  margin-bottom: 4px;
`

type Shown = 'shelf' | 'bikes'

export function Shelf() {
  const { sheet, assessment } = useDesk()
  const { carrierId, setCarrier } = useFocus()
  const { inHand } = useHand()
  const stowing = useStow()
  const { entries, stow, wordsFor, holds } = stowing
  const acts = useRef(stowing)
  useLayoutEffect(() => {
    acts.current = stowing
  })
  const [several, setSeveral] = useState(false)
  const { mending, setMending } = usePreferences()
  const [wanted, setShown] = useState<Shown>('shelf')
  const [query, setQuery] = useState('')
  const shown: Shown = carrierId ? 'bikes' : wanted
  const byId = useMemo(() => new Map(sheet.kit.map((t) => [t.id, t])), [sheet.kit])
  const onShelf = sheet.kit.filter((t) => (assessment.shelf[t.id] ?? 0) > 0)
  const matches = (thing: Thing) => !query || `${thing.name} ${thing.group}`.toLowerCase().includes(query.toLowerCase())
  const placed = sheet.load.placements.filter((p) => {
    const thing = byId.get(p.thing_id)
    return thing && matches(thing)
  })
  const shelfCount = onShelf.reduce((sum, t) => sum + (assessment.shelf[t.id] ?? 0), 0)
  const placedCount = sheet.load.placements.reduce((sum, p) => sum + p.count, 0)
  const stowed = inHand.some((h) => h.from !== null)
  const row = (thing: Thing, count: number, from: string | null) => ({
    ...{ thing, count, from, several, acts },
    minutes: assessment.minutes_a_day[thing.id],
    held: holds({ thingId: thing.id, count, from }),
  })
  return (
    <Column
      aria-label="Shelf"
      id="shelf"
      data-shelf=""
      data-held={inHand.length ? '' : undefined}
      onDragOver={(e) => stowed && e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        if (stowed) stow(null)
      }}
    >
      <Sides
        selectedKey={shown}
        onSelectionChange={(key) => {
          setShown(key === 'bikes' ? 'bikes' : 'shelf')
          setCarrier(null)
        }}
      >
        <Head>
          <Section>Shelf</Section>
          <TabList aria-label="What is shown">
            <Tab id="shelf">To stow {shelfCount}</Tab>
            <Tab id="bikes">
              On the {sheet.rig.bikes.length > 1 ? 'bikes' : 'bike'} {placedCount}
            </Tab>
          </TabList>
        </Head>
        {shown === 'bikes' && (
          <Find id="find" type="search" placeholder="Where is …" aria-label="Where is it" value={query} onChange={(e) => setQuery(e.target.value)} />
        )}
        {stowed && (
          <Button $small onPress={() => stow(null)}>
            Put {wordsFor(inHand)} on the shelf
          </Button>
        )}
        <TabPanel id={shown} className="scroll">
          {shown === 'shelf' ? (
            <ToStow things={onShelf} row={row} />
          ) : (
            <OnTheBikes
              groups={carrierId ? entries.filter((e) => e.id === carrierId) : entries}
              placed={placed}
              all={!query && !!carrierId}
              row={row}
            />
          )}
          {shown === 'shelf' && !onShelf.length && (
            <Muted>{sheet.kit.length ? 'Everything is stowed.' : 'No things yet. Bring a list under Kit.'}</Muted>
          )}
        </TabPanel>
      </Sides>
      <div className="ways">
        <ToggleButton isSelected={several} onChange={setSeveral}>
          {several ? '☑' : '☐'} Take several{inHand.length > 1 ? ` (${inHand.length})` : ''}
        </ToggleButton>
        <ToggleButton isSelected={mending} onChange={setMending}>
          {mending ? '☑' : '☐'} Make room around
        </ToggleButton>
      </div>
      {shown === 'shelf' && onShelf.length > 0 && <TakeAll things={onShelf} />}
    </Column>
  )
}

type RowOf = (thing: Thing, count: number, from: string | null) => Omit<ComponentProps<typeof ThingRow>, 'pinned'>

/** What is not stowed, by the moment of use. */
function ToStow({ things: onShelf, row }: { things: Thing[]; row: RowOf }) {
  const { assessment } = useDesk()
  return (Object.keys(REACH_WORDS) as (keyof typeof REACH_WORDS)[]).map((reach) => {
    const things = onShelf.filter((t) => t.reach === reach)
    if (!things.length && onShelf.length) return null
    return (
      <div key={reach} className="group">
        <RailLine>
          <Icon name={reach} size={17} />
          {REACH_WORDS[reach]}
        </RailLine>
        {things.map((t) => (
          <ThingRow key={t.id} {...row(t, assessment.shelf[t.id] ?? 0, null)} />
        ))}
      </div>
    )
  })
}

/** What lies where; `all`: bags with nothing in them too. */
function OnTheBikes({ groups, placed, all, row }: { groups: CarrierEntry[]; placed: Placement[]; all: boolean; row: RowOf }) {
  const { sheet } = useDesk()
  const byId = useMemo(() => new Map(sheet.kit.map((t) => [t.id, t])), [sheet.kit])
  return groups.map((entry) => {
    const inside = placed.filter((p) => p.carrier_id === entry.id)
    if (!inside.length && !all) return null
    return (
      <div key={entry.id} className="group">
        <BagLine entry={entry} inside={inside} />
        {inside.map((p) => {
          const thing = byId.get(p.thing_id)
          return thing && <ThingRow key={p.thing_id + String(p.pinned)} {...row(thing, p.count, p.carrier_id)} pinned={p.pinned} />
        })}
        <FoodLine carrierId={entry.id} />
      </div>
    )
  })
}

/** What all that is on the shelf would weigh, take and cost. */
function TakeAll({ things: onShelf }: { things: Thing[] }) {
  const { assessment } = useDesk()
  const units = useUnits()
  const mass = onShelf.reduce((sum, t) => sum + t.mass_kg * (assessment.shelf[t.id] ?? 0), 0)
  const litres = onShelf.reduce((sum, t) => sum + t.volume_l * (assessment.shelf[t.id] ?? 0), 0)
  return (
    <Bill>
      Take all: <b>{units.show(mass, 'mass')}</b>, <b>{units.show(litres, 'volume')}</b>
      {minutesWords(assessment.road ? onShelf.reduce((s, t) => s + (assessment.minutes_a_day[t.id] ?? 0), 0) : undefined)}
    </Bill>
  )
}

/** A bag's name with what can be done to all of it at once. */
function BagLine({ entry, inside }: { entry: CarrierEntry; inside: Placement[] }) {
  const { sheet, change } = useDesk()
  const { label } = useStow()
  const all = sheet.rig.bikes.flatMap((b) => b.carriers)
  const own = all.find((c) => c.id === entry.id)
  const twin =
    own &&
    all.find(
      (c) =>
        c.kind === own.kind &&
        c.side !== own.side &&
        c.id !== own.id &&
        c.side !== 'middle' &&
        sheet.rig.bikes.some((b) => b.carriers.includes(c) && b.carriers.includes(own)),
    )
  const pinned = inside.length > 0 && inside.every((p) => p.pinned)
  const entries: MenuEntry[] = [
    { id: 'pin', text: pinned ? 'Unpin all in it' : 'Pin all in it', off: !inside.length },
    { id: 'out', text: 'All of it to the shelf', off: !inside.length },
  ]
  if (twin) entries.push({ id: 'swap', text: `Swap with ${label(twin.id)}`, note: 'all things and food' })
  const run = (id: string) => {
    if (id === 'pin')
      void change(`${pinned ? 'Unpin' : 'Pin'} all in ${entry.label}`.slice(0, 200), {
        load: pinCarrier(sheet.load, entry.id, !pinned),
      })
    else if (id === 'swap' && twin)
      void change(`Swap ${entry.label} and ${label(twin.id)}`.slice(0, 200), {
        load: swapCarriers(sheet.load, entry.id, twin.id),
      })
    else
      void change(`Empty ${entry.label}`.slice(0, 200), {
        load: { ...sheet.load, placements: sheet.load.placements.filter((p) => p.carrier_id !== entry.id) },
      })
  }
  return (
    <RailLine>
      <Icon name="pack" size={17} />
      {entry.label}
      {own?.colour && (
        <>
          , <Swatch colour={own.colour} />
        </>
      )}
      <em>{inside.length ? '' : 'empty'}</em>
      <Menu label={`All in ${entry.label}`} entries={entries} onChoose={run}>
        <IconButton aria-label={`All in ${entry.label}`}>
          <Icon name="more" size={16} />
        </IconButton>
      </Menu>
    </RailLine>
  )
}

function FoodLine({ carrierId }: { carrierId: string }) {
  const { sheet } = useDesk()
  const share = sheet.load.food.find((f) => f.carrier_id === carrierId)
  if (!share) return null
  return (
    <p className="food">
      <svg width="14" height="14" aria-hidden="true">
        <rect width="14" height="14" fill="url(#food)" stroke="var(--ink)" />
      </svg>
      {share.tenths * 10}
      {'\u00a0'}% of the food
    </p>
  )
}
