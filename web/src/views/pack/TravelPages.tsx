/** Travelling with the bikes: each journey with what comes off, what fits, what may not come, and when to leave. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Travel } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted, Row, Section } from '../../ui/controls'
import { Choice, Measure, SettledField } from '../../ui/fields'
import { Icon, Wedge } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { usePackPage } from './usePackPage'

const Page = styled.div`
  padding: 12px 20px 24px;
  display: grid;
  gap: 18px;
  max-width: 980px;
  ${phone} {
    padding: 10px 14px;
  }
  li {
    display: grid;
    grid-template-columns: 24px 84px 1fr;
    gap: 8px;
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
    align-items: start;
    ${phone} {
      grid-template-columns: 24px 1fr;
      em {
        grid-column: 2;
      }
    }
  }
  em {
    font-style: normal;
    font-weight: 650;
    font-stretch: var(--width-text);
  }
`
const WORDS: Record<Travel['lines'][number]['answer'], string> = {
  fits: 'fits',
  over: 'too much',
  ask: 'ask',
  not_allowed: 'not allowed',
  to_do: 'to do',
  told: '',
}
const GOES = { ridden_on: 'ridden on', rolled: 'rolled on', wheel_out: 'front wheel out', boxed: 'in a box', carried: 'carried' } as const
type Journey = NonNullable<ReturnType<typeof useDesk>['sheet']['road']['journeys']>[number]
const BY = { ferry: 'Ferry', train: 'Train', bus: 'Bus', flight: 'Flight', lift: 'Stairs or a lift' } as const

export function TravelPages() {
  const { sheet, change } = useDesk()
  const { data } = usePackPage()
  const units = useUnits()
  const [edited, setEdited] = useState<Journey | null>(null)
  const keep = (journey: Journey | null, at: number) => {
    const others = sheet.road.journeys.filter((j) => j.at_km !== at && j.at_km !== journey?.at_km)
    const journeys = (journey ? [...others, journey] : others).sort((a, b) => a.at_km - b.at_km)
    void change(journey ? `Travel by ${BY[journey.by].toLowerCase()} at km ${journey.at_km.toFixed(0)}` : 'Take a journey away', {
      road: { ...sheet.road, journeys },
    })
    setEdited(null)
  }
  const fresh = (at_km: number, by: Journey['by'] = 'train'): Journey => ({
    at_km,
    by,
    goes: null,
    departs_h: null,
    bike_most_kg: null,
    piece_most_kg: null,
    pieces: null,
    longest_mm: null,
    note: '',
  })
  if (!data) return null
  return (
    <Page>
      <Muted>{data.caution}</Muted>
      {data.travel.length === 0 && <p>Nothing of this tour is travelled without riding yet: a flight to its start, a train home, a ferry.</p>}
      {data.travel.map((t) => (
        <section key={t.at_km} aria-label={`${t.name} at km ${t.at_km.toFixed(0)}`}>
          <Actions style={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
            <Section>
              {t.name}, {units.show(t.at_km, 'distance')}, {GOES[t.goes as keyof typeof GOES]}
            </Section>
            <Button $small onPress={() => setEdited(sheet.road.journeys.find((j) => j.at_km === t.at_km) ?? fresh(t.at_km, t.by as Journey['by']))}>
              Say more of it
            </Button>
          </Actions>
          <ul>
            {t.lines.map((line, i) => (
              <li key={i}>
                {line.answer === 'fits' ? (
                  <Icon name="tick" size={16} />
                ) : line.answer === 'over' || line.answer === 'not_allowed' ? (
                  <Wedge grade="stops_you" size={16} />
                ) : line.answer === 'ask' ? (
                  <Wedge grade="slows_you" size={16} />
                ) : (
                  <span />
                )}
                <em>{WORDS[line.answer]}</em>
                <span>{units.say(line.words)}</span>
              </li>
            ))}
          </ul>
        </section>
      ))}
      <p>
        <Button onPress={() => setEdited(fresh(0))}>
          <Icon name="plus" size={16} />
          Add a journey
        </Button>
      </p>
      {edited && <JourneyDialog journey={edited} onKeep={keep} onClose={() => setEdited(null)} />}
    </Page>
  )
}

function JourneyDialog({
  journey,
  onKeep,
  onClose,
}: {
  journey: Journey
  onKeep: (journey: Journey | null, at: number) => void
  onClose: () => void
}) {
  const { sheet } = useDesk()
  const [draft, setDraft] = useState(journey)
  const set = (more: Partial<Journey>) => setDraft({ ...draft, ...more })
  const there = sheet.road.journeys.some((j) => j.at_km === journey.at_km)
  return (
    <Dialog draft title="A journey with the bikes" open onClose={onClose}>
      <Row>
        <Choice
          label="By"
          value={draft.by}
          options={Object.entries(BY).map(([id, text]) => ({ id: id as Journey['by'], text }))}
          onChange={(by) => set({ by })}
        />
        <Choice
          label="The bike goes"
          value={draft.goes ?? 'usual'}
          options={[
            { id: 'usual', text: 'as is usual' },
            ...Object.entries(GOES).map(([id, text]) => ({ id: id as NonNullable<Journey['goes']>, text })),
          ]}
          onChange={(goes) => set({ goes: goes === 'usual' ? null : goes })}
        />
        <Measure label="Gets in at" value={draft.at_km} quantity="distance" onChange={(at_km) => set({ at_km })} />
      </Row>
      <Row>
        <Clock label="Departs at" value={draft.departs_h} onChange={(departs_h) => set({ departs_h })} />
        <Measure
          label="A bike may weigh"
          value={draft.bike_most_kg}
          quantity="mass"
          onChange={(bike_most_kg) => set({ bike_most_kg })}
          onClear={() => set({ bike_most_kg: null })}
        />
        <Measure
          label="A bag may weigh"
          value={draft.piece_most_kg}
          quantity="mass"
          onChange={(piece_most_kg) => set({ piece_most_kg })}
          onClear={() => set({ piece_most_kg: null })}
        />
        <Measure
          label="Longest side"
          value={draft.longest_mm}
          quantity="length"
          onChange={(longest_mm) => set({ longest_mm })}
          onClear={() => set({ longest_mm: null })}
        />
        <Measure
          label="Bags a rider"
          value={draft.pieces}
          quantity="count"
          onChange={(pieces) => set({ pieces: Math.round(pieces) })}
          onClear={() => set({ pieces: null })}
        />
      </Row>
      <Muted>What is left empty is as usual there. Carriers and law decide: ask before you book.</Muted>
      <Actions>
        {there && <Button onPress={() => onKeep(null, journey.at_km)}>Take it away</Button>}
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted onPress={() => onKeep(draft, journey.at_km)}>
          Keep
        </Button>
      </Actions>
    </Dialog>
  )
}

const clockOf = (hours: number | null) =>
  hours === null ? '' : `${String(Math.floor(hours)).padStart(2, '0')}:${String(Math.round((hours % 1) * 60)).padStart(2, '0')}`

/** A time of the wall clock; empty: not fixed. */
function Clock({ label, value, onChange }: { label: string; value: number | null; onChange: (hours: number | null) => void }) {
  return (
    <SettledField
      label={`${label}, hh:mm`}
      value={clockOf(value)}
      optional
      onChange={(typed) => {
        const found = /^(\d{1,2})[:.](\d{2})$/.exec(typed)
        if (!typed) onChange(null)
        else if (found && Number(found[1]) < 24 && Number(found[2]) < 60) onChange(Number(found[1]) + Number(found[2]) / 60)
      }}
    />
  )
}
