/** What rides on the bikes by what was noted, what does not go together, and the entries themselves. */
import { LoadHistory } from '../../instruments/LoadHistory'
import { Muted, RailLine } from '../../ui/controls'
import { Icon, Wedge } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { Entries } from './Entries'
import { AT_HOME, type Today } from './useToday'

/** `drawn`: the history of the load is drawn elsewhere. */
export function Noted({ today: { diary, now, road }, drawn }: { today: Today; drawn: boolean }) {
  const units = useUnits()
  return (
    <section aria-label="What was noted">
      {road && (
        <>
          <RailLine style={{ marginTop: 8 }}>
            <Icon name="load" size={17} />
            On the bikes
            <em>
              {units.show(now.history.start_kg, 'mass')} at the start, {units.show(now.history.now_kg, 'mass')} now
            </em>
          </RailLine>
          {!drawn && <LoadHistory history={now.history} days={now.days.length} today={now.day} />}
          <Muted>Dashed as planned, filled as ridden, diamonds are weighings. What is not noted went as planned.</Muted>
        </>
      )}
      {now.doubts.length > 0 && (
        <ul aria-label="Does not go together" style={{ marginTop: 8 }}>
          {now.doubts.map((d) => (
            <li key={d.kind + d.entry_ids.join()} style={{ display: 'flex', gap: 8, padding: '4px 0' }}>
              <Wedge grade="worth_knowing" size={16} />
              <span>{units.say(d.words)}</span>
            </li>
          ))}
        </ul>
      )}
      <Entries entries={diary.entries.filter((one) => !AT_HOME.includes(one.entry.verb))} onUndo={(one) => void diary.undo(one.entry)} />
    </section>
  )
}
