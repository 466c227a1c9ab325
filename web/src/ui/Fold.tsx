/** A part of a page that can be unfolded; what it holds is drawn only while it is. */
import { type ReactNode, useState } from 'react'

export function Fold({
  summary,
  children,
  open = false,
  className,
}: {
  summary: ReactNode
  children: ReactNode
  open?: boolean
  className?: string
}) {
  const [unfolded, setUnfolded] = useState(open)
  return (
    <details className={className} open={unfolded} onToggle={(e) => setUnfolded(e.currentTarget.open)}>
      <summary>{summary}</summary>
      {unfolded && children}
    </details>
  )
}
