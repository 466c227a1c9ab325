/** A box that is ticked: 26 px in a target of 44, alone or with its words beside it. */
import type { ReactNode } from 'react'
import { Checkbox } from 'react-aria-components'
import styled, { css } from 'styled-components'
import { Icon } from './icons'

/** How the box itself looks, ticked or not. */
export const boxLook = css`
  width: 26px;
  height: 26px;
  border: 1.5px solid var(--ink);
  border-radius: 3px;
  display: grid;
  place-items: center;
  background: var(--tag);
  flex: none;
`
const Target = styled(Checkbox)`
  min-width: 44px;
  min-height: 44px;
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 10px;
  cursor: pointer;
  font-weight: 600;
  font-stretch: var(--width-text);
  &.worded {
    justify-content: flex-start;
  }
  i {
    ${boxLook}
  }
  @media print {
    min-width: 5mm;
    min-height: 5mm;
    i {
      width: 4mm;
      height: 4mm;
    }
    svg {
      display: none;
    }
  }
`

export function TickBox({
  isSelected,
  onChange,
  label,
  children,
}: {
  isSelected: boolean
  onChange: (on: boolean) => void
  /** Where no words stand beside it. */
  label?: string
  children?: ReactNode
}) {
  return (
    <Target isSelected={isSelected} onChange={onChange} aria-label={label} className={children ? 'worded' : undefined}>
      <i>{isSelected && <Icon name="tick" size={16} />}</i>
      {children}
    </Target>
  )
}
