/** The bike's own parts on this tour: where each is worn out, what they ask for on the way, and what could be otherwise. */
import { useState } from 'react'
import styled from 'styled-components'
import { BOUNDS } from '../../api/bounds'
import { api, type Assessment, type Bike, type OtherBike } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useWorkedOut } from '../../api/workedOut'
import { Actions, Button, Muted, Row, Section } from '../../ui/controls'
import { Dialog } from '../../ui/Dialog'
import { Choice, Measure, SettledField } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { unitOf } from '../../ui/units'

type Worn = Assessment['parts'][number]
type Told = Bike['parts'][number]

const Lines = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: var(--size-small);
  font-stretch: var(--width-text);
  th {
    text-align: left;
    vertical-align: bottom;
    font-size: var(--size-note);
    border-bottom: 2px solid var(--ink);
    padding: 3px 10px 3px 0;
  }
  td {
    border-bottom: 1px solid var(--hair);
    padding: 4px 10px 4px 0;
    vertical-align: middle;
  }
  tbody th {
    font-size: var(--size-small);
    font-weight: 640;
    vertical-align: middle;
    border-bottom: 1px solid var(--hair);
  }
  .figure {
    text-align: right;
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
  }
  .beside {
    display: flex;
    align-items: center;
    gap: 8px;
    > div {
      width: 84px;
    }
    small {
      width: 44px;
    }
  }
  ${phone} {
    &.parts thead {
      display: none;
    }
    &.parts tr {
      display: grid;
      grid-template-columns: 1fr 1fr;
      border-bottom: 1px solid var(--hair);
      padding: 6px 0;
    }
    &.parts :is(th, td) {
      border: none;
    }
    &.parts :is(th, td:nth-child(n + 4)) {
      grid-column: 1 / -1;
    }
    &.parts td[data-label]::before {
      content: attr(data-label);
      display: block;
      font-size: var(--size-note);
      color: var(--ink2);
    }
  }
  small {
    display: block;
    font-weight: 500;
    color: var(--ink2);
    font-size: var(--size-note);
  }
`
const Scroll = styled.div`
  overflow-x: auto;
`
const LUBES: { id: Bike['lube']; text: string }[] = [
  { id: 'wet', text: 'Wet oil' },
  { id: 'dry', text: 'Dry oil' },
  { id: 'wax', text: 'Wax' },
]
const CARE: Record<Assessment['care'][number]['kind'], string> = {
  oil: 'Oil the chain',
  clean: 'Brush off sand and dust',
  pressure: 'Air, by a gauge',
  look: 'Bolts and straps',
  spokes: 'Feel for loose spokes',
  renew: 'New parts',
}
const NOWHERE = 'nowhere'
/** What is behind a part is guessed no closer [km]. */
const GUESSED_TO_KM = 50

interface Props {
  bike: Bike
  onChange: (what: string, bike: Bike) => void
  onClose: () => void
}

export function PartsDialog({ bike, onChange, onClose }: Props) {
  const { assessment } = useDesk()
  const units = useUnits()
  const parts = assessment.parts.filter((p) => p.bike_id === bike.id)
  const say = (kind: Told['kind'], words: string, told: Partial<Told>) =>
    onChange(`The ${words} of ${bike.name}`, { ...bike, parts: [...bike.parts.filter((p) => p.kind !== kind), { ...saidOf(bike, kind), ...told }] })
  const tell = (worn: Worn, told: Partial<Told>) => say(worn.kind, worn.words, told)
  return (
    <Dialog title={`Parts and care of ${bike.name}`} open onClose={onClose} wide>
      <Section>What wears</Section>
      {parts.length ? (
        <Scroll tabIndex={0} role="region" aria-label="What wears">
          <Lines className="parts">
            <thead>
              <tr>
                <th scope="col">Part</th>
                <th scope="col">Behind it, {unitOf('distance', units.system)}</th>
                <th scope="col">Lasts, {unitOf('distance', units.system)}</th>
                <th scope="col">On this tour</th>
                <th scope="col">New one at</th>
              </tr>
            </thead>
            <tbody>
              {parts.map((worn) => (
                <PartRow key={worn.kind} worn={worn} said={saidOf(bike, worn.kind)} onTell={tell} />
              ))}
            </tbody>
          </Lines>
        </Scroll>
      ) : (
        <Muted>Once the tour has a road it is told here what of the bike wears out on it.</Muted>
      )}
      <Muted>
        By distance, mass, height ridden down, rain, gravel and sand; lives are common practice and wide. What is said of a part counts before the
        state of the bike. A worn chain takes the sprockets with it: measure it.
      </Muted>
      <Said bike={bike} parts={parts} onTell={say} />
      <Care bike={bike} onChange={onChange} />
      <Otherwise bike={bike} onChange={onChange} />
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  )
}

/** What is said of a part; nothing said, nothing known. */
const saidOf = (bike: Bike, kind: Told['kind']): Told =>
  bike.parts.find((p) => p.kind === kind) ?? { kind, behind_km: null, lasts_km: null, renewed_km: null, verdict: '' }

/** How far the saddle is ridden in, and what its rider thinks of a part. */
function Said({ bike, parts, onTell }: { bike: Bike; parts: Worn[]; onTell: (kind: Told['kind'], words: string, told: Partial<Told>) => void }) {
  const [kind, setKind] = useState<Told['kind']>('rear_tyre')
  const about: { id: Told['kind']; text: string }[] = [...parts.map((p) => ({ id: p.kind, text: p.words })), { id: 'saddle', text: 'saddle' }]
  const words = about.find((a) => a.id === kind)?.text ?? kind
  return (
    <Row $min={170}>
      <Measure
        label="The saddle has behind it"
        value={saidOf(bike, 'saddle').behind_km}
        quantity="distance"
        decimals={0}
        range={BOUNDS.BikePart.behind_km}
        onChange={(behind_km) => onTell('saddle', 'saddle', { behind_km })}
        onClear={() => onTell('saddle', 'saddle', { behind_km: null })}
      />
      <Choice label="Your verdict on the" value={kind} options={about} onChange={setKind} />
      <SettledField
        optional
        label={`What you think of the ${words}`}
        value={saidOf(bike, kind).verdict}
        onChange={(verdict) => onTell(kind, words, { verdict })}
      />
    </Row>
  )
}

function PartRow({ worn, said, onTell }: { worn: Worn; said: Told; onTell: (worn: Worn, told: Partial<Told>) => void }) {
  const { sheet } = useDesk()
  const units = useUnits()
  const km = unitOf('distance', units.system)
  const shops = sheet.road.stops.filter((s) => s.bike_shop === 'full')
  const at = shops.find((s) => worn.renewed_km !== null && Math.abs(s.at_km - worn.renewed_km) < 0.05)
  const places = [
    { id: NOWHERE, text: 'Nowhere' },
    ...shops.map((s) => ({ id: `${s.at_km}`, text: `${s.name}, ${units.show(s.at_km, 'distance')}` })),
    ...(worn.renewed_km !== null && !at ? [{ id: `${worn.renewed_km}`, text: units.show(worn.renewed_km, 'distance') }] : []),
  ]
  return (
    <tr>
      <th scope="row">
        {worn.words}
        <small>{said.verdict}</small>
      </th>
      <td data-label={`Behind it, ${km}`}>
        <div className="beside">
          <Measure
            label={`Behind the ${worn.words}`}
            hidden
            value={worn.said ? worn.behind_km : Math.round(worn.behind_km / GUESSED_TO_KM) * GUESSED_TO_KM}
            quantity="distance"
            decimals={0}
            range={BOUNDS.BikePart.behind_km}
            onChange={(behind_km) => onTell(worn, { behind_km })}
            onClear={() => onTell(worn, { behind_km: null })}
          />
          <small>{worn.said ? '' : 'a guess'}</small>
        </div>
      </td>
      <td data-label={`Lasts, ${km}`}>
        <div className="beside">
          <Measure
            label={`The ${worn.words} lasts`}
            hidden
            value={Math.round(worn.life_km)}
            quantity="distance"
            decimals={0}
            range={BOUNDS.BikePart.lasts_km}
            onChange={(lasts_km) => onTell(worn, { lasts_km })}
            onClear={() => onTell(worn, { lasts_km: null })}
          />
          <small>{said.lasts_km === null ? 'usual' : ''}</small>
        </div>
      </td>
      <td>
        {worn.state === 'ends' || worn.state === 'spare' ? (
          <>
            <b>{worn.ends_km !== null && `Worn out about ${units.show(worn.ends_km, 'distance')}, day ${worn.ends_day}`}</b>
            <small>{worn.state === 'spare' ? 'a spare is on board' : worn.sold_at ? '' : 'nothing on the way there sells one'}</small>
          </>
        ) : (
          <>
            {worn.state === 'renewed' ? 'Lasts, renewed on the way' : 'Lasts'}
            <small>takes {units.show(worn.takes_km, 'distance')} of it</small>
          </>
        )}
      </td>
      <td data-label="New one at">
        <Choice
          label={`A new ${worn.words} goes on at`}
          hidden
          value={worn.renewed_km === null ? NOWHERE : `${at?.at_km ?? worn.renewed_km}`}
          options={places}
          onChange={(v) => onTell(worn, { renewed_km: v === NOWHERE ? null : Number(v) })}
        />
      </td>
    </tr>
  )
}

/** What the bike asks for on the way: on which days, and why. */
function Care({ bike, onChange }: Omit<Props, 'onClose'>) {
  const { assessment } = useDesk()
  const units = useUnits()
  const mine = assessment.care.filter((task) => task.bike_ids.includes(bike.id))
  const kinds = [...new Set(mine.map((task) => task.kind))]
  return (
    <>
      <Section>What it asks for on the way</Section>
      <Choice label="Chain oil" value={bike.lube} options={LUBES} onChange={(lube) => onChange(`Chain oil of ${bike.name}`, { ...bike, lube })} />
      {kinds.length ? (
        <Lines>
          <tbody>
            {kinds.map((kind) => {
              const tasks = mine.filter((task) => task.kind === kind)
              return (
                <tr key={kind}>
                  <th scope="row">
                    {CARE[kind]}
                    <small>{tasks[0] && units.say(tasks[0].because)}</small>
                  </th>
                  <td>
                    {tasks.length > 1 ? 'Evenings of days ' : 'Evening of day '}
                    {tasks.map((task) => task.day).join(', ')}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </Lines>
      ) : (
        <Muted>Nothing yet.</Muted>
      )}
      <Muted>The diary says each evening what is due, and counts from what was noted. After a wet day oil at once, whatever stands here.</Muted>
    </>
  )
}

const ABOUT: Record<OtherBike['about'], string> = { tyres: 'Tyres', posture: 'Wind and posture', contact: 'Hands, seat and feet' }

/** What could be otherwise, each with what speaks for and against it and its price on this road. */
function Otherwise({ bike, onChange }: Omit<Props, 'onClose'>) {
  const [wanted, setWanted] = useState(false)
  const units = useUnits()
  const { data, error } = useWorkedOut('choices', (id, signal) => api.choices(id, bike.id, signal), { about: [bike.id], wanted, meanwhile: true })
  if (!wanted)
    return (
      <>
        <Section>What could be otherwise</Section>
        <Button onPress={() => setWanted(true)}>Ride this road on other tyres, bars, saddles and pedals</Button>
      </>
    )
  return (
    <>
      <Section>What could be otherwise</Section>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Muted role="status">Riding the road again …</Muted>}
      {data && (
        <Scroll tabIndex={0} role="region" aria-label="What could be otherwise">
          <Lines>
            {(Object.keys(ABOUT) as OtherBike['about'][]).map((about) => (
              <tbody key={about}>
                <tr>
                  <th scope="rowgroup">{ABOUT[about]}</th>
                  <td className="figure">minutes a day</td>
                  <td className="figure">more mass</td>
                  <td />
                </tr>
                {data.choices
                  .filter((c) => c.about === about)
                  .map((c) => (
                    <tr key={c.id}>
                      <td>
                        {units.say(c.words)}
                        <small>
                          For: {c.speaks_for}. Against: {c.against}.
                        </small>
                      </td>
                      <td className="figure">
                        {c.minutes_a_day === null ? 'no road yet' : signed(c.minutes_a_day, Math.abs(c.minutes_a_day).toFixed(1))}
                      </td>
                      <td className="figure">{signed(c.kg, units.show(Math.abs(c.kg), 'mass', 2))}</td>
                      <td>
                        {c.bike && (
                          <Button $small onPress={() => c.bike && onChange(`${units.say(c.words)} on ${bike.name}`, c.bike)}>
                            Take it
                          </Button>
                        )}
                      </td>
                    </tr>
                  ))}
              </tbody>
            ))}
          </Lines>
        </Scroll>
      )}
      <Muted>
        Of the whole party, on the same days; where another rider is the slower one it costs nothing. Masses and effects are common practice.
      </Muted>
    </>
  )
}

const signed = (v: number, words: string) => (/[1-9]/.test(words) ? `${v > 0 ? '+' : '−'}${words}` : words)
