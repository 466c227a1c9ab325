/** What is not stowed yet, by the moment a hand needs it; and what rides where. */
import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import { Tab, TabList, TabPanel, Tabs, ToggleButton } from 'react-aria-components'
import styled from 'styled-components'
import type { Thing } from '../api/client'
import { useDesk } from '../api/tour'
import { Button, Muted, Section } from '../ui/controls'
import { usePreferences } from '../ui/preferences'
import { phone } from '../ui/theme'
import { useFocus, useHand } from './moment'
import { OnTheBikes, TakeAll, ToStow } from './ShelfLists'
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
