/** What to take, leave and replace next time, handed on to the library; bags and rules judged; what was learned. */
import styled from 'styled-components'
import { api } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Button, Muted, RailLine } from '../../ui/controls'
import { Choice, SettledField } from '../../ui/fields'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import type { Debriefing } from './useDebrief'
import { OF_BAGS, OF_RULES } from './verdicts'

const NextLines = styled.ul`
  li {
    display: grid;
    grid-template-columns: 74px 1fr auto;
    gap: 10px;
    padding: 7px 0;
    border-bottom: 1px solid var(--hair);
  }
  b {
    font-stretch: 112%;
    font-weight: 750;
  }
`
const DEEDS = { leave: 'Leave', post: 'Post', replace: 'Replace', take: 'Take' } as const

const RULES = { nights: 'Nights', clothes: 'Clothes', water: 'Water', food: 'Food', fuel: 'Fuel', packing: 'Packing' }

export function NextTime({ debrief: { told, target, tell, judge, verdictOf } }: { debrief: Debriefing }) {
  const { tour, sheet, change } = useDesk()
  const units = useUnits()
  const bags = sheet.rig.bikes.flatMap((b) => b.carriers).filter((c) => told.stories.some((s) => s.bag === c.name))
  return (
    <section aria-label="For next time">
      <RailLine>
        <Icon name="kit" size={17} />
        For next time
        <em>
          {units.show(told.kg, 'mass')}, {units.show(told.litres, 'volume')}, {units.show(told.minutes_a_day, 'minutes')} a day less
        </em>
      </RailLine>
      <NextLines>
        {told.next_time.map((line) => (
          <li key={line.deed}>
            <b>{DEEDS[line.deed]}</b>
            <span>{line.names.join(', ')}</span>
            <span>
              {line.kg > 0 ? '+' : ''}
              {units.show(line.kg, 'mass')}
            </span>
          </li>
        ))}
      </NextLines>
      {told.next_time.length === 0 && <Muted>Nothing yet: say of each thing how it did.</Muted>}
      <p style={{ margin: '10px 0' }}>
        <Button $wanted onPress={() => void tell(() => api.handOn(tour.id))}>
          Hand it to the library{target ? ` and ${target.name}` : ''}
        </Button>
      </p>
      <Muted>The tour is then over. Its things say at the next choice what this tour taught; nothing leaves a tour by itself.</Muted>
      <RailLine style={{ marginTop: 14 }}>
        <Icon name="pack" size={17} />
        Bags
      </RailLine>
      {bags.map((bag) => (
        <Judged key={bag.id} name={bag.name} value={verdictOf(bag.id)} options={OF_BAGS} onChange={(word) => judge(bag.id, word)} />
      ))}
      <RailLine style={{ marginTop: 14 }}>
        <Icon name="tick" size={17} />
        Rules
      </RailLine>
      {Object.entries(RULES).map(([about, name]) => (
        <Judged key={about} name={name} value={verdictOf(about)} options={OF_RULES} onChange={(word) => judge(about, word)} />
      ))}
      <RailLine style={{ marginTop: 14 }}>
        <Icon name="rider" size={17} />
        Where it hurt
      </RailLine>
      {told.aches.map((ache) => (
        <p key={ache.where} style={{ padding: '3px 0' }}>
          <b>{ache.where}</b>: {ache.days.length} {ache.days.length === 1 ? 'day' : 'days'}
          {ache.after_h !== null && `, after some ${units.show(ache.after_h, 'hours')}`}.
          {ache.changed.map((one) => ` Day ${one.day}: ${one.what} changed.`)}
          {ache.better !== null && (ache.better ? ' It got better.' : ' It got no better.')}
        </p>
      ))}
      {!told.aches.length && <Muted>Nothing was noted under Hurt.</Muted>}
      <RailLine style={{ marginTop: 14 }}>
        <Icon name="riding" size={17} />
        The bikes on the way
      </RailLine>
      {told.bikes.map((bike) => (
        <p key={bike.bike_id} style={{ padding: '3px 0' }}>
          <b>{bike.name}</b>
          {bike.marks.map((mark, k) => (
            <span key={k}>
              {k ? '; ' : ': '}
              day {mark.day}, {units.show(mark.km, 'distance')}, {units.say(mark.words)}
            </span>
          ))}
          .
        </p>
      ))}
      {!told.bikes.length && <Muted>No new part, no change and no weighing was noted.</Muted>}
      <RailLine style={{ marginTop: 14 }}>
        <Icon name="tick" size={17} />
        To yourself
      </RailLine>
      <SettledField
        optional
        label="One sentence for the next tour"
        value={sheet.to_self}
        onChange={(to_self) => void change('A sentence to yourself', { to_self })}
      />
      <Muted>It stands first where the next tour is begun.</Muted>
      {told.lessons.length > 0 && (
        <ul style={{ marginTop: 8 }}>
          {told.lessons.map((l) => (
            <li key={l.about} style={{ padding: '3px 0' }}>
              {units.say(l.words)}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}

const Judge = styled.div`
  display: grid;
  grid-template-columns: 1fr 190px;
  align-items: center;
  gap: 10px;
  padding: 3px 0;
`

function Judged({
  name,
  value,
  options,
  onChange,
}: {
  name: string
  value: string
  options: Record<string, string>
  onChange: (word: string) => void
}) {
  return (
    <Judge>
      <span>{name}</span>
      <Choice
        label={`Verdict on ${name}`}
        hidden
        value={value in options ? value : 'none'}
        options={[{ id: 'none', text: 'Not said' }, ...Object.entries(options).map(([id, text]) => ({ id, text }))]}
        onChange={(word) => word !== 'none' && onChange(word)}
      />
    </Judge>
  )
}
