/** Things one a line: where each is, why it comes, its price as three bars, kilograms and litres. Lines are chosen, opened and dragged. */
import { type FocusEvent, type DragEvent, type KeyboardEvent, type MouseEvent, memo, type RefObject, useRef, useState } from 'react'
import styled from 'styled-components'
import type { Thing, Whereabouts } from '../../api/client'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { WhereShape } from './WhereShape'

const DRAGGED = 'text/x-omnifer-thing'
const BAR = 54

const List = styled.div`
  outline: none;
  &[data-over] {
    box-shadow: inset 0 0 0 2px var(--ink);
  }
  small {
    display: block;
    padding: 4px 0;
  }
`
const Row = styled.div`
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
  small {
    padding: 0;
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
  .shape input {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    margin: 0;
    opacity: 0;
    cursor: pointer;
  }
  .grip {
    opacity: 0;
    width: 16px;
    display: grid;
    place-items: center;
  }
  &:hover .grip {
    opacity: 1;
  }
  &[aria-selected='true'] {
    background: var(--tag);
    box-shadow: inset 4px 0 0 var(--ink);
  }
  &:hover b {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  &:focus-visible {
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

/** The line an event of the list is about. */
const rowOf = (e: { target: EventTarget }) => (e.target as Element).closest<HTMLElement>('[data-thing]')

/**
 * A grid of one column of rows, by the pattern of WAI-ARIA: one stop for the tab key, arrows between rows, space chooses, return opens. The list
 * hears for its rows, which only draw: with a component of behaviour in each, an edit of one thing drew its whole list, 0.8 s of a page.
 */
export function ThingLines({ title, lines, chosen, onChoose, onOpen, onDrop, empty }: Props) {
  const units = useUnits()
  const [at, setAt] = useState<string | null>(null)
  const [over, setOver] = useState(false)
  const from = useRef<string | null>(null)
  const ids = lines.map((l) => l.id)
  const current = at !== null && ids.includes(at) ? at : ids[0]
  const choose = (id: string, range = false) => {
    const next = new Set(chosen)
    const [a, b] = [ids.indexOf(from.current ?? id), ids.indexOf(id)]
    if (range && a >= 0) ids.slice(Math.min(a, b), Math.max(a, b) + 1).forEach((other) => next.add(other))
    else if (!next.delete(id)) next.add(id)
    from.current = id
    onChoose(next)
  }
  const open = (id: string) => {
    const thing = lines.find((l) => l.id === id)?.thing
    if (thing) onOpen(thing)
  }
  const onClick = (e: MouseEvent) => {
    const id = rowOf(e)?.dataset.thing
    if (!id) return
    if ((e.target as Element).closest('input')) choose(id, e.shiftKey)
    else if (!(e.target as Element).closest('.shape')) (chosen.size ? choose : open)(id)
  }
  const onKeyDown = (e: KeyboardEvent<HTMLElement>) => {
    const row = rowOf(e)
    const id = row?.dataset.thing
    if (!row || !id || e.altKey) return
    const step = { ArrowDown: 1, ArrowUp: -1, Home: -ids.length, End: ids.length }[e.key]
    if (step !== undefined) {
      const to = Math.min(Math.max(ids.indexOf(id) + step, 0), ids.length - 1)
      e.currentTarget.querySelectorAll<HTMLElement>('[data-thing]')[to]?.focus()
      if (e.shiftKey) onChoose(new Set([...chosen, id, ids[to] ?? id]))
    } else if (e.key === ' ') choose(id, e.shiftKey)
    else if (e.key === 'Enter') open(id)
    else if (e.key === 'Escape' && chosen.size) onChoose(new Set())
    else if (e.key === 'a' && (e.ctrlKey || e.metaKey)) onChoose(new Set([...chosen, ...ids]))
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  const onDragStart = (e: DragEvent) => {
    const id = rowOf(e)?.dataset.thing
    if (!id) return
    e.dataTransfer.effectAllowed = 'move'
    e.dataTransfer.setData(DRAGGED, JSON.stringify(chosen.has(id) ? [...chosen] : [id]))
    e.dataTransfer.setData('text/plain', lines.find((l) => l.id === id)?.thing.name ?? '')
  }
  const onDragOver = (e: DragEvent) => {
    if (!e.dataTransfer.types.includes(DRAGGED)) return
    e.preventDefault()
    setOver(true)
  }
  const dropped = (e: DragEvent) => {
    e.preventDefault()
    setOver(false)
    const dragged = JSON.parse(e.dataTransfer.getData(DRAGGED) || '[]') as string[]
    onDrop.current(
      title,
      dragged.filter((id) => !ids.includes(id)),
    )
  }
  return (
    <List
      role="grid"
      aria-label={title}
      aria-multiselectable
      data-over={over || undefined}
      onClick={onClick}
      onKeyDown={onKeyDown}
      onFocus={(e: FocusEvent) => setAt(rowOf(e)?.dataset.thing ?? null)}
      onDragStart={onDragStart}
      onDragOver={onDragOver}
      onDragLeave={(e) => setOver(e.currentTarget.contains(e.relatedTarget as Node | null))}
      onDrop={dropped}
    >
      {lines.map((line) => (
        <Line key={line.id} {...line} chosen={chosen.has(line.id)} current={line.id === current} units={units} />
      ))}
      {!lines.length && (
        <div role="row">
          <small role="gridcell">{empty}</small>
        </div>
      )}
    </List>
  )
}

interface Drawn extends LineOf {
  chosen: boolean
  current: boolean
  units: ReturnType<typeof useUnits>
}

const Line = memo(
  function Line({ thing: t, why, bars, chosen, current, units }: Drawn) {
    return (
      <Row role="row" aria-label={t.name} aria-selected={chosen} tabIndex={current ? 0 : -1} draggable data-thing={t.id}>
        <span className="shape" role="gridcell">
          <input type="checkbox" tabIndex={-1} checked={chosen} readOnly aria-label={`Choose ${t.name}`} />
          {chosen ? <Icon name="tick" size={15} /> : <WhereShape how={howOf(t)} />}
        </span>
        <span className="words" role="gridcell">
          <b>
            {t.count > 1 ? `${t.count} × ` : ''}
            {t.name}
          </b>
          {why && <small>{why}</small>}
        </span>
        <Bars bars={bars} />
        <span className="n kg" role="gridcell">
          {t.guessed.includes('mass') ? '~' : ''}
          {units.figure(t.mass_kg * t.count, 'mass')}
        </span>
        <span className="n" role="gridcell">
          {t.guessed.includes('volume') ? '~' : ''}
          {units.figure(t.volume_l * t.count, 'volume')}
        </span>
        <span className="grip" aria-hidden="true">
          <Icon name="more" size={12} />
        </span>
      </Row>
    )
  },
  ({ bars, ...a }, { bars: others, ...b }) =>
    bars.every((bar, n) => bar === others[n]) && (Object.keys(a) as (keyof typeof a)[]).every((key) => a[key] === b[key]),
)

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
