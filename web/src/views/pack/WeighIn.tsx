/** The weigh-in: what is put on the scale, its live reading, three readings and their median, and the parts against the scale. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'
import { api, type WeighLine } from '../../api/client'
import { useDesk } from '../../api/tour'
import { note } from '../../offline/queue'
import { useAuthor } from '../../offline/useAuthor'
import { Button, Muted, RailLine, Section } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { Icon } from '../../ui/icons'
import { boxLook, TickBox } from '../../ui/TickBox'
import { useUnits } from '../../ui/preferences'
import { narrow, phone } from '../../ui/theme'
import { MissingKilo } from './MissingKilo'
import { LiveBoard, ReadingTrace, ScaleDrawing } from './ScaleDrawing'
import { useScale } from './useScale'

const Grid = styled.div`
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr) 320px;
  gap: 22px;
  padding: 10px 20px 24px;
  ${narrow} {
    grid-template-columns: 1fr;
  }
  ${phone} {
    padding: 10px 14px;
    > :nth-child(2) {
      order: -1;
    }
  }
`
const What = styled.button`
  display: grid;
  grid-template-columns: 26px 1fr auto;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 40px;
  padding: 4px;
  border-bottom: 1px solid var(--hair);
  font-weight: 600;
  font-stretch: var(--width-text);
  em {
    font-style: normal;
    font-weight: 500;
    font-size: var(--size-note);
    color: var(--ink2);
    font-stretch: var(--width-narrow);
  }
  i {
    ${boxLook}
  }
  &[aria-current='true'] {
    background: var(--ink);
    color: var(--tag);
    em {
      color: var(--tag);
    }
    i {
      color: var(--ink);
    }
  }
`
const Deeds = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
  > :first-child {
    flex: 1 1 220px;
  }
`
const Figures = styled.table`
  width: 100%;
  font-size: var(--size-small);
  font-stretch: var(--width-narrow);
  td,
  th {
    padding: 4px 6px 4px 0;
    border-bottom: 1px solid var(--hair);
    text-align: left;
    font-weight: 500;
  }
  th[scope='row'] {
    font-weight: 620;
  }
  td {
    text-align: right;
    white-space: nowrap;
  }
`

/** So many readings are taken; the middle one counts. */
const READINGS = 3
const TOLD: Record<WeighLine['told'], string> = {
  not_weighed: '',
  same: 'as reckoned',
  within_guesses: 'within the guesses',
  to_explain: 'to explain',
}
const OF_A_BIKE = ['rear_wheel', 'front_wheel', 'trailer_wheel', 'hitch', 'whole']
const OF_THE_RIDER = ['rider_without', 'rider_with', 'front_ridden', 'rear_ridden']
const WHEELS = ['front_wheel', 'rear_wheel', 'front_ridden', 'rear_ridden']

const median = (of: number[]) => {
  const sorted = [...of].sort((a, b) => a - b)
  const half = Math.floor(sorted.length / 2)
  return sorted.length % 2 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2
}

export function WeighIn() {
  const { tour, sheet, ask } = useDesk()
  const units = useUnits()
  const [author] = useAuthor()
  const { scale, now, past, taken, armed, take, begin } = useScale()
  const key = ['weigh', tour.id, tour.revision]
  const { data } = useQuery({ queryKey: key, queryFn: () => api.weighings(tour.id), placeholderData: (before) => before })
  const [bikeId, setBike] = useState(sheet.rig.bikes[0]?.id ?? '')
  const [chosen, setChosen] = useState<string | null>(null)
  const [thing, setThing] = useState('')
  const [board, setBoard] = useState(true)
  const [raised, setRaised] = useState(60)
  const [dry, setDry] = useState(false)
  const [trouble, setTrouble] = useState('')

  const bike = sheet.rig.bikes.find((b) => b.id === bikeId) ?? sheet.rig.bikes[0]
  const lines = data?.lines ?? []
  const bags = new Set(bike?.carriers.map((c) => c.id))
  const mine = lines.filter((l) => l.about === bike?.id || (l.weighed === 'bag' && bags.has(l.about)))
  const line = lines.find((l) => l.key === chosen) ?? mine.find((l) => l.weighed === 'rear_wheel')
  const current = thing ? `thing/${thing}` : (line?.key ?? '')
  const name = thing ? (sheet.kit.find((t) => t.id === thing)?.name ?? '') : (line?.name ?? '')
  const weighed = current.split('/')[0] ?? ''
  const wheel = WHEELS.includes(weighed) ? (weighed.startsWith('front') ? ('front' as const) : ('rear' as const)) : null

  const choose = (next: string) => {
    setChosen(next)
    setThing('')
    begin()
  }
  const put = (body: Parameters<typeof api.askScale>[1]) =>
    void api.askScale(tour.id, body).then(
      () => setTrouble(''),
      (e: unknown) => setTrouble(e instanceof Error ? e.message : String(e)),
    )
  const keep = async (readings: number[]) => {
    await note(tour.id, {
      verb: 'weighed',
      about: current.split('/')[1] ?? '',
      word: weighed,
      amount: Math.round(median(readings) * 1000) / 1000,
      readings_kg: readings,
      raised_mm: wheel && !board ? raised : 0,
      name: dry && !thing ? 'dry' : '',
      kg: thing ? (sheet.kit.find((t) => t.id === thing)?.mass_kg ?? null) : null,
      author,
    })
    begin()
  }
  const row = (l: WeighLine) => (
    <What key={l.key} type="button" aria-current={l.key === current} onClick={() => choose(l.key)}>
      <i>{l.scale_kg !== null && <Icon name="tick" size={15} />}</i>
      {l.name}
      <em>{l.scale_kg === null ? `${units.show(l.parts_kg, 'mass', 1)} in parts` : units.show(l.scale_kg, 'mass', 2)}</em>
    </What>
  )
  if (!bike || !data) return <Muted style={{ padding: 20 }}>A bike and what rides on it come first: then each wheel and bag can be weighed.</Muted>
  const ofBike = mine.filter((l) => OF_A_BIKE.includes(l.weighed))
  const things = lines.filter((l) => l.weighed === 'thing')
  const seat = data.seats.find((s) => s.bike_id === bike.id)
  const canTake = (l: WeighLine) => l.scale_kg !== null && (l.weighed === 'thing' || (l.weighed === 'bag' && l.told !== 'same'))
  return (
    <Grid>
      <nav aria-label="What is weighed">
        {sheet.rig.bikes.length > 1 && (
          <Choice
            label="Bike"
            value={bike.id}
            options={sheet.rig.bikes.map((b) => ({ id: b.id, text: b.name }))}
            onChange={(id) => {
              setBike(id)
              setChosen(null)
              setThing('')
              begin()
            }}
          />
        )}
        <RailLine style={{ marginTop: 8 }}>
          <Icon name="load" size={17} />
          Wheel by wheel
          <em>rider off</em>
        </RailLine>
        {ofBike.map(row)}
        <Fold summary="Bags on the hanging scale" open={weighed === 'bag'}>
          {mine.filter((l) => l.weighed === 'bag').map(row)}
        </Fold>
        <Fold summary="Rider with bags, less the rider" open={OF_THE_RIDER.includes(weighed)}>
          {mine.filter((l) => OF_THE_RIDER.includes(l.weighed)).map(row)}
        </Fold>
        <Fold summary={`Things on the kitchen scale: ${things.length} weighed`} open={weighed === 'thing'}>
          <Choice
            label="Thing"
            value={thing || 'none'}
            options={[
              { id: 'none', text: 'Choose a thing' },
              ...sheet.kit.map((t) => ({ id: t.id, text: `${t.name}${t.guessed.includes('mass') ? ' (guess)' : ''}` })),
            ]}
            onChange={(id) => {
              setThing(id === 'none' ? '' : id)
              begin()
            }}
          />
        </Fold>
        <RailLine style={{ marginTop: 14 }}>
          <Icon name="tick" size={17} />
          Before you read it
        </RailLine>
        {wheel && (
          <>
            <TickBox isSelected={board} onChange={setBoard}>
              Other wheel on a board as high
            </TickBox>
            {!board && (
              <>
                <Measure label="The scale is higher by" value={raised} quantity="length" onChange={setRaised} range={[-500, 500]} />
                <Muted>
                  Without a board a wheel reads too little: about {units.show(data.board_matters_kg[bike.id] ?? 0, 'mass', 2)} at 60 mm. It is added.
                </Muted>
              </>
            )}
            <Muted>Tyres at pressure, bars straight, bike upright, hands off.</Muted>
          </>
        )}
        {!thing && !OF_THE_RIDER.includes(weighed) && (
          <TickBox isSelected={dry} onChange={setDry}>
            Without water and food
          </TickBox>
        )}
        <RailLine style={{ marginTop: 14 }}>
          <Icon name="pack" size={17} />
          Zones
          <em>as reckoned; dry in brackets</em>
        </RailLine>
        <Figures>
          <tbody>
            {data.zones
              .filter((z) => z.bike_id === bike.id)
              .map((z) => (
                <tr key={z.name}>
                  <th scope="row">{z.name}</th>
                  <td>
                    {units.show(z.kg, 'mass')} ({units.show(z.dry_kg, 'mass')})
                  </td>
                </tr>
              ))}
          </tbody>
        </Figures>
      </nav>
      <div>
        <Section as="h2">{name} on the scale</Section>
        <Muted>
          {scale
            ? `${scale.name === 'simulated' ? 'Simulated scale' : scale.name}, to ${units.show(scale.most_kg, 'mass', 0)} in steps of ${units.show(scale.step_kg, 'mass', 2)}.`
            : 'Looking for the scale.'}{' '}
          Three readings, the middle one counts.
        </Muted>
        <ScaleDrawing
          bike={bike}
          wheel={wheel}
          board={board}
          rear={ofBike.find((l) => l.weighed === 'rear_wheel')}
          front={ofBike.find((l) => l.weighed === 'front_wheel')}
        />
        <div style={{ display: 'flex', justifyContent: 'center', marginTop: 6 }}>
          <LiveBoard name={`${name}, now`} now={now} />
        </div>
        <ReadingTrace past={past} taken={taken} band={scale?.band_kg ?? 0} />
        {trouble && (
          <p role="alert">
            <b>{trouble}</b>
          </p>
        )}
        <Deeds>
          {taken.length < READINGS ? (
            <Button $wanted isDisabled={armed || now?.state === 'none'} onPress={() => take()}>
              {armed ? 'Taken as soon as it is still' : `Take reading ${taken.length + 1} of ${READINGS} when it is still`}
            </Button>
          ) : (
            <Button $wanted onPress={() => void keep(taken.map((t) => t.kg))}>
              Keep {units.show(median(taken.map((t) => t.kg)), 'mass', 2)}, the middle of {taken.map((t) => units.figure(t.kg, 'mass', 2)).join(', ')}
            </Button>
          )}
          {taken.length > 0 && <Button onPress={() => begin()}>Read anew</Button>}
          <Button onPress={() => put({ zero: true })}>Zero</Button>
        </Deeds>
        {scale?.name === 'simulated' && (
          <Deeds aria-label="Simulated scale">
            <Button onPress={() => put({ key: current })}>Put it on</Button>
            <Button onPress={() => put({ kg: 0 })}>Take it off</Button>
          </Deeds>
        )}
        <Fold summary="Type it instead">
          <Measure label={`${name} by your own scale`} value={null} quantity="mass" decimals={2} onChange={(kg) => void keep([kg])} />
        </Fold>
      </div>
      <div>
        <RailLine>
          <Icon name="stores" size={17} />
          Parts against the scale
        </RailLine>
        <Figures>
          <tbody>
            {[...mine, ...things]
              .filter((l) => l.scale_kg !== null)
              .map((l) => (
                <tr key={l.key}>
                  <th scope="row">
                    {l.name}
                    <Muted as="span" style={{ display: 'block' }}>
                      {units.figure(l.parts_kg, 'mass', 2)} in parts, {units.show(l.scale_kg ?? 0, 'mass', 2)} on the scale
                      {l.dry ? ', dry' : ''}
                      {l.at ? `, ${new Date(l.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}` : ''}
                      {l.earlier.map((e) => `; before ${units.show(e.kg, 'mass', 2)}${e.at ? '' : ' in the plan'}`).join('')}
                    </Muted>
                  </th>
                  <td>
                    {(l.difference_kg ?? 0) > 0 ? '+' : ''}
                    {units.show(l.difference_kg ?? 0, 'mass', 2)}
                    <Muted>{TOLD[l.told]}</Muted>
                    {canTake(l) && (
                      <Button $small onPress={() => void ask(`Weighed: ${l.name}`, (id, revision) => api.takeMeasured(id, revision, l.key))}>
                        Take it
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
          </tbody>
        </Figures>
        {![...mine, ...things].some((l) => l.scale_kg !== null) && <Muted>Nothing of this bike is weighed yet. Begin with the rear wheel.</Muted>}
        {data.missing
          .filter((m) => m.bike_id === bike.id)
          .map((m) => (
            <div key={m.bike_id} style={{ marginTop: 14 }}>
              <MissingKilo missing={m} />
            </div>
          ))}
        {seat && (
          <section aria-label="Where the rider sits" style={{ marginTop: 14 }}>
            <RailLine>
              <Icon name="rider" size={17} />
              Where the rider sits
            </RailLine>
            <p>
              {units.show(seat.rider_kg, 'mass')}, {units.show(seat.ahead_mm, 'length', 0)} ahead of the rear wheel; reckoned were{' '}
              {units.show(seat.reckoned_mm, 'length', 0)}.
            </p>
            <Button
              $small
              onPress={() => void ask('Weighed: where the rider sits', (id, revision) => api.takeMeasured(id, revision, `seat/${seat.bike_id}`))}
            >
              Take it
            </Button>
          </section>
        )}
      </div>
    </Grid>
  )
}
