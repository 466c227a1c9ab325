/** News, trouble and long work, said where they cannot be missed. */
import type { ReactNode } from 'react'
import * as Aria from 'react-aria-components'
import styled from 'styled-components'
import { Button } from './controls'

const Strip = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 20px;
  background: var(--tag);
  border-bottom: 2px solid var(--ink);
  p {
    flex: 1;
  }
`

/** Trouble, or news: what happened, what is safe, what to do. It stays until it is answered. */
export function Notice({
  children,
  onClose,
  action,
  urgent,
}: {
  children: ReactNode
  onClose?: () => void
  action?: { text: string; run: () => void }
  urgent?: boolean
}) {
  return (
    <Strip role={urgent ? 'alert' : 'status'} className="no-print">
      <p>{children}</p>
      {action && (
        <Button $small $wanted onPress={action.run}>
          {action.text}
        </Button>
      )}
      {onClose && (
        <Button $small onPress={onClose}>
          Close
        </Button>
      )}
    </Strip>
  )
}

export const Gauge = styled(Aria.ProgressBar)`
  flex: 1;
  display: flex;
  align-items: center;
  gap: 12px;
  font-weight: 600;
  font-stretch: var(--width-text);
  > div {
    flex: 1;
    max-width: 340px;
    height: 10px;
    border: 1.5px solid var(--ink);
    border-radius: 3px;
    overflow: hidden;
  }
  > div > div {
    height: 100%;
    background: var(--ink);
  }
`

/** How far long work is. */
export function HowFar({ what, share }: { what: string; share: number | null }) {
  return (
    <Gauge aria-label={what} value={(share ?? 0) * 100} isIndeterminate={share === null}>
      {({ percentage, valueText }) => (
        <>
          <span>{what} …</span>
          <div>
            <div style={{ width: `${percentage ?? 0}%` }} />
          </div>
          <span>{share === null ? '' : valueText}</span>
        </>
      )}
    </Gauge>
  )
}

/** Long work, how far it is, and a button to call it off. */
export function UnderWay({
  what,
  share,
  onCancel,
  cancelText = 'Cancel',
}: {
  what: string
  share: number | null
  onCancel: () => void
  cancelText?: string
}) {
  return (
    <Strip className="no-print">
      <HowFar what={what} share={share} />
      <Button $small onPress={onCancel}>
        {cancelText}
      </Button>
    </Strip>
  )
}

/** Holds the place of what is still on its way. */
export const Loading = styled.p.attrs({ role: 'status', children: 'One moment …' })`
  flex: 1;
  display: grid;
  place-content: center;
  color: var(--ink2);
  opacity: 0;
  animation: appear 0.2s 0.3s forwards;
  @keyframes appear {
    to {
      opacity: 1;
    }
  }
`
