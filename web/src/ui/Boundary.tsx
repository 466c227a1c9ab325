/** Keeps the rest of the page alive where one part of it cannot be drawn. */
import type { ReactNode } from 'react'
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary'
import styled from 'styled-components'
import { Button } from './controls'

const Fallen = styled.div`
  flex: 1;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 8px;
  padding: 20px;
  text-align: center;
`

export function Boundary({ what, on, children }: { what: string; on: unknown; children: ReactNode }) {
  const fallback = ({ resetErrorBoundary }: FallbackProps) => (
    <Fallen role="alert">
      <p>{what} cannot be drawn. The tour is kept; undo still works.</p>
      <Button $small onPress={resetErrorBoundary}>
        Try again
      </Button>
    </Fallen>
  )
  return (
    <ErrorBoundary fallbackRender={fallback} resetKeys={[on]}>
      {children}
    </ErrorBoundary>
  )
}
