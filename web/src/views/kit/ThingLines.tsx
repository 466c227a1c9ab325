/** Things one a line: where each is, why it comes, its price as three bars, kilograms and litres. Lines are chosen, opened and dragged. */
import { memo, type RefObject } from 'react'
import * as Aria from 'react-aria-components'
import styled from 'styled-components'
import type { Thing, Whereabouts } from '../../api/client'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { WhereShape } from './WhereShape'

const DRAGGED = 'text/x-omnifer-thing'
const BAR = 54

const List = styled(Aria.GridList)`
  outline: none;
  &[data-drop-target] {
    box-shadow: inset 0 0 0 2px var(--ink);
  }
` as typeof Aria.GridList
const Line = styled(Aria.GridListItem)`
  position: relative;
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) ${BAR}px 46px 40px 16px;
  align-items: center;
  gap: 0 6px;
  min-height: 25px;
  border-bottom: 1px solid var(--hair);
  cursor: pointer;
  outline: none;
  .words {
    display: flex;
    align-items: baseline;
    gap: 8px;
    min-width: 0;
  }
  b {
    flex: 0 1 auto;
    font-size: var(--size-small);
    font-weight: 630;
    font-stretch: var(--width-text);
  }
  b,
  small {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    flex: 1 1 34%;
    font-size: var(--size-fine);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
  }
  .n {
    text-align: right;
    font-size: var(--size-small);
    font-stretch: var(--width-text);
    white-space: nowrap;
  }
  .n.kg {
    font-weight: 680;
  }
  .shape {
    position: relative;
    display: grid;
    place-items: center;
    width: 22px;
    height: 24px;
    cursor: pointer;
  }
  .grip {
    opacity: 0;
    width: 16px;
    display: grid;
    place-items: center;
  }
  &[data-hovered] .grip,
  &[data-focus-visible-within] .grip,
  .grip[data-focus-visible] {
    opacity: 1;
  }
  &[data-selected] {
    background: var(--tag);
    box-shadow: inset 4px 0 0 var(--ink);
  }
  &[data-hovered] b {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  &[data-focus-visible] {
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
  ${phone} {
    grid-template-columns: 44px minmax(0, 1fr) 52px 48px;
    min-height: 48px;
    .words {
      display: block;
    }
    b,
    small {
      display: block;
    }
    .shape {
      width: 44px;
      height: 44px;
    }
    .bars,
    .grip {
      display: none;
    }
  }
`

/** What a full bar stands for, on the whole screen. */
export interface Scales {
  kg: number
  l: number
  minutes: number
}

/** A thing as its line draws it; lengths of bars to half a pixel [px]. */
export interface LineOf {
  id: string
  thing: Thing
  why: string
  bars: readonly [number, number, number]
}

export function lineOf(thing: Thing, why: string, minutes: number, scales: Scales): LineOf {
  const wide = (value: number, most: number) => (most > 0 ? Math.max(1.5, Math.round(2 * (BAR - 2) * Math.min(value / most, 1)) / 2) : 0)
  const bars = [wide(thing.mass_kg * thing.count, scales.kg), wide(thing.volume_l * thing.count, scales.l), wide(minutes, scales.minutes)] as const
  return { id: thing.id, thing, why, bars }
}

interface Props {
  title: string
  lines: LineOf[]
  chosen: Set<string>
  onChoose: (ids: Set<string>) => void
  onOpen: (thing: Thing) => void
  /** Things dropped here; what it does is looked up when it happens. */
  onDrop: RefObject<(title: string, ids: string[]) => void>
  empty: string
}

const alike = (a: LineOf[], b: LineOf[]) =>
  a.length === b.length &&
  a.every((line, i) => {
    const other = b[i]
    return other && line.thing === other.thing && line.why === other.why && line.bars.every((bar, n) => bar === other.bars[n])
  })

/** Drawn anew only where a line looks otherwise: a list of all things takes a second of a phone. */
export const ThingLines = memo(
  Lines,
  (a, b) => a.title === b.title && a.chosen === b.chosen && a.empty === b.empty && a.onDrop === b.onDrop && alike(a.lines, b.lines),
)

function Lines({ title, lines, chosen, onChoose, onOpen, onDrop, empty }: Props) {
  const units = useUnits()
  const byId = new Map(lines.map(({ thing }) => [thing.id, thing]))
  const { dragAndDropHooks } = Aria.useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ [DRAGGED]: String(key), 'text/plain': byId.get(String(key))?.name ?? '' })),
    acceptedDragTypes: [DRAGGED],
    getDropOperation: () => 'move',
    onRootDrop: (e) => {
      const dropped = e.items.filter((item) => item.kind === 'text').map((item) => item.getText(DRAGGED))
      void Promise.all(dropped).then((ids) =>
        onDrop.current(
          title,
          ids.filter((id) => !byId.has(id)),
        ),
      )
    },
  })
  return (
    <List
      aria-label={title}
      items={lines}
      selectionMode="multiple"
      selectedKeys={[...chosen].filter((id) => byId.has(id))}
      onSelectionChange={(keys) => {
        const others = [...chosen].filter((id) => !byId.has(id))
        onChoose(new Set([...others, ...(keys === 'all' ? byId.keys() : [...keys].map(String))]))
      }}
      onAction={(key) => {
        const thing = byId.get(String(key))
        if (thing) onOpen(thing)
      }}
      dragAndDropHooks={dragAndDropHooks}
      dependencies={[units]}
      renderEmptyState={() => <small style={{ padding: '4px 0', display: 'block' }}>{empty}</small>}
    >
      {({ thing: t, why, bars }) => {
        return (
          <Line id={t.id} textValue={t.name} data-thing={t.id}>
            <Aria.Checkbox slot="selection" className="shape" aria-label={`Choose ${t.name}`}>
              {({ isSelected }) => (isSelected ? <Icon name="tick" size={15} /> : <WhereShape how={howOf(t)} />)}
            </Aria.Checkbox>
            <span className="words">
              <b>
                {t.count > 1 ? `${t.count} × ` : ''}
                {t.name}
              </b>
              {why && <small>{why}</small>}
            </span>
            <Bars bars={bars} />
            <span className="n kg">
              {t.guessed.includes('mass') ? '~' : ''}
              {units.figure(t.mass_kg * t.count, 'mass')}
            </span>
            <span className="n">
              {t.guessed.includes('volume') ? '~' : ''}
              {units.figure(t.volume_l * t.count, 'volume')}
            </span>
            <Aria.Button slot="drag" className="grip" aria-label={`Drag ${t.name}`}>
              <Icon name="more" size={12} />
            </Aria.Button>
          </Line>
        )
      }}
    </List>
  )
}

/** Where a thing is at the start. */
export const howOf = (t: Thing): Whereabouts['how'] => (t.where[0]?.from_km === 0 ? t.where[0].how : 'packed')

/** Kilograms solid, litres open, minutes a day hatched. */
function Bars({ bars: [kg, l, minutes] }: { bars: LineOf['bars'] }) {
  return (
    <svg className="bars" width={BAR} height={19} aria-hidden="true">
      <rect x={1} y={1} width={kg} height={5} fill="var(--ink)" />
      <rect x={1} y={7.5} width={l} height={4.5} fill="none" stroke="var(--ink)" strokeWidth={1} />
      <rect x={1} y={13.5} width={minutes} height={5} fill="url(#hatch)" stroke="var(--ink)" strokeWidth={0.8} />
    </svg>
  )
}
