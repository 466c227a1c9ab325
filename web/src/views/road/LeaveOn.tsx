/** The first day, and what another one would mean: tried like a mend, kept or put back. */
import { useDesk, useWork } from '../../api/tour'
import { Outcome } from '../../instruments/Outcome'
import { Button, Row } from '../../ui/controls'
import { daysAfter } from '../../ui/dates'
import { Field } from '../../ui/fields'
import { useLeave } from './useLeave'

/** Days by which another start is tried, and what that is called. */
const OTHERS = [
  { days: -14, words: '2 weeks earlier' },
  { days: -7, words: 'a week earlier' },
  { days: 7, words: 'a week later' },
  { days: 14, words: '2 weeks later' },
]
export function LeaveOn() {
  const { sheet, change } = useDesk()
  const { leave, trial } = useLeave()
  const { busy } = useWork()
  return (
    <>
      <Field
        label="Leave on"
        type="date"
        value={sheet.start_date}
        onChange={(v) => /^\d{4}-\d{2}-\d{2}$/.test(v) && v !== sheet.start_date && void change('Leave on another day', { start_date: v })}
      />
      <Row $min={110}>
        {OTHERS.map(({ days, words }) => (
          <Button key={days} $small isDisabled={busy !== ''} onPress={() => void leave(daysAfter(sheet.start_date, days), words)}>
            Try {words}
          </Button>
        ))}
      </Row>
      {trial && (
        <>
          <b>{trial.name}</b>
          <Outcome trial={trial} />
        </>
      )}
    </>
  )
}
