/** Several sheets in one place, one of them shown. */
import type { ReactNode } from 'react'
import * as Aria from 'react-aria-components'
import styled from 'styled-components'
import { RailLine } from './controls'
import { phone } from './theme'

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
