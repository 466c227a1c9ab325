/** What opens above a page and is chosen from. */
import type { ReactNode } from 'react'
import * as Aria from 'react-aria-components'
import styled, { css } from 'styled-components'

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
