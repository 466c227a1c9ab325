/** How seldom something may go wrong: once in so many tours like this. */
import styled from 'styled-components'
import { Button } from '../../ui/controls'
import { Dot } from '../../ui/icons'

const ONCE_IN = [5, 20, 100]

const Chosen = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  padding-bottom: 4px;
`

export function OnceIn({ what, once, onChoose }: { what: string; once: number | null; onChoose: (once: number) => void }) {
  return (
    <Chosen role="group" aria-label={`How seldom: ${what}`}>
      {what} once in
      {ONCE_IN.map((n) => (
        <Button key={n} $small aria-pressed={once === n} onPress={() => onChoose(n)}>
          <Dot on={once === n} />
          {n} tours
        </Button>
      ))}
    </Chosen>
  )
}
