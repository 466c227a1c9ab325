/** Buttons, fields, rails and dialogs: React Aria's behaviour, our looks. */
import { type ReactNode, useState } from 'react'
import * as Aria from 'react-aria-components'
import styled, { css } from 'styled-components'
import type { Quantity } from '../api/client'
import { Icon } from './icons'
import { usePreferences } from './preferences'
import { phone, sign } from './theme'
import { figure, read, unitOf } from './units'

export const Button = styled(Aria.Button)<{ $wanted?: boolean; $small?: boolean }>`
  display: inline-flex; align-items: center; justify-content: center; gap: 6px; white-space: nowrap;
  min-height: ${(p) => (p.$small ? 32 : 44)}px; padding: 0 ${(p) => (p.$small ? 10 : 16)}px;
  border: 1.5px solid var(--edge); border-radius: 3px; background: var(--tag); color: var(--ink);
  font-weight: 600; font-stretch: 88%; font-size: ${(p) => (p.$small ? 13 : 14)}px; cursor: pointer;
  &[data-hovered] { border-color: var(--ink); }
  &[data-pressed] { background: var(--hollow); }
  &[data-disabled] { background: var(--hollow); color: var(--ink3); cursor: default; }
  ${(p) => p.$wanted && css`
    background: var(--ink); border-color: var(--ink); color: var(--tag);
    &[data-pressed] { background: var(--ink2); }
  `}
  ${phone} { min-height: 48px; }
`

export const IconButton = styled(Aria.Button)`
  width: 40px; height: 40px; display: grid; place-items: center; border-radius: 3px; cursor: pointer;
  &[data-hovered] { background: var(--hollow); }
  &[data-disabled] { color: var(--edge); cursor: default; }
  ${phone} { width: 48px; height: 48px; }
`

export const Section = styled.h2`
  font-family: ${sign}; font-stretch: 118%; font-weight: 750; font-size: 16px; line-height: 20px; letter-spacing: -0.01em;
`

export const Title = styled.h1`
  font-family: ${sign}; font-stretch: 118%; font-weight: 780; font-size: 25px; line-height: 28px; letter-spacing: -0.01em;
`

export const Muted = styled.p`
  font-size: 12.5px; line-height: 17px; font-stretch: 86%; color: var(--ink2);
`

export const RailLine = styled.div`
  display: flex; align-items: center; gap: 7px; border-top: 3px solid var(--ink); padding-top: 4px; font-size: 12.5px;
  font-weight: 650; font-stretch: 88%;
  > em { margin-left: auto; font-style: normal; font-weight: 500; color: var(--ink2); }
`

const fieldLook = css`
  width: 100%; min-height: 36px; padding: 4px 8px; border: 1.5px solid var(--edge); border-radius: 3px;
  background: var(--tag); color: var(--ink); font-size: 14px;
  ${phone} { min-height: 48px; }
`

const Labelled = styled.div`
  display: flex; flex-direction: column; gap: 2px; min-width: 0;
  label, .label { font-size: 12.5px; font-stretch: 86%; font-weight: 600; color: var(--ink2); }
  input, textarea { ${fieldLook} }
  .refusal { font-size: 12.5px; color: var(--ink); font-weight: 600; }
`

/** A text field with its name above it. */
export function Field({ label, value, onChange, type = 'text', ...rest }: {
  label: string
  value: string
  onChange: (value: string) => void
  type?: 'text' | 'date'
  placeholder?: string
}) {
  return (
    <Labelled as={Aria.TextField} value={value} onChange={onChange} type={type} {...rest}>
      <Aria.Label>{label}</Aria.Label>
      <Aria.Input placeholder={rest.placeholder} />
    </Labelled>
  )
}

/** A key in a field; unless told otherwise it goes no further, and keys that work everywhere must. */
type FieldKey = React.KeyboardEvent & { continuePropagation: () => void }

/** A text field whose words are taken when it is left or Enter is pressed; Escape puts the old ones back. */
export function SettledField({ label, value, onChange, optional = false }: { label: string; value: string; onChange: (value: string) => void; optional?: boolean }) {
  const [typed, setTyped] = useState<string | null>(null)
  const settle = () => {
    if (typed !== null && typed.trim() !== value && (typed.trim() || optional)) onChange(typed.trim())
    setTyped(null)
  }
  return (
    <Labelled as={Aria.TextField} value={typed ?? value} onChange={setTyped} onBlur={settle}
      onKeyDown={(e: FieldKey) => {
        if (e.key === 'Enter') settle()
        else if (e.key === 'Escape') setTyped(null)
        else e.continuePropagation()
      }}>
      <Aria.Label>{label}</Aria.Label>
      <Aria.Input />
    </Labelled>
  )
}

/** A quantity, typed in any unit the rider likes and kept in the base unit. Refuses in words and keeps what was typed. */
export function Measure({ label, value, quantity, onChange, least = 0, most = Infinity, decimals, hidden = false }: {
  label: string
  value: number
  quantity: Quantity
  onChange: (value: number) => void
  least?: number
  most?: number
  decimals?: number
  hidden?: boolean
}) {
  const { system } = usePreferences()
  const shown = figure(value, quantity, system, decimals).replace(/[\u202f\u00a0]/g, '').replace('\u2212', '-')
  const [typed, setTyped] = useState<string | null>(null)
  const [refusal, setRefusal] = useState('')
  const unit = unitOf(quantity, system)
  const settle = () => {
    if (typed === null || typed === shown) return setTyped(null)
    const amount = read(typed, quantity, system)
    if (amount === undefined) return setRefusal(`“${typed}” is no amount; try 1.4 ${unit}`)
    if (amount < least || amount > most) {
      return setRefusal(`between ${figure(least, quantity, system)} and ${figure(most, quantity, system)} ${unit}`)
    }
    setRefusal('')
    setTyped(null)
    onChange(amount)
  }
  return (
    <Labelled as={Aria.TextField} value={typed ?? shown} onChange={setTyped} onBlur={settle} isInvalid={refusal !== ''}
      onKeyDown={(e: FieldKey) => {
        if (e.key === 'Enter') settle()
        else if (e.key === 'Escape') {
          setTyped(null)
          setRefusal('')
        } else e.continuePropagation()
      }}>
      <Aria.Label className={hidden ? 'unseen' : 'label'}>{unit ? `${label}, ${unit}` : label}</Aria.Label>
      <Aria.Input inputMode="text" />
      {refusal && <Aria.Text slot="errorMessage" className="refusal">{refusal}</Aria.Text>}
    </Labelled>
  )
}

export const Area = styled.textarea`${fieldLook} min-height: 160px; font-family: ui-monospace, monospace; font-size: 12.5px;`

const SelectButton = styled(Aria.Button)`
  ${fieldLook} display: flex; align-items: center; justify-content: space-between; gap: 6px; text-align: left; cursor: pointer;
  font-size: 13px; font-stretch: 88%; font-weight: 550;
`

const Popover = styled(Aria.Popover)`
  background: var(--tag); border: 2px solid var(--ink); border-radius: 3px; min-width: var(--trigger-width); overflow: auto;
  max-height: 340px;
`

const itemLook = css`
  padding: 8px 12px; min-height: 36px; cursor: pointer; outline: none; font-size: 13.5px;
  &[data-focused] { background: var(--ink); color: var(--tag); }
  &[data-disabled] { color: var(--ink3); cursor: default; }
  small { display: block; font-size: 12px; font-stretch: 84%; }
`
const Item = styled(Aria.ListBoxItem)`${itemLook} &[data-selected] { font-weight: 750; }`
const MenuRow = styled(Aria.MenuItem)`${itemLook}`

/** One of a few choices. */
export function Choice<T extends string>({ label, value, options, onChange, hidden = false }: {
  label: string
  value: T
  options: { id: T; text: string }[]
  onChange: (value: T) => void
  hidden?: boolean
}) {
  return (
    <Labelled as={Aria.Select} selectedKey={value} onSelectionChange={(key: Aria.Key | null) => key !== null && onChange(key as T)}>
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

export interface MenuEntry {
  id: string
  text: string
  note?: string
  off?: boolean
}

/** A button that opens a menu. */
export function Menu({ label, children, entries, onChoose }: {
  label: string
  children: ReactNode
  entries: MenuEntry[]
  onChoose: (id: string) => void
}) {
  return (
    <Aria.MenuTrigger>
      {children}
      <Popover>
        <Aria.Menu aria-label={label} onAction={(key) => onChoose(String(key))} items={entries}
          disabledKeys={entries.filter((e) => e.off).map((e) => e.id)}>
          {(entry) => (
            <MenuRow id={entry.id} textValue={entry.text}>
              {entry.text}
              {entry.note && <small>{entry.note}</small>}
            </MenuRow>
          )}
        </Aria.Menu>
      </Popover>
    </Aria.MenuTrigger>
  )
}

const Overlay = styled(Aria.ModalOverlay)`
  position: fixed; inset: 0; z-index: 50; display: grid; place-items: center; padding: 16px; background: color-mix(in srgb, var(--land) 55%, transparent);
`
const Sheet = styled(Aria.Modal)<{ $wide?: boolean }>`
  width: min(${(p) => (p.$wide ? 860 : 520)}px, 100%); max-height: calc(100dvh - 32px); overflow: auto; background: var(--sky);
  border: 2px solid var(--ink); border-radius: 3px; padding: 20px;
  [role='dialog'] { outline: none; display: flex; flex-direction: column; gap: 12px; }
`

/** A dialog over the page; Escape closes it. */
export function Dialog({ title, open, onClose, children, wide }: {
  title: string
  open: boolean
  onClose: () => void
  children: ReactNode
  wide?: boolean
}) {
  return (
    <Overlay isOpen={open} onOpenChange={(next) => !next && onClose()} isDismissable>
      <Sheet $wide={wide}>
        <Aria.Dialog>
          <Title as={Aria.Heading} slot="title">{title}</Title>
          {children}
        </Aria.Dialog>
      </Sheet>
    </Overlay>
  )
}

export const Actions = styled.div`display: flex; gap: 8px; justify-content: flex-end; flex-wrap: wrap;`
export const Row = styled.div<{ $min?: number }>`
  display: grid; gap: 10px; grid-template-columns: repeat(auto-fit, minmax(${(p) => p.$min ?? 130}px, 1fr)); align-items: end;
`

/** Opens the file chooser. */
export function FileButton({ accept, onFile, onFiles, children, wanted, small }: {
  accept: string[]
  onFile?: (file: File) => void
  onFiles?: (files: File[]) => void
  children: ReactNode
  wanted?: boolean
  small?: boolean
}) {
  return (
    <Aria.FileTrigger acceptedFileTypes={accept} allowsMultiple={onFiles !== undefined} onSelect={(files) => {
      if (!files?.[0]) return
      onFile?.(files[0])
      onFiles?.([...files])
    }}>
      <Button $wanted={wanted} $small={small}>{children}</Button>
    </Aria.FileTrigger>
  )
}

const Strip = styled.div`
  display: flex; align-items: center; gap: 12px; padding: 8px 20px; background: var(--tag); border-bottom: 2px solid var(--ink);
  p { flex: 1; }
`

/** Trouble, or news: what happened, what is safe, what to do. It stays until it is answered. */
export function Notice({ children, onClose, action, urgent }: {
  children: ReactNode
  onClose: () => void
  action?: { text: string; run: () => void }
  urgent?: boolean
}) {
  return (
    <Strip role={urgent ? 'alert' : 'status'} className="no-print">
      <p>{children}</p>
      {action && <Button $small $wanted onPress={action.run}>{action.text}</Button>}
      <Button $small onPress={onClose}>Close</Button>
    </Strip>
  )
}

export const Gauge = styled(Aria.ProgressBar)`
  flex: 1; display: flex; align-items: center; gap: 12px; font-weight: 600; font-stretch: 88%;
  > div { flex: 1; max-width: 340px; height: 10px; border: 1.5px solid var(--ink); border-radius: 3px; overflow: hidden; }
  > div > div { height: 100%; background: var(--ink); }
`

/** Long work, how far it is, and a button to call it off. */
export function UnderWay({ what, share, onCancel, cancelText = 'Cancel' }: { what: string; share: number | null; onCancel: () => void; cancelText?: string }) {
  return (
    <Strip className="no-print">
      <Gauge aria-label={what} value={(share ?? 0) * 100} isIndeterminate={share === null}>
        {({ percentage, valueText }) => (
          <>
            <span>{what} …</span>
            <div><div style={{ width: `${percentage ?? 0}%` }} /></div>
            <span>{share === null ? '' : valueText}</span>
          </>
        )}
      </Gauge>
      <Button $small onPress={onCancel}>{cancelText}</Button>
    </Strip>
  )
}

/** Holds the place of what is still on its way. */
export const Loading = styled.p.attrs({ role: 'status', children: 'One moment …' })`
  flex: 1; display: grid; place-content: center; color: var(--ink2); opacity: 0; animation: appear 0.2s 0.3s forwards;
  @keyframes appear { to { opacity: 1; } }
`

const TabFrame = styled(Aria.Tabs)`
  display: flex; flex-direction: column; min-height: 0; flex: 1;
  [role='tablist'] { display: flex; gap: 14px; border-bottom: 2px solid var(--ink); flex: none; overflow-x: auto; scrollbar-width: none; }
  [role='tab'] {
    min-height: 36px; display: flex; align-items: center; cursor: pointer; font-size: 14px; font-weight: 600; font-stretch: 88%; color: var(--ink2); white-space: nowrap;
    &[data-selected] { color: var(--ink); font-weight: 720; box-shadow: inset 0 -4px 0 var(--ink); }
  }
  [role='tabpanel'] { flex: 1; min-height: 0; overflow: auto; scrollbar-width: thin; padding-top: 8px; display: flex; flex-direction: column; gap: 8px; }
  [role='tabpanel'] > ${RailLine}:first-child { border-top: 0; }
  ${phone} { [role='tab'] { min-height: 48px; } [role='tabpanel'] { overflow: visible; } }
`

/** Sheets behind each other, one shown. */
export function Tabs({ label, tabs, onChange }: { label: string; tabs: { id: string; name: string; content: ReactNode }[]; onChange?: () => void }) {
  return (
    <TabFrame onSelectionChange={onChange}>
      <Aria.TabList aria-label={label}>{tabs.map((t) => <Aria.Tab key={t.id} id={t.id}>{t.name}</Aria.Tab>)}</Aria.TabList>
      {tabs.map((t) => <Aria.TabPanel key={t.id} id={t.id}>{t.content}</Aria.TabPanel>)}
    </TabFrame>
  )
}
