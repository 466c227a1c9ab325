/** Buttons, rails, menus and dialogs: React Aria's behaviour, our looks. */
import { createContext, type KeyboardEvent, type ReactNode, useState } from 'react'
import * as Aria from 'react-aria-components'
import styled, { css } from 'styled-components'
import { phone, sign } from './theme'

export const Button = styled(Aria.Button)<{ $wanted?: boolean; $small?: boolean }>`
  user-select: none;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  white-space: nowrap;
  min-height: ${(p) => (p.$small ? 32 : 44)}px;
  padding: 0 ${(p) => (p.$small ? 10 : 16)}px;
  border: 1.5px solid var(--edge);
  border-radius: 3px;
  background: var(--tag);
  color: var(--ink);
  font-weight: 600;
  font-stretch: var(--width-text);
  font-size: ${(p) => (p.$small ? 13 : 14)}px;
  cursor: pointer;
  &[data-hovered] {
    border-color: var(--ink);
  }
  &[data-pressed] {
    background: var(--hollow);
  }
  &[data-disabled] {
    background: var(--hollow);
    color: var(--ink3);
    cursor: default;
  }
  ${(p) =>
    p.$wanted &&
    css`
      background: var(--ink);
      border-color: var(--ink);
      color: var(--tag);
      &[data-pressed] {
        background: var(--ink2);
      }
    `}
  ${phone} {
    min-height: 48px;
  }
`

export const IconButton = styled(Aria.Button)`
  width: 40px;
  height: 40px;
  display: grid;
  place-items: center;
  border-radius: 3px;
  cursor: pointer;
  &[data-hovered] {
    background: var(--hollow);
  }
  &[data-disabled] {
    color: var(--edge);
    cursor: default;
  }
  ${phone} {
    width: 48px;
    height: 48px;
  }
`

export const Section = styled.h2`
  font-family: ${sign};
  font-stretch: var(--width-sign);
  font-weight: 750;
  font-size: var(--size-lead);
  line-height: 20px;
  letter-spacing: -0.01em;
`

export const Title = styled.h1`
  font-family: ${sign};
  font-stretch: var(--width-sign);
  font-weight: 780;
  font-size: var(--size-figure);
  line-height: 28px;
  letter-spacing: -0.01em;
`

export const Muted = styled.p`
  font-size: var(--size-note);
  line-height: 17px;
  font-stretch: var(--width-narrow);
  color: var(--ink2);
`

export const RailLine = styled.div`
  display: flex;
  align-items: center;
  gap: 7px;
  border-top: 3px solid var(--ink);
  padding-top: 4px;
  font-size: var(--size-note);
  font-weight: 650;
  font-stretch: var(--width-text);
  > em {
    margin-left: auto;
    font-style: normal;
    font-weight: 500;
    color: var(--ink2);
  }
`

export const Popover = styled(Aria.Popover)`
  background: var(--tag);
  border: 2px solid var(--ink);
  border-radius: 3px;
  min-width: var(--trigger-width);
  overflow: auto;
  max-height: 340px;
`

/** How an entry of a list or menu looks. */
export const itemLook = css`
  padding: 8px 12px;
  min-height: 36px;
  cursor: pointer;
  outline: none;
  font-size: var(--size-small);
  &[data-focused] {
    background: var(--ink);
    color: var(--tag);
  }
  &[data-disabled] {
    color: var(--ink3);
    cursor: default;
  }
  small {
    display: block;
    font-size: var(--size-fine);
    font-stretch: var(--width-narrow);
  }
`
const MenuRow = styled(Aria.MenuItem)`
  ${itemLook}
`

export interface MenuEntry {
  id: string
  text: string
  note?: string
  off?: boolean
}

interface Choices {
  label: string
  entries: MenuEntry[]
  onChoose: (id: string) => void
}

/** A button that opens a menu. */
export function Menu({ children, ...choices }: Choices & { children: ReactNode }) {
  return <MenuButton menu={<MenuChoices {...choices} />}>{children}</MenuButton>
}

/** The same where what can be chosen takes work: it is made out once the menu opens. */
export function MenuButton({ menu, children }: { menu: ReactNode; children: ReactNode }) {
  return (
    <Aria.MenuTrigger>
      {children}
      <Popover>{menu}</Popover>
    </Aria.MenuTrigger>
  )
}

/** What can be chosen in a menu. */
export function MenuChoices({ label, entries, onChoose }: Choices) {
  return (
    <Aria.Menu
      aria-label={label}
      onAction={(key) => onChoose(String(key))}
      items={entries}
      disabledKeys={entries.filter((e) => e.off).map((e) => e.id)}
    >
      {(entry) => (
        <MenuRow id={entry.id} textValue={entry.text}>
          {entry.text}
          {entry.note && <small>{entry.note}</small>}
        </MenuRow>
      )}
    </Aria.Menu>
  )
}

const Overlay = styled(Aria.ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 50;
  display: grid;
  place-items: center;
  padding: 16px;
  background: color-mix(in srgb, var(--land) 55%, transparent);
`
const Sheet = styled(Aria.Modal)<{ $wide?: boolean }>`
  width: min(${(p) => (p.$wide ? 860 : 520)}px, 100%);
  max-height: calc(100dvh - 32px);
  overflow: auto;
  background: var(--sky);
  border: 2px solid var(--ink);
  border-radius: 3px;
  padding: 20px;
  /* A wide one grows and shrinks while it is used: what is pressed stays where it is. */
  ${(p) => p.$wide && 'align-self: start; margin-top: min(32px, 3dvh);'}
  [role='dialog'] {
    outline: none;
    display: flex;
    flex-direction: column;
    gap: 12px;
  }
`

const Asking = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  border: 2px solid var(--ink);
  padding: 8px 10px;
`

/** The first field of a dialog takes the focus; a finger would get a keyboard it did not ask for. */
export function focusFirstField(dialog: HTMLElement | null) {
  if (window.matchMedia('(pointer: coarse)').matches) return
  dialog?.querySelector<HTMLElement>('input:not([type=hidden], [type=file]), textarea, button[aria-haspopup=listbox]')?.focus()
}

/** Tells the dialog around a control that something was changed in it: not every control lets the page see that. */
export const Changed = createContext(() => {})

/** A dialog over the page. Escape closes it wherever the focus is, and asks first where something was typed or chosen in it. */
export function Dialog({
  title,
  open,
  onClose,
  children,
  wide,
  draft = false,
}: {
  title: string
  open: boolean
  onClose: () => void
  children: ReactNode
  wide?: boolean
  /** What is changed in it is kept only when its button says so; else it is kept at once, and closing asks nothing. */
  draft?: boolean
}) {
  const [changed, setChanged] = useState(false)
  const [asking, setAsking] = useState(false)
  const leave = () => {
    if (draft && changed && !asking) setAsking(true)
    else {
      setChanged(false)
      setAsking(false)
      onClose()
    }
  }
  const escape = (e: KeyboardEvent) => {
    // What is open above the dialog, a list or a menu, closes by itself.
    const target = e.target as HTMLElement
    if (e.key !== 'Escape' || !e.currentTarget.contains(target) || target.getAttribute('aria-expanded') === 'true') return
    e.preventDefault()
    e.stopPropagation()
    leave()
  }
  return (
    <Overlay isOpen={open} onOpenChange={(next) => !next && leave()} isDismissable>
      <Sheet $wide={wide}>
        <div role="presentation" onKeyDownCapture={escape} onInputCapture={() => setChanged(true)}>
          <Aria.Dialog ref={focusFirstField}>
            {asking && (
              <Asking role="alert">
                What was changed here is not kept yet.
                <Button $small onPress={() => setAsking(false)}>
                  Go on
                </Button>
                <Button $small onPress={leave}>
                  Close without keeping it
                </Button>
              </Asking>
            )}
            <Title as={Aria.Heading} slot="title">
              {title}
            </Title>
            <Changed value={() => setChanged(true)}>{children}</Changed>
          </Aria.Dialog>
        </div>
      </Sheet>
    </Overlay>
  )
}

export const Actions = styled.div`
  display: flex;
  gap: 8px;
  justify-content: flex-end;
  flex-wrap: wrap;
`
export const Row = styled.div<{ $min?: number }>`
  display: grid;
  gap: 10px;
  grid-template-columns: repeat(auto-fit, minmax(${(p) => p.$min ?? 130}px, 1fr));
  align-items: end;
`

/** Opens the file chooser. */
export function FileButton({
  accept,
  onFile,
  onFiles,
  children,
  wanted,
  small,
}: {
  accept: string[]
  onFile?: (file: File) => void
  onFiles?: (files: File[]) => void
  children: ReactNode
  wanted?: boolean
  small?: boolean
}) {
  return (
    <Aria.FileTrigger
      acceptedFileTypes={accept}
      allowsMultiple={onFiles !== undefined}
      onSelect={(files) => {
        if (!files?.[0]) return
        onFile?.(files[0])
        onFiles?.([...files])
      }}
    >
      <Button $wanted={wanted} $small={small}>
        {children}
      </Button>
    </Aria.FileTrigger>
  )
}

const TabFrame = styled(Aria.Tabs)`
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
  [role='tablist'] {
    display: flex;
    gap: 14px;
    border-bottom: 2px solid var(--ink);
    flex: none;
    overflow-x: auto;
    scrollbar-width: none;
  }
  [role='tab'] {
    min-height: 36px;
    display: flex;
    align-items: center;
    cursor: pointer;
    font-size: var(--size-text);
    font-weight: 600;
    font-stretch: var(--width-text);
    color: var(--ink2);
    white-space: nowrap;
    &[data-selected] {
      color: var(--ink);
      font-weight: 720;
      box-shadow: inset 0 -4px 0 var(--ink);
    }
  }
  [role='tabpanel'] {
    flex: 1;
    min-height: 0;
    overflow: auto;
    scrollbar-width: thin;
    padding-top: 8px;
    display: flex;
    flex-direction: column;
    gap: 8px;
  }
  [role='tabpanel'] > ${RailLine}:first-child {
    border-top: 0;
  }
  ${phone} {
    [role='tab'] {
      min-height: 48px;
    }
    [role='tabpanel'] {
      overflow: visible;
    }
  }
  @media print {
    display: block;
    overflow: visible;
  }
`

/** Sheets behind each other, one shown. */
export function Tabs({
  label,
  tabs,
  selected,
  onChange,
}: {
  label: string
  tabs: { id: string; name: string; content: ReactNode }[]
  /** Where given, what is shown is decided outside. */
  selected?: string
  onChange?: (id: string) => void
}) {
  return (
    <TabFrame selectedKey={selected} onSelectionChange={(key) => onChange?.(String(key))}>
      <Aria.TabList aria-label={label}>
        {tabs.map((t) => (
          <Aria.Tab key={t.id} id={t.id}>
            {t.name}
          </Aria.Tab>
        ))}
      </Aria.TabList>
      {tabs.map((t) => (
        <Aria.TabPanel key={t.id} id={t.id}>
          {t.content}
        </Aria.TabPanel>
      ))}
    </TabFrame>
  )
}
