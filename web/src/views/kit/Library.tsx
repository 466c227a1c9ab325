/** The rider's own things beside the tour's choice: found, taken along, changed once for all open tours; and what a kilogram less costs. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import styled from 'styled-components'
import { api, type Owned, Problem } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { Button, FileButton, Muted, RailLine, Section } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { narrow } from '../../ui/theme'
import { ThingDialog } from './ThingDialog'

const Panel = styled.aside`
  border-left: 3px solid var(--ink);
  min-height: 0;
  overflow: auto;
  scrollbar-width: thin;
  padding: 10px 16px 20px;
  display: flex;
  flex-direction: column;
  gap: 8px;
  input[type='search'] {
    width: 100%;
    min-height: 34px;
    padding: 2px 8px;
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    background: var(--tag);
  }
  header {
    display: flex;
    align-items: baseline;
    gap: 8px;
  }
  ${narrow} {
    border-left: 0;
    border-top: 3px solid var(--ink);
    overflow: visible;
  }
`
const Lines = styled.ul`
  li {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 6px;
    min-height: 32px;
    border-bottom: 1px solid var(--hair);
    font-size: var(--size-small);
  }
  li > button:nth-of-type(1) {
    text-align: left;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    font-weight: 620;
    min-height: 32px;
    cursor: pointer;
  }
  small {
    font-size: var(--size-fine);
    color: var(--ink2);
    font-stretch: var(--width-narrow);
    white-space: nowrap;
  }
  img {
    width: 26px;
    height: 26px;
    object-fit: cover;
    border-radius: 2px;
  }
`
const CONDITION = { new: 'untried', trusted: 'trusted', worn: 'worn', near_its_end: 'near its end', repaired: 'repaired' }
const MOST_STEPS = 5
const FEW = 8

export function Library() {
  const { tour, sheet, ask } = useDesk()
  const { busy } = useWork()
  const units = useUnits()
  const queries = useQueryClient()
  const [typed, setTyped] = useState('')
  const [kit, setKit] = useState('')
  const [first, setFirst] = useState(0)
  const [editing, setEditing] = useState<Owned | null>(null)
  const [told, setTold] = useState<string[]>([])
  const [removed, setRemoved] = useState<Owned | null>(null)
  const find = useDeferredValue(typed.trim())
  const { data, error } = useQuery({
    queryKey: ['library', find, kit, first, tour.id, tour.revision],
    queryFn: () => api.library(find, kit, first, tour.id),
    placeholderData: (before) => before,
  })
  const { data: packed } = useQuery({ queryKey: ['library', 'kits'], queryFn: api.libraryKits })
  const { data: ladder } = useQuery({ queryKey: ['ladder', tour.id, tour.revision], queryFn: () => api.ladder(tour.id) })
  const things = data?.things ?? []
  const here = new Set(sheet.kit.map((t) => t.library_id))
  const atHome = things.filter((o) => !here.has(o.id))
  const again = () => queries.invalidateQueries({ queryKey: ['library'] })
  const take = (owned: Owned[], what: string) =>
    void ask(what, (id, revision) =>
      api.choose(
        id,
        revision,
        owned.map((o) => o.id),
      ),
    ).then(again)
  const told_ = async (work: Promise<unknown>) => {
    try {
      const answer = await work
      const remarks = (answer as { remarks?: string[] } | undefined)?.remarks
      if (remarks) setTold(remarks)
      await again()
      await queries.invalidateQueries({ queryKey: ['tour'] })
      return true
    } catch (trouble) {
      setTold([trouble instanceof Problem ? `${trouble.body.detail} ${trouble.body.mend ?? ''}` : 'It was not kept.'])
      return false
    }
  }
  const loose = sheet.kit.filter((t) => t.library_id === null)
  return (
    <Panel aria-label="Library">
      <header>
        <Section as="h3">Library</Section>
        <Muted as="span">{data ? `${data.total} things of your own` : 'Looking …'}</Muted>
      </header>
      <input
        type="search"
        aria-label="Find in the library"
        placeholder="Find in the library"
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value)
          setFirst(0)
        }}
      />
      {error && <Muted role="alert">{error instanceof Problem ? error.body.detail : 'The library does not answer.'}</Muted>}
      {told.map((words) => (
        <Muted key={words} role="status">
          {words}
        </Muted>
      ))}
      {removed && (
        <Button
          $small
          onPress={() => {
            void told_(api.restoreOwned(removed.id))
            setRemoved(null)
          }}
        >
          Fetch {removed.thing.name} back
        </Button>
      )}
      {data?.total === 0 && !find && (
        <Muted>
          A thing that is kept here lives once: weigh it again and every open tour knows it, and the next tour begins with it. Tours that are over
          keep what they had.
        </Muted>
      )}
      {loose.length > 0 && (
        <Button
          $small
          isDisabled={busy !== ''}
          onPress={() =>
            void ask('Keep things in the library', (id, revision) =>
              api.putInLibrary(
                id,
                revision,
                loose.map((t) => t.id),
              ),
            ).then(again)
          }
        >
          Keep the {loose.length} things of this tour here
        </Button>
      )}
      {data && data.total > 0 && (
        <>
          <RailLine>
            Left at home
            <em>{atHome.length}</em>
          </RailLine>
          <Lines>
            {atHome.map((o) => (
              <li key={o.id}>
                {o.has_picture ? <img src={`/api/library/${o.id}/picture?v=${o.version}`} alt="" /> : <span />}
                <button type="button" onClick={() => setEditing(o)}>
                  {o.thing.name}
                </button>
                <small>
                  {o.thing.held === 'wished' ? 'wished' : CONDITION[o.thing.condition]}, {units.show(o.thing.mass_kg * o.thing.count, 'mass', 2)}
                  {o.thing.last_time && `; last time: ${o.thing.last_time}`}
                </small>
                <Button $small aria-label={`Take ${o.thing.name} along`} isDisabled={busy !== ''} onPress={() => take([o], `Take ${o.thing.name}`)}>
                  +
                </Button>
              </li>
            ))}
            {!atHome.length && <Muted as="li">All of these come along.</Muted>}
          </Lines>
          {things.some((o) => here.has(o.id)) && (
            <>
              <RailLine>
                Comes along
                <em>{here.size - (here.has(null) ? 1 : 0)}</em>
              </RailLine>
              <Lines>
                {things
                  .filter((o) => here.has(o.id))
                  .slice(0, typed ? data.most : FEW)
                  .map((o) => (
                    <li key={o.id}>
                      {o.has_picture ? <img src={`/api/library/${o.id}/picture?v=${o.version}`} alt="" /> : <span />}
                      <button type="button" onClick={() => setEditing(o)}>
                        {o.thing.name}
                      </button>
                      <small>{o.tours.length > 1 ? `on ${o.tours.length} tours` : units.show(o.thing.mass_kg * o.thing.count, 'mass', 2)}</small>
                      <span />
                    </li>
                  ))}
              </Lines>
            </>
          )}
          {data.total > first + things.length || first > 0 ? (
            <div style={{ display: 'flex', gap: 6 }}>
              <Button $small isDisabled={first === 0} onPress={() => setFirst(Math.max(first - data.most, 0))}>
                Before
              </Button>
              <Button $small isDisabled={data.total <= first + things.length} onPress={() => setFirst(first + data.most)}>
                More
              </Button>
            </div>
          ) : null}
          <RailLine>
            Kits <em>a bag in a bag</em>
          </RailLine>
          <Lines>
            {(packed?.kits ?? []).map((k) => (
              <li key={k.name}>
                <span />
                <button type="button" aria-pressed={kit === k.name} onClick={() => setKit(kit === k.name ? '' : k.name)}>
                  {kit === k.name ? '▾ ' : '▸ '}
                  {k.name}
                </button>
                <small>
                  {k.things} things, {units.show(k.mass_kg, 'mass')}
                </small>
                {kit === k.name && atHome.length > 0 ? (
                  <Button $small aria-label={`Take all of ${k.name} along`} onPress={() => take(atHome, `Take the kit ${k.name}`)}>
                    + all
                  </Button>
                ) : (
                  <span />
                )}
              </li>
            ))}
          </Lines>
        </>
      )}
      {ladder && ladder.steps.length > 0 && (
        <>
          <RailLine>
            A kilogram less costs <em>{sheet.money || 'money'}</em>
          </RailLine>
          <Lines>
            {ladder.steps.slice(0, MOST_STEPS).map((step) => (
              <li key={`${step.thing_id} ${step.name}`}>
                <span />
                <span>
                  {step.name ? `${step.name} for ` : 'Leave '}
                  {sheet.kit.find((t) => t.id === step.thing_id)?.name}
                </span>
                <small>
                  {units.show(step.saves_kg, 'mass', 2)}, {units.show(step.saves_l, 'volume')}
                </small>
                <b>{step.money_a_kg === null ? `${step.money_a_litre ?? 0} a litre` : step.money_a_kg.toFixed(0)}</b>
              </li>
            ))}
          </Lines>
        </>
      )}
      {editing && (
        <ThingDialog
          thing={editing.thing}
          owned
          onClose={() => setEditing(null)}
          onKeep={(thing) => void told_(api.changeOwned(editing.id, editing.version, thing)).then((done) => done && setEditing(null))}
          onRemove={() =>
            void told_(api.removeOwned(editing.id, editing.version)).then((done) => {
              if (!done) return
              setRemoved(editing)
              setEditing(null)
            })
          }
          more={
            <div style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
              {editing.has_picture && (
                <img src={`/api/library/${editing.id}/picture?v=${editing.version}`} alt={editing.thing.name} style={{ maxHeight: 120 }} />
              )}
              <FileButton
                accept={['image/jpeg', 'image/png', 'image/webp']}
                onFile={(file) => void told_(api.keepPicture(editing.id, file)).then(() => setEditing(null))}
              >
                {editing.has_picture ? 'Another picture' : 'Add a picture'}
              </FileButton>
              {editing.has_picture && (
                <Button onPress={() => void told_(api.removePicture(editing.id, editing.version)).then(() => setEditing(null))}>
                  Take the picture away
                </Button>
              )}
              {editing.tours.length > 0 && <Muted>On {editing.tours.join(', ')}: they will say the same.</Muted>}
            </div>
          }
        />
      )}
    </Panel>
  )
}
