/** Several of a few words: pressed ones hold. */
import { Checkbox, CheckboxGroup } from 'react-aria-components'
import styled from 'styled-components'
import { phone } from './theme'

const Boxes = styled(CheckboxGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  font-size: var(--size-note);
  > .head {
    width: 100%;
    font-weight: 600;
    color: var(--ink2);
  }
`
const Box = styled(Checkbox)`
  display: inline-flex;
  align-items: center;
  min-height: 32px;
  ${phone} {
    min-height: 44px;
  }
  padding: 0 9px;
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  background: var(--tag);
  cursor: pointer;
  font-size: var(--size-small);
  font-stretch: var(--width-narrow);
  &::before {
    content: '○' / '';
    margin-right: 5px;
  }
  &[data-selected] {
    border-color: var(--ink);
    font-weight: 700;
  }
  &[data-selected]::before {
    content: '●' / '';
  }
`

export function Picks<T extends string>({
  label,
  options,
  chosen,
  onChange,
}: {
  label: string
  options: readonly { id: T; text: string }[]
  chosen: readonly T[]
  onChange: (chosen: T[]) => void
}) {
  return (
    <Boxes aria-label={label} value={[...chosen]} onChange={(ids) => onChange(ids as T[])}>
      <span className="head">{label}</span>
      {options.map(({ id, text }) => (
        <Box key={id} value={id}>
          {text}
        </Box>
      ))}
    </Boxes>
  )
}
