/** What changed the load for good, the largest first, and what scales said of it. */
import styled from 'styled-components'
import type { LoadHistory } from '../../api/client'
import { stepsByDay, weighedTogether } from '../../instruments/loadSteps'
import { Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'

const List = styled.ul`
  max-height: 252px;
  overflow: auto;
  scrollbar-width: thin;
  padding: 4px 0 0 14px;
  border-left: 1px solid var(--hair);
  li {
    display: grid;
    grid-template-columns: 52px 1fr;
    gap: 8px;
    padding: 3px 0;
    font-size: var(--size-small);
    font-stretch: var(--width-narrow);
    line-height: 16px;
  }
  b {
    font-weight: 700;
  }
`

export function LoadSteps({ history }: { history: LoadHistory }) {
  const units = useUnits()
  const weighed = weighedTogether(history)
  return (
    <List aria-label="What changed the load">
      {stepsByDay(history).map((d) => (
        <li key={d.day}>
          <Muted as="span">day {d.day}</Muted>
          <span>{d.steps.map((s) => units.say(s.words)).join(', ')}</span>
        </li>
      ))}
      {weighed.map((w) => (
        <li key={`weighed ${w.day}`}>
          <Muted as="span">day {w.day}</Muted>
          <span>
            <b>{units.show(w.kg, 'mass')}</b> on the scale
          </span>
        </li>
      ))}
    </List>
  )
}
