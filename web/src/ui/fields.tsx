/** Fields for words, quantities and choices: what is typed is kept until it is left, and refused in words. */
import { use, useId, useState } from 'react'
import * as Aria from 'react-aria-components'
import styled, { css } from 'styled-components'
import type { Quantity } from '../api/client'
import { Changed } from './Dialog'
import { itemLook, Popover } from './Menu'
import { Icon } from './icons'
import { usePreferences } from './preferences'
import { phone } from './theme'
import { figure, read, unitOf } from './units'

export const fieldLook = css`
  width: 100%;
  min-height: 36px;
  padding: 4px 8px;
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  background: var(--tag);
  color: var(--ink);
  font-size: var(--size-text);
  ${phone} {
    min-height: 48px;
  }
`

export const Labelled = styled.div`
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
  label,
  .label {
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    font-weight: 600;
    color: var(--ink2);
  }
  input,
  textarea {
    ${fieldLook}
  }
  .refusal {
    font-size: var(--size-note);
    color: var(--ink);
    font-weight: 600;
  }
`

/** A text field with its name above it. */
export function Field({
  label,
  value,
  onChange,
  type = 'text',
  ...rest
}: {
  label: string
  value: string
  onChange: (value: string) => void
  type?: 'text' | 'date' | 'email' | 'password'
  autoComplete?: string
  placeholder?: string
  maxLength?: number
  onBlur?: () => void
}) {
  return (
    <Labelled as={Aria.TextField} value={value} onChange={onChange} type={type} {...rest}>
      <Aria.Label>{label}</Aria.Label>
      <Aria.Input placeholder={rest.placeholder} />
    </Labelled>
  )
}

/** What stands in a field: what is typed, else what is so, but as it was when the field was entered. A figure that is told while
 * somebody is about to type would take the marked text from under their hands. */
function useTyped(now: string) {
  const [typed, setTyped] = useState<string | null>(null)
  const [entered, setEntered] = useState<string | null>(null)
  return {
    stands: typed ?? entered ?? now,
    typed: typed === (entered ?? now) ? null : typed,
    type: setTyped,
    enter: () => setEntered(now),
    /** What was typed is done with: again what is so stands there. */
    forget: () => {
      setTyped(null)
      setEntered(null)
    },
  }
}

/** A key in a field; unless told otherwise it goes no further, and keys that work everywhere must. */
type FieldKey = React.KeyboardEvent & { continuePropagation: () => void }

/** A text field whose words are taken when it is left or Enter is pressed; Escape puts the old ones back. */
export function SettledField({
  label,
  value,
  onChange,
  optional = false,
  offers = [],
}: {
  label: string
  value: string
  onChange: (value: string) => void
  /** Words that are usual there, with what they mean; others can be typed. */
  offers?: (string | { value: string; words: string })[]
  optional?: boolean
}) {
  const list = useId()
  const { stands, typed, type, enter, forget } = useTyped(value)
  const settle = () => {
    if (typed !== null && typed.trim() !== value && (typed.trim() || optional)) onChange(typed.trim())
    forget()
  }
  return (
    <Labelled
      as={Aria.TextField}
      value={stands}
      onChange={type}
      onFocus={enter}
      onBlur={settle}
      onKeyDown={(e: FieldKey) => {
        if (e.key === 'Enter') settle()
        else if (e.key === 'Escape') forget()
        else e.continuePropagation()
      }}
    >
      <Aria.Label>{label}</Aria.Label>
      <Aria.Input list={offers.length ? list : undefined} />
      {offers.length > 0 && (
        <datalist id={list}>
          {offers.map((offer) => {
            const { value, words } = typeof offer === 'string' ? { value: offer, words: undefined } : offer
            return <option key={value} value={value} label={words} />
          })}
        </datalist>
      )}
    </Labelled>
  )
}

/** A figure as it can be typed: without the spaces and signs of print. */
const typable = (shown: string): string => shown.replace(/[\u202f\u00a0]/g, '').replace('\u2212', '-')

/** A quantity, typed in any unit the rider likes and kept in the base unit. Refuses in words and keeps what was typed. */
export function Measure({
  label,
  value,
  quantity,
  onChange,
  onClear,
  range: [least, most] = [0, Infinity],
  decimals,
  hidden = false,
}: {
  label: string
  value: number | null
  quantity: Quantity
  onChange: (value: number) => void
  /** Where given, the field may be left empty: not known. */
  onClear?: () => void
  /** What the field can be, in the base unit. */
  range?: readonly [number, number]
  decimals?: number
  hidden?: boolean
}) {
  const { system } = usePreferences()
  const shown = value === null ? '' : typable(figure(value, quantity, system, decimals))
  const { stands, typed, type, enter, forget } = useTyped(shown)
  const [refusal, setRefusal] = useState('')
  const unit = unitOf(quantity, system)
  const settle = () => {
    if (typed === null) {
      setRefusal('')
      return forget()
    }
    if (!typed.trim() && onClear) {
      setRefusal('')
      forget()
      return onClear()
    }
    const amount = read(typed, quantity, system)
    if (amount === undefined) return setRefusal(`“${typed}” is no amount; try 1.4 ${unit}`)
    if (amount < least || amount > most) {
      return setRefusal(`between ${figure(least, quantity, system)} and ${figure(most, quantity, system)} ${unit}`)
    }
    setRefusal('')
    forget()
    onChange(amount)
  }
  return (
    <Labelled
      as={Aria.TextField}
      value={stands}
      onChange={type}
      onFocus={enter}
      onBlur={settle}
      isInvalid={refusal !== ''}
      onKeyDown={(e: FieldKey) => {
        if (e.key === 'Enter') settle()
        else if (e.key === 'Escape') {
          forget()
          setRefusal('')
        } else e.continuePropagation()
      }}
    >
      <Aria.Label className={hidden ? 'unseen' : 'label'}>{unit ? `${label}, ${unit}` : label}</Aria.Label>
      <Aria.Input inputMode="text" />
      {refusal && (
        <Aria.Text slot="errorMessage" className="refusal">
          {refusal}
        </Aria.Text>
      )}
    </Labelled>
  )
}

export const Area = styled.textarea`
  ${fieldLook} min-height: 160px;
  font-family: ui-monospace, monospace;
  font-size: var(--size-note);
`

const SelectButton = styled(Aria.Button)`
  ${fieldLook} display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
  text-align: left;
  cursor: pointer;
  font-size: var(--size-small);
  font-stretch: var(--width-text);
  font-weight: 550;
`

const Item = styled(Aria.ListBoxItem)`
  ${itemLook} &[data-selected] {
    font-weight: 750;
  }
`

/** One of a few choices. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  hidden = false,
}: {
  label: string
  value: T
  options: { id: T; text: string }[]
  onChange: (value: T) => void
  hidden?: boolean
}) {
  const changed = use(Changed)
  const choose = (key: Aria.Key | null) => {
    if (key === null) return
    changed()
    onChange(key as T)
  }
  return (
    <Labelled as={Aria.Select} selectedKey={value} onSelectionChange={choose}>
      <Aria.Label className={hidden ? 'unseen' : 'label'}>{label}</Aria.Label>
      <SelectButton>
        <Aria.SelectValue />
        <Icon name="down" size={14} />
      </SelectButton>
      <Popover>
        <Aria.ListBox items={options}>{(option) => <Item id={option.id}>{option.text}</Item>}</Aria.ListBox>
      </Popover>
    </Labelled>
  )
}
