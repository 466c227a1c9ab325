/** The kit: one line a thing, by moment of use, by kit or as a table; typed, changed, several at once, brought from a sheet. */
import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import styled from 'styled-components'
import type { Reach, Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Muted, RailLine } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { narrow, phone } from '../../ui/theme'
import { usePhone, useNarrow } from '../../ui/usePhone'
import { BringKit } from './BringKit'
import { ChosenStrip } from './ChosenStrip'
import { type Arrangement, found, groupsOf, inColumns, litresOf, massOf } from './groups'
import { KitHead } from './KitHead'
import { KitTable } from './KitTable'
import { Library } from './Library'
import { ThingDialog } from './ThingDialog'
import { howOf, lineOf, ThingLines } from './ThingLines'
import { useKitActs } from './useKitActs'
import { useKitWords } from './useKitWords'
import { useRanking } from './useRanking'
import { WhereLegend } from './WhereShape'

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 10px 20px 28px;
  ${phone} {
    padding: 10px 14px;
  }
`
const Split = styled.div<{ $open: boolean }>`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) ${(p) => (p.$open ? '300px' : '')};
  ${narrow} {
    display: block;
    overflow: auto;
  }
`
const Columns = styled.div<{ $columns: number }>`
  display: grid;
  grid-template-columns: repeat(${(p) => p.$columns}, minmax(0, 1fr));
  gap: 20px;
  align-items: start;
  > div {
    display: flex;
    flex-direction: column;
    gap: 12px;
  }
`
const Legend = styled.p`
  display: flex;
  align-items: center;
  gap: 4px 14px;
  flex-wrap: wrap;
  margin-top: 12px;
  font-size: var(--size-note);
  font-stretch: var(--width-narrow);
  color: var(--ink2);
  span {
    display: inline-flex;
    align-items: center;
    gap: 4px;
  }
  ${narrow} {
    .bars {
      display: none;
    }
  }
`
const EXAMPLES: Record<Reach, string> = {
  riding: 'What must your hand find while riding? Snacks, a bottle, the camera.',
  stop: 'What comes out at a stop? Rain wear, tools, first aid.',
  camp: 'What comes out on arrival? The tent first, then the stove.',
  night: 'What do you sleep in and on?',
  breaks: 'What only if something breaks? Spokes, a tyre.',
}

export function KitView() {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const small = usePhone()
  const middling = useNarrow()
  const [query, setQuery] = useState('')
  const [arranged, setArranged] = useState<Arrangement>('moment')
  const [chosen, setChosen] = useState<Set<string>>(new Set())
  const [editing, setEditing] = useState<Thing | 'new' | null>(null)
  const [bringing, setBringing] = useState(false)
  const [library, setLibrary] = useState(false)
  const minutes = assessment.minutes_a_day
  const scales = useMemo(
    () => ({
      kg: Math.max(0, ...sheet.kit.map((t) => t.mass_kg * t.count)),
      l: Math.max(0, ...sheet.kit.map((t) => t.volume_l * t.count)),
      minutes: Math.max(0, ...Object.values(minutes)),
    }),
    [sheet.kit, minutes],
  )
  const things = useMemo(() => found(sheet.kit, query), [sheet.kit, query])
  const { data: ranking, isPending: reckoning } = useRanking(arranged === 'price')
  const { placeOf, whyOf, groundOf } = useKitWords(ranking)
  const groups = groupsOf(things, arranged, { ranking, assessment, riders: sheet.riders })
  const { keep, remove, dropped } = useKitActs(arranged, groups)
  const onDrop = useRef(dropped)
  useLayoutEffect(() => {
    onDrop.current = dropped
  })
  const columns = small ? 1 : middling || library || arranged === 'price' ? 2 : 3
  const picked = sheet.kit.filter((t) => chosen.has(t.id))
  return (
    <>
      <Split $open={library}>
        <Page>
          <KitHead
            {...{ arranged, query, library }}
            onArrange={setArranged}
            onFind={setQuery}
            onLibrary={setLibrary}
            onBring={() => setBringing(true)}
            onAdd={() => setEditing('new')}
          />
          {arranged === 'price' && reckoning && <Muted role="status">Reckoning what each thing costs on this tour …</Muted>}
          {arranged === 'table' ? (
            <KitTable
              things={things}
              chosen={chosen}
              onChoose={setChosen}
              onOpen={setEditing}
              minutes={minutes}
              placeOf={placeOf}
              riderOf={(t) => sheet.riders.find((r) => r.id === t.rider_id)?.name ?? 'shared'}
            />
          ) : (
            <Columns $columns={columns}>
              {inColumns(groups, columns).map((column) => (
                <div key={column.map((g) => g.id).join()}>
                  {column.map((group) => (
                    <section key={group.id} aria-label={group.title}>
                      <RailLine>
                        {group.reach && <Icon name={group.reach} size={17} />}
                        {group.title}
                        <em>
                          {group.things.length}, {units.show(massOf(group.things), 'mass')}, {units.show(litresOf(group.things), 'volume', 0)}
                        </em>
                      </RailLine>
                      <ThingLines
                        title={group.title}
                        lines={group.things.map((t) => lineOf(t, arranged === 'price' ? groundOf(t) : whyOf(t), minutes[t.id] ?? 0, scales))}
                        chosen={chosen}
                        onChoose={setChosen}
                        onOpen={setEditing}
                        onDrop={onDrop}
                        empty={query ? 'Nothing here has such a name.' : group.reach ? EXAMPLES[group.reach] : ''}
                      />
                    </section>
                  ))}
                </div>
              ))}
            </Columns>
          )}
          {arranged !== 'table' && sheet.kit.length > 0 && <Shapes kit={sheet.kit} />}
        </Page>
        {library && <Library />}
      </Split>
      {picked.length > 0 && (
        <ChosenStrip
          chosen={picked}
          minutes={minutes}
          onAll={() => setChosen(new Set(things.map((t) => t.id)))}
          onDone={() => setChosen(new Set())}
        />
      )}
      {editing && (
        <ThingDialog
          thing={editing === 'new' ? null : editing}
          onClose={() => setEditing(null)}
          onKeep={(thing) => {
            keep(thing)
            setEditing(null)
          }}
          onRemove={(thing) => {
            remove(thing)
            setEditing(null)
          }}
        />
      )}
      {bringing && <BringKit onClose={() => setBringing(false)} />}
    </>
  )
}

/** What the shapes, bars and signs of the lines mean. */
function Shapes({ kit }: { kit: Thing[] }) {
  return (
    <Legend>
      <WhereLegend used={[...new Set(kit.map(howOf))]} />
      <span className="bars">bars: kilograms solid, litres open, minutes a day hatched, each to the largest of the kit</span>
      <span>~ a guess</span>
    </Legend>
  )
}
