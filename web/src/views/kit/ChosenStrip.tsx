/** What is chosen, in sum, and what can be done with all of it at once. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Role, Thing, Whereabouts } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useKinds } from '../../api/useKinds'
import { minutesWords } from '../../instruments/Tag'
import { Dialog } from '../../ui/Dialog'
import { Menu, type MenuEntry } from '../../ui/Menu'
import { Actions, Button } from '../../ui/controls'
import { Field } from '../../ui/fields'
import { REACH_WORDS } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { CompareThings } from './CompareThings'
import { litresOf, massOf } from './groups'
import { DOES, roleOf } from './RoleFields'
import { HOW_WORDS, START } from './WhereFields'

const Strip = styled.div`
  flex: none;
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
  padding: 8px 20px;
  background: var(--land);
  color: var(--onland);
  b {
    font-size: var(--size-lead);
    font-stretch: var(--width-text);
  }
  .grow {
    flex: 1;
  }
  ${phone} {
    padding: 8px 14px;
  }
`
const DRY: MenuEntry[] = [
  { id: 'any', text: 'May get damp' },
  { id: 'own_bag', text: 'In its own dry bag' },
  { id: 'must', text: 'Must stay dry' },
]
const MOST_COMPARED = 4
const NEW = '+'
const NONE = '-'

/** Where a whole choice can be said to be at once; what needs a place or a bag is said of each. */
const WHERE = (['packed', 'worn', 'pocket', 'home'] as const).map((id) => ({ id, text: HOW_WORDS[id] }))

export function ChosenStrip({
  chosen,
  minutes,
  onAll,
  onDone,
}: {
  chosen: Thing[]
  minutes: Record<string, number>
  onAll: () => void
  onDone: () => void
}) {
  const { sheet, change } = useDesk()
  const { roles } = useKinds()
  const units = useUnits()
  const [naming, setNaming] = useState<string | null>(null)
  const [comparing, setComparing] = useState(false)
  const ids = new Set(chosen.map((t) => t.id))
  const all = chosen.length === 1 ? (chosen[0]?.name ?? '') : `${chosen.length} things`
  const set = (what: string, part: Partial<Thing>) => {
    void change(`${what} of ${all}`.slice(0, 200), { kit: sheet.kit.map((t) => (ids.has(t.id) ? { ...t, ...part } : t)) })
  }
  const sure = (t: Thing, figure: Thing['guessed'][number]) => t.guessed.filter((g) => g !== figure)
  const setSure = (what: string, figure: Thing['guessed'][number], part: Partial<Thing>) =>
    void change(`${what} of ${all}`.slice(0, 200), {
      kit: sheet.kit.map((t) => (ids.has(t.id) ? { ...t, ...part, guessed: sure(t, figure) } : t)),
    })
  const kits = [...new Set(sheet.kit.map((t) => t.group).filter(Boolean))].sort((a, b) => a.localeCompare(b))
  return (
    <Strip role="region" aria-label="Chosen things">
      <b role="status">
        {all} chosen: {units.show(massOf(chosen), 'mass')}, {units.show(litresOf(chosen), 'volume')}
        {minutesWords(chosen.reduce((sum, t) => sum + (minutes[t.id] ?? 0), 0))}
      </b>
      <span className="grow" />
      <Menu
        label="Moment of use"
        entries={Object.entries(REACH_WORDS).map(([id, text]) => ({ id, text }))}
        onChoose={(id) => setSure('Set the moment', 'reach', { reach: id as Thing['reach'] })}
      >
        <Button $small>Moment</Button>
      </Menu>
      <Menu
        label="Kit"
        entries={[...kits.map((id) => ({ id: `k${id}`, text: id })), { id: NEW, text: 'A new kit …' }, { id: NONE, text: 'No kit' }]}
        onChoose={(id) => (id === NEW ? setNaming('') : set('Set the kit', { group: id === NONE ? '' : id.slice(1) }))}
      >
        <Button $small>Kit</Button>
      </Menu>
      <Menu
        label="Who carries it"
        entries={[{ id: NONE, text: 'Shared: wherever it fits' }, ...sheet.riders.map((r) => ({ id: r.id, text: r.name }))]}
        onChoose={(id) => set('Set who carries', { rider_id: id === NONE ? null : id })}
      >
        <Button $small>Who</Button>
      </Menu>
      <Menu label="Dry" entries={DRY} onChoose={(id) => setSure('Set the dryness', 'dry', { dry: id as Thing['dry'] })}>
        <Button $small>Dry</Button>
      </Menu>
      <Menu
        label="Where it is"
        entries={WHERE}
        onChoose={(id) =>
          set('Set where it is', id === 'packed' ? { where: [] } : { where: [{ ...START, how: id as Whereabouts['how'] }], inside: null })
        }
      >
        <Button $small>Worn</Button>
      </Menu>
      <Menu
        label="What it does"
        entries={[...DOES, { id: NONE, text: 'nothing for stores, sleep or clothes' }]}
        onChoose={(id) => set('Set what it does', { role: id === NONE ? null : roleOf(roles, id as Role['does']) })}
      >
        <Button $small>Does</Button>
      </Menu>
      {chosen.length > 1 && chosen.length <= MOST_COMPARED && (
        <Button $small onPress={() => setComparing(true)}>
          Compare
        </Button>
      )}
      <Button
        $small
        onPress={() => {
          void change(`Remove ${all}`.slice(0, 200), { kit: sheet.kit.filter((t) => !ids.has(t.id)) })
          onDone()
        }}
      >
        Remove
      </Button>
      <Button $small onPress={onAll}>
        Choose all
      </Button>
      <Button $small onPress={onDone}>
        Choose none
      </Button>
      {comparing && <CompareThings things={chosen} onClose={() => setComparing(false)} />}
      {naming !== null && (
        <Dialog draft title="A new kit" open onClose={() => setNaming(null)}>
          <Field label="Its name" value={naming} onChange={setNaming} placeholder="cook, sleep, wash …" />
          <Actions>
            <Button onPress={() => setNaming(null)}>Not now</Button>
            <Button
              $wanted
              isDisabled={!naming.trim()}
              onPress={() => {
                set('Set the kit', { group: naming.trim().slice(0, 60) })
                setNaming(null)
              }}
            >
              Put {all} in it
            </Button>
          </Actions>
        </Dialog>
      )}
    </Strip>
  )
}
