/** The kit: rails by moment of use; things typed, changed, brought from a sheet. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Reach, Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { minutesWords, TagBody } from '../../instruments/Tag'
import { carrierEntries } from '../../instruments/loadEdits'
import { Button, Muted, RailLine, Section } from '../../ui/controls'
import { Icon, REACH_WORDS } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { narrow, phone } from '../../ui/theme'
import { BringKit } from './BringKit'
import { ThingDialog } from './ThingDialog'
import { whereWords } from './WhereFields'

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 12px 20px 28px;
  ${phone} {
    padding: 12px 14px;
  }
`
const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 10px;
  flex-wrap: wrap;
  input {
    min-height: 32px;
    padding: 2px 8px;
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    background: var(--tag);
    width: 220px;
  }
  .grow {
    flex: 1;
  }
`
const Rails = styled.div`
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: 16px;
  align-items: start;
  ${narrow} {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  ${phone} {
    grid-template-columns: 1fr;
  }
`
const EXAMPLES: Record<Reach, string> = {
  riding: 'what must your hand find while riding? Snacks, a bottle, the camera.',
  stop: 'what comes out at a stop? Rain wear, tools, first aid.',
  camp: 'what comes out on arrival? The tent first, then the stove.',
  night: 'what do you sleep in and on?',
  breaks: 'what only if something breaks? Spokes, a tyre.',
}

export function KitView() {
  const { sheet, change, assessment } = useDesk()
  const units = useUnits()
  const [query, setQuery] = useState('')
  const [editing, setEditing] = useState<Thing | 'new' | null>(null)
  const [bringing, setBringing] = useState(false)
  const entries = carrierEntries(sheet)
  const matches = (t: Thing) => !query || `${t.name} ${t.group} ${t.because}`.toLowerCase().includes(query.toLowerCase())
  const mass = sheet.kit.reduce((sum, t) => sum + t.mass_kg * t.count, 0)
  const litres = sheet.kit.reduce((sum, t) => sum + t.volume_l * t.count, 0)
  const whereOf = (t: Thing) => {
    const told = whereWords(t.where, (km) => units.show(km, 'distance'))
    if (t.where.length && !t.where.some((w) => w.how === 'packed') && (t.where[0]?.from_km ?? 0) === 0) return told
    const at = [
      ...new Set(sheet.load.placements.filter((p) => p.thing_id === t.id).map((p) => entries.find((e) => e.id === p.carrier_id)?.label ?? '')),
    ]
    return [at.length ? at.join(', ') : 'on the shelf', told].filter(Boolean).join('; ')
  }
  const keep = (thing: Thing) => {
    const others = sheet.kit.filter((t) => t.id !== thing.id)
    const at = sheet.kit.findIndex((t) => t.id === thing.id)
    const kit = at < 0 ? [...sheet.kit, thing] : [...others.slice(0, at), thing, ...others.slice(at)]
    void change(`${at < 0 ? 'Add' : 'Change'} ${thing.name}`.slice(0, 200), { kit })
    setEditing(null)
  }
  return (
    <Page>
      <Head>
        <Section>Kit</Section>
        <Muted as="span">
          {sheet.kit.length} kinds of things, {units.show(mass, 'mass')}, {units.show(litres, 'volume', 0)}
          {minutesWords(assessment.road ? Object.values(assessment.minutes_a_day).reduce((s, m) => s + m, 0) : undefined)}
        </Muted>
        <span className="grow" />
        <input
          type="search"
          id="find"
          aria-label="Find a thing"
          placeholder="Find a thing"
          value={query}
          onChange={(e) => setQuery(e.target.value)}
        />
        <Button $small onPress={() => setBringing(true)}>
          Bring a list
        </Button>
        <Button $small $wanted onPress={() => setEditing('new')}>
          <Icon name="plus" size={14} />
          Add a thing
        </Button>
      </Head>
      <Rails>
        {(Object.keys(REACH_WORDS) as Reach[]).map((reach) => {
          const things = sheet.kit.filter((t) => t.reach === reach && matches(t))
          return (
            <section key={reach} aria-label={REACH_WORDS[reach]}>
              <RailLine>
                <Icon name={reach} size={17} />
                {REACH_WORDS[reach]}
                <em>
                  {units.show(
                    things.reduce((s, t) => s + t.mass_kg * t.count, 0),
                    'mass',
                  )}
                </em>
              </RailLine>
              {things.map((t) => (
                <TagBody key={t.id} type="button" onClick={() => setEditing(t)} data-thing={t.id}>
                  <span>
                    <b>
                      {t.count > 1 ? `${t.count} × ` : ''}
                      {t.name}
                    </b>
                    <small>
                      {t.guessed.includes('mass') ? '~' : ''}
                      <em>{units.show(t.mass_kg * t.count, 'mass')}</em>, {t.guessed.includes('volume') ? '~' : ''}
                      <em>{units.show(t.volume_l * t.count, 'volume')}</em>
                      {minutesWords(assessment.minutes_a_day[t.id])}
                    </small>
                    <small>{whereOf(t)}</small>
                    {t.because ? (
                      <small className="reason">It comes because: {t.because}</small>
                    ) : (
                      t.mass_kg * t.count > 1 && <small>Why does it come?</small>
                    )}
                  </span>
                </TagBody>
              ))}
              {!things.length && <Muted style={{ padding: '6px 0' }}>{EXAMPLES[reach]}</Muted>}
            </section>
          )
        })}
      </Rails>
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
    </Page>
  )
}
