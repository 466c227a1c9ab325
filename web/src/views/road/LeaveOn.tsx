/** The first day, and what another one would mean: tried like a mend, kept or put back. */
import type { Mend } from '../../api/client'
import { useDesk, useTrial, useWork } from '../../api/tour'
import { Outcome } from '../../instruments/Outcome'
import { Button, Row } from '../../ui/controls'
import { daysAfter, shortDate } from '../../ui/dates'
import { Field } from '../../ui/fields'

/** Days by which another start is tried, and what that is called. */
const OTHERS = [
  { days: -14, words: '2 weeks earlier' },
  { days: -7, words: 'a week earlier' },
  { days: 7, words: 'a week later' },
  { days: 14, words: '2 weeks later' },
]
const said = (words: string) => ({ words, figures: {}, names: {} })
const NOTHING_ELSE = { moves: [], food: null, things: [], gone: [], stores: null, carriers: [], stops: [], nights: null, starts: [], cut: null }

export function LeaveOn() {
  const { sheet, change } = useDesk()
  const { trial, attempt } = useTrial()
  const { busy } = useWork()
  const leaving = (start_date: string, words: string): Mend => ({
    ...NOTHING_ELSE,
    name: said(`Leave ${words}, on ${shortDate(start_date)}`),
    consequence: said('other weather, other light, other seasons of water and shops'),
    start_date,
  })
  return (
    <>
      <Field
        label="Leave on"
        type="date"
        value={sheet.start_date}
        onChange={(v) => /^\d{4}-\d{2}-\d{2}$/.test(v) && v !== sheet.start_date && void change('Leave on another day', { start_date: v })}
      />
      <Row $min={110}>
        {OTHERS.map(({ days, words }) => {
          const mend = leaving(daysAfter(sheet.start_date, days), words)
          return (
            <Button key={days} $small isDisabled={busy !== ''} onPress={() => void attempt(mend, mend.name.words)}>
              Try {words}
            </Button>
          )
        })}
      </Row>
      {trial?.mend.start_date && trial.name.startsWith('Leave ') && (
        <>
          <b>{trial.name}</b>
          <Outcome trial={trial} />
        </>
      )}
    </>
  )
}
