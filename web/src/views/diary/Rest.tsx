/** The rest of the tour as it stands now: how long, what bites, and the money so far. */
import styled from 'styled-components'
import type { Now } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Muted, RailLine } from '../../ui/controls'
import { fullDate } from '../../ui/dates'
import { Icon, Wedge } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'

const Bites = styled.ul`
  li {
    display: flex;
    gap: 8px;
    padding: 6px 0;
    border-bottom: 1px solid var(--hair);
  }
  svg {
    flex: none;
  }
  b {
    font-weight: 620;
  }
`
const SHOWN = 7

export function Rest({ now }: { now: Now }) {
  const { sheet } = useDesk()
  const units = useUnits()
  return (
    <aside aria-label="The rest of the tour">
      <RailLine style={{ marginTop: 8 }}>
        <Icon name="riding" size={17} />
        The rest
        <em>{now.over ? 'ridden' : `${now.days_left} days, to ${fullDate(now.end_date)}`}</em>
      </RailLine>
      <Bites>
        {now.findings.slice(0, SHOWN).map((f) => (
          <li key={f.id}>
            <Wedge grade={f.grade} size={18} />
            <span>
              <b>{units.say(f.sentence)}</b>
              <Muted>{units.say(f.place)}</Muted>
            </span>
          </li>
        ))}
      </Bites>
      {now.findings.length === 0 && (
        <Muted>{now.over ? 'Unpack by the cards while use is remembered: the debrief waits.' : 'Nothing found for what is left.'}</Muted>
      )}
      {now.findings.length > SHOWN && <Muted>{now.findings.length - SHOWN} more.</Muted>}
      {now.spent.length > 0 && (
        <>
          <RailLine style={{ marginTop: 14 }}>
            <Icon name="stores" size={17} />
            Money
            <em>
              {Math.round(now.spent.reduce((s, m) => s + m.money, 0))} {sheet.money}
            </em>
          </RailLine>
          <ul>
            {now.spent.map((m) => (
              <li key={m.what} style={{ display: 'flex', justifyContent: 'space-between', padding: '3px 0' }}>
                <span>{m.what.replaceAll('_', ' ')}</span>
                <span>
                  {m.money} {sheet.money}, {m.a_day} a day
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </aside>
  )
}
