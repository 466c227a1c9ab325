/** The kit: one line a thing, by moment of use, by kit or as a table; typed, changed, several at once, brought from a sheet. */
import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import * as Aria from 'react-aria-components'
import styled from 'styled-components'
import type { Reach, Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { carrierEntries } from '../../instruments/loadEdits'
import { minutesWords } from '../../instruments/Tag'
import { Button, Muted, RailLine, Section } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { narrow, phone } from '../../ui/theme'
import { usePhone, useNarrow } from '../../ui/usePhone'
import { AddByName } from './AddByName'
import { BringKit } from './BringKit'
import { ChosenStrip } from './ChosenStrip'
import { type Arrangement, found, groupsOf, inColumns, litresOf, massOf } from './groups'
import { KitTable } from './KitTable'
import { Library } from './Library'
import { ThingDialog } from './ThingDialog'
import { howOf, lineOf, ThingLines } from './ThingLines'
import { Unknown } from './Unknown'
import { whereWords } from './WhereFields'
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
const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 6px 12px;
  margin-bottom: 8px;
  flex-wrap: wrap;
  input {
    min-height: 32px;
    padding: 2px 8px;
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    background: var(--tag);
    width: 180px;
  }
  .grow {
    flex: 1;
  }
  ${phone} {
    input {
      width: 100%;
      min-height: 44px;
    }
  }
`
const Arranged = styled(Aria.ToggleButtonGroup)`
  display: flex;
  gap: 14px;
  button {
    min-height: 32px;
    font-size: var(--size-text);
    font-weight: 600;
    font-stretch: var(--width-text);
    color: var(--ink2);
    cursor: pointer;
  }
  button[data-selected] {
    color: var(--ink);
    font-weight: 720;
    box-shadow: inset 0 -3px 0 var(--ink);
  }
  ${phone} {
    button {
      min-height: 44px;
    }
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
const ASKED_ABOVE_KG = 1

export function KitView() {
  const { sheet, change, assessment } = useDesk()
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
  const { rig, riders } = sheet
  const entries = useMemo(() => carrierEntries({ rig, riders }), [rig, riders])
  const placeOf = (t: Thing) => {
    const told = whereWords(t.where, (km) => units.show(km, 'distance'))
    if (t.where.length && !t.where.some((w) => w.how === 'packed') && (t.where[0]?.from_km ?? 0) === 0) return told
    const at = sheet.load.placements.filter((p) => p.thing_id === t.id).map((p) => entries.find((e) => e.id === p.carrier_id)?.label ?? '')
    return [at.length ? [...new Set(at)].join(', ') : 'on the shelf', told].filter(Boolean).join('; ')
  }
  const stowed = new Set(sheet.load.placements.map((p) => p.thing_id))
  const whyOf = (t: Thing) => {
    const told = t.where.length > 0 || !(stowed.has(t.id) || t.inside !== null) ? placeOf(t) : ''
    return [told, t.last_time && `last time: ${t.last_time}`, t.because || (t.mass_kg * t.count > ASKED_ABOVE_KG ? 'why does it come?' : '')]
      .filter(Boolean)
      .join('; ')
  }
  const set = (what: string, ids: string[], part: (t: Thing) => Partial<Thing>) =>
    void change(what.slice(0, 200), { kit: sheet.kit.map((t) => (ids.includes(t.id) ? { ...t, ...part(t) } : t)) })
  const keep = (thing: Thing) => {
    const at = sheet.kit.findIndex((t) => t.id === thing.id)
    const kit = at < 0 ? [...sheet.kit, thing] : sheet.kit.map((t) => (t.id === thing.id ? thing : t))
    void change(`${at < 0 ? 'Add' : 'Change'} ${thing.name}`.slice(0, 200), { kit })
    setEditing(null)
  }
  const { data: ranking, isPending: reckoning } = useRanking(arranged === 'price')
  const rows = useMemo(() => new Map(ranking?.things.map((r) => [r.thing_id, r])), [ranking])
  const groundOf = (t: Thing) => {
    const row = rows.get(t.id)
    if (!row) return ''
    const each = row.minutes_a_use !== null && row.minutes_a_use >= 0.05 ? `${units.show(row.minutes_a_use, 'minutes', 1)} a use` : ''
    return [units.say(row.ground), each].filter(Boolean).join('; ')
  }
  const groups = groupsOf(things, arranged, { ranking, assessment, riders: sheet.riders })
  const dropped = (title: string, ids: string[]) => {
    const group = groups.find((g) => g.title === title)
    const names = ids.length === 1 ? (sheet.kit.find((t) => t.id === ids[0])?.name ?? '') : `${ids.length} things`
    if (!ids.length || !group) return
    const { reach } = group
    if (reach) set(`Want ${names}: ${title}`, ids, (t) => ({ reach, guessed: t.guessed.filter((g) => g !== 'reach') }))
    else if (arranged === 'rider') set(`${title}: ${names}`, ids, () => ({ rider_id: group.id === '-' ? null : group.id }))
    else if (arranged === 'kit') set(`Put ${names} in ${title}`, ids, () => ({ group: group.id === '-' ? '' : title }))
  }
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
          <Head>
            <Section>Kit</Section>
            <Muted as="span">
              {sheet.kit.length} kinds, {units.show(massOf(sheet.kit), 'mass')}, {units.show(litresOf(sheet.kit), 'volume', 0)}
              {minutesWords(assessment.road ? Object.values(minutes).reduce((s, m) => s + m, 0) : undefined)}
            </Muted>
            <Arranged
              aria-label="Arranged"
              selectedKeys={[arranged]}
              disallowEmptySelection
              onSelectionChange={(keys) => setArranged(([...keys][0] ?? 'moment') as Arrangement)}
            >
              <Aria.ToggleButton id="moment">By moment</Aria.ToggleButton>
              <Aria.ToggleButton id="price">By price</Aria.ToggleButton>
              <Aria.ToggleButton id="serves">By what it serves</Aria.ToggleButton>
              <Aria.ToggleButton id="kit">By kit</Aria.ToggleButton>
              <Aria.ToggleButton id="rider">By rider</Aria.ToggleButton>
              <Aria.ToggleButton id="table">As a table</Aria.ToggleButton>
            </Arranged>
            <span className="grow" />
            <Unknown />
          </Head>
          <Head>
            <AddByName />
            <input
              type="search"
              id="find"
              aria-label="Find a thing"
              placeholder="Find a thing"
              value={query}
              onChange={(e) => setQuery(e.target.value)}
            />
            <span className="grow" />
            <Button $small aria-pressed={library} onPress={() => setLibrary(!library)}>
              {library ? 'Close the library' : 'Library'}
            </Button>
            <Button $small onPress={() => setBringing(true)}>
              Bring a list
            </Button>
            <Button $small $wanted onPress={() => setEditing('new')}>
              <Icon name="plus" size={14} />
              Add a thing
            </Button>
          </Head>
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
          {arranged !== 'table' && sheet.kit.length > 0 && (
            <Legend>
              <WhereLegend used={[...new Set(sheet.kit.map(howOf))]} />
              <span className="bars">bars: kilograms solid, litres open, minutes a day hatched, each to the largest of the kit</span>
              <span>~ a guess</span>
            </Legend>
          )}
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
          onKeep={keep}
          onRemove={(thing) => {
            void change(`Remove ${thing.name}`.slice(0, 200), { kit: sheet.kit.filter((t) => t.id !== thing.id) })
            setEditing(null)
          }}
        />
      )}
      {bringing && <BringKit onClose={() => setBringing(false)} />}
    </>
  )
}
