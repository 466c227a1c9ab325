/** One of many, found by typing some of its name, or of another name for it. */
import { use, useState } from 'react'
import * as Aria from 'react-aria-components'
import styled from 'styled-components'
import { Changed } from './Dialog'
import { itemLook, Popover } from './Menu'
import { fieldLook, Labelled } from './fields'
import { Icon, type IconName } from './icons'

export interface ComboEntry {
  id: string
  text: string
  /** What it is also called. */
  also: string
  note: string
  icon: IconName
}

const Inside = styled.div`
  position: relative;
  button {
    ${fieldLook} position: absolute;
    inset: 0 0 0 auto;
    width: 32px;
    padding: 0;
    border: 0;
    background: none;
    display: grid;
    place-items: center;
    cursor: pointer;
  }
`
const Entry = styled(Aria.ListBoxItem)`
  ${itemLook} display: flex;
  align-items: center;
  gap: 8px;
  small {
    margin-left: auto;
  }
  &[data-selected] {
    font-weight: 750;
  }
`
const MOST = 60
const bare = (text: string) =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/ß/g, 'ss')

/** Entries that are called so: what begins so first, then what has it anywhere. */
export function foundIn(entries: readonly ComboEntry[], typed: string): ComboEntry[] {
  const sought = bare(typed).trim()
  if (!sought) return [...entries]
  const rank = (e: ComboEntry) => {
    const name = bare(e.text)
    const called = `, ${bare(e.also)}`
    if (name.startsWith(sought) || called.includes(`, ${sought}`)) return name.startsWith(sought) ? 0 : 1
    return ` ${name}`.includes(` ${sought}`) || called.includes(` ${sought}`) ? 2 : called.includes(sought) ? 3 : 4
  }
  const ranked = entries.map((entry) => ({ entry, at: rank(entry) })).filter(({ at }) => at < 4)
  return ranked.sort((a, b) => a.at - b.at).map(({ entry }) => entry)
}

export function Combo({
  label,
  value,
  entries,
  onChange,
  placeholder,
}: {
  label: string
  value: string | null
  entries: readonly ComboEntry[]
  onChange: (id: string) => void
  placeholder?: string
}) {
  const changed = use(Changed)
  const [typed, setTyped] = useState<string | null>(null)
  const chosen = entries.find((e) => e.id === value)?.text ?? ''
  const found = foundIn(entries, typed ?? '').slice(0, MOST)
  return (
    <Labelled
      as={Aria.ComboBox}
      items={found}
      inputValue={typed ?? chosen}
      // While somebody types nothing is chosen: what is chosen meanwhile by others does not close the list.
      selectedKey={typed === null ? value : null}
      onInputChange={(text: string) => setTyped(text === chosen ? null : text)}
      onSelectionChange={(key: Aria.Key | null) => {
        setTyped(null)
        if (key === null || key === value) return
        changed()
        onChange(String(key))
      }}
      // It opens for who types, not for what is told from elsewhere while the focus is here.
      menuTrigger={typed === null ? 'manual' : 'input'}
      allowsEmptyCollection
    >
      <Aria.Label className="label">{label}</Aria.Label>
      <Inside>
        <Aria.Input placeholder={placeholder} />
        <Aria.Button>
          <Icon name="down" size={14} />
        </Aria.Button>
      </Inside>
      <Popover>
        <Aria.ListBox<ComboEntry> renderEmptyState={() => <Nothing>No kind is called so; leave it open</Nothing>}>
          {(entry) => (
            <Entry id={entry.id} textValue={entry.text}>
              <Icon name={entry.icon} size={16} />
              {entry.text}
              <small>{entry.note}</small>
            </Entry>
          )}
        </Aria.ListBox>
      </Popover>
    </Labelled>
  )
}

const Nothing = styled.p`
  padding: 8px 12px;
  font-size: var(--size-small);
`
