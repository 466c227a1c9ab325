/** Setting out, asked for once more where it moves the tour's dates. */
import { useState } from 'react'
import { useDesk } from '../../api/tour'
import { Button } from '../../ui/controls'
import { daysBetween, shortDate, today } from '../../ui/dates'

/** Setting out so many days from the planned date moves the tour: that is asked [days]. */
const NEARLY_THEN = 14

export function SetOut({ onSetOut }: { onSetOut: () => void }) {
  const { sheet } = useDesk()
  const [leaving, setLeaving] = useState(false)
  const off = Math.abs(daysBetween(sheet.start_date, today())) > NEARLY_THEN
  return (
    <p style={{ marginTop: 8 }}>
      {leaving && (
        <span role="alert" style={{ display: 'block', marginBottom: 8 }}>
          This tour begins on {shortDate(sheet.start_date)}. Setting out today moves all of its dates.
        </span>
      )}
      <Button $wanted onPress={() => (off && !leaving ? setLeaving(true) : onSetOut())} style={{ minHeight: 64, width: '100%' }}>
        {leaving ? `Set out today, ${shortDate(today())}` : 'Set out now'}
      </Button>
      {leaving && <Button onPress={() => setLeaving(false)}>Not yet</Button>}
    </p>
  )
}
