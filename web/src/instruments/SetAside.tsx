/** A finding that its rider lives with: set aside with a reason, and taken back. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Finding } from '../api/client'
import { useDesk } from '../api/tour'
import { Button } from '../ui/controls'
import { Field } from '../ui/fields'

const Line = styled.form`
  display: flex;
  gap: 6px;
  align-items: end;
  flex-wrap: wrap;
  padding: 4px 0 2px;
  > :first-child {
    flex: 1;
    min-width: 120px;
  }
`

const focusFirst = (form: HTMLElement | null) => form?.querySelector('input')?.focus()

export function SetAside({ finding }: { finding: Finding }) {
  const { sheet, change } = useDesk()
  const [reason, setReason] = useState<string | null>(null)
  const others = sheet.set_aside.filter((one) => one.finding_id !== finding.id)
  if (finding.aside !== null)
    return (
      <Line as="div">
        <span>Set aside: {finding.aside}</span>
        <Button $small onPress={() => void change('Take a finding back', { set_aside: others })}>
          Take it back
        </Button>
      </Line>
    )
  if (reason === null)
    return (
      <Line as="div">
        <span />
        <Button $small onPress={() => setReason('')}>
          Set aside …
        </Button>
      </Line>
    )
  const keep = () =>
    void change('Set a finding aside', { set_aside: [...others, { finding_id: finding.id, reason: reason.trim(), cases: finding.cases }] }).then(
      (done) => done && setReason(null),
    )
  return (
    <Line
      ref={focusFirst}
      onSubmit={(e) => {
        e.preventDefault()
        if (reason.trim()) keep()
      }}
    >
      <Field label="Why it may stay so" value={reason} onChange={setReason} maxLength={200} />
      <Button $small onPress={() => setReason(null)}>
        Cancel
      </Button>
      <Button $small $wanted type="submit" isDisabled={!reason.trim()}>
        Set aside
      </Button>
    </Line>
  )
}
