/** A thing as a tag: name, and what it costs on this tour. */
import { type ReactNode, useRef } from 'react'
import styled, { css } from 'styled-components'
import type { Thing } from '../api/client'
import { Icon } from '../ui/icons'
import { useUnits } from '../ui/preferences'
import { phone } from '../ui/theme'
import { useTouchDrag } from './useTouchDrag'

/** Where fingers point, the browser's own dragging would get in the way of ours. */
const FINGERS = window.matchMedia('(pointer: coarse)').matches

const cut = 'polygon(9px 0, 100% 0, 100% 100%, 9px 100%, 0 calc(100% - 9px), 0 9px)'

export const TagBody = styled.button<{ $held?: boolean }>`
  display: block;
  width: 100%;
  min-height: 42px;
  position: relative;
  margin-top: 4px;
  background: var(--edge);
  clip-path: ${cut};
  text-align: left;
  user-select: none;
  -webkit-touch-callout: none;
  touch-action: manipulation;
  &::before {
    content: '';
    position: absolute;
    inset: 1.5px;
    background: var(--tag);
    clip-path: ${cut};
  }
  &::after {
    content: '';
    position: absolute;
    left: 9px;
    top: 50%;
    width: 9px;
    height: 9px;
    margin-top: -4.5px;
    border-radius: 50%;
    background: var(--sky);
    border: 1.5px solid var(--edge);
  }
  &:hover {
    background: var(--ink);
  }
  &:focus-visible {
    outline: none;
    background: var(--ink);
    &::before {
      inset: 3.5px;
    }
  }
  > span {
    position: relative;
    display: block;
    padding: 4px 36px 4px 28px;
  }
  b {
    display: block;
    font-weight: 620;
    font-size: var(--size-text);
    font-stretch: var(--width-text);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    display: block;
    font-size: var(--size-note);
    line-height: 16px;
    font-stretch: var(--width-narrow);
    color: var(--ink2);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small.reason {
    white-space: normal;
  }
  small em {
    font-style: normal;
    font-weight: 700;
    color: var(--ink);
  }
  ${phone} {
    min-height: 56px;
    > span {
      padding-top: 10px;
    }
  }
  ${(p) =>
    p.$held &&
    css`
      transform: translate(8px, -2px);
      background: var(--onnow);
      &::before {
        inset: 2px;
        box-shadow: inset 0 0 0 2px var(--now);
      }
      &::after {
        background: var(--now);
        border-color: var(--onnow);
      }
    `}
`
const Wrap = styled.div`
  position: relative;
  > .more {
    position: absolute;
    right: 2px;
    top: 50%;
    transform: translateY(-50%);
  }
`

/** Minutes a day that a mass costs, in words. */
export function minutesWords(minutes: number | undefined): string {
  if (minutes === undefined) return ''
  return minutes < 0.5 ? ', under 1 min a day' : `, about ${Math.round(minutes)} min a day`
}

export function Tag({
  thing,
  count,
  minutes,
  where,
  held,
  pinned,
  onPress,
  onDragStart,
  onDrop,
  menu,
}: {
  thing: Thing
  count: number
  minutes: number | undefined
  where?: string
  held: boolean
  pinned?: boolean
  onPress: (more: boolean) => void
  onDragStart: () => void
  onDrop: (to: string | null) => void
  menu?: ReactNode
}) {
  const units = useUnits()
  const tag = useRef<HTMLButtonElement>(null)
  useTouchDrag(tag, onDragStart, onDrop)
  const about = (figure: 'mass' | 'volume') => (thing.guessed.includes(figure) ? '~' : '')
  const mass = thing.mass_kg * count
  return (
    <Wrap>
      <TagBody
        ref={tag}
        type="button"
        $held={held}
        aria-pressed={held}
        draggable={!FINGERS}
        data-thing={thing.id}
        onClick={(e) => onPress(e.ctrlKey || e.metaKey || e.shiftKey)}
        onDragStart={(e) => {
          e.dataTransfer.effectAllowed = 'move'
          e.dataTransfer.setData('text/plain', thing.name)
          onDragStart()
        }}
      >
        <span>
          <b>
            {count > 1 ? `${count} × ` : ''}
            {thing.name} {pinned && <Icon name="pin" size={12} />}
          </b>
          <small>
            {where ? `${where}, ` : ''}
            {about('mass')}
            <em>{units.figure(mass, 'mass')}</em> {units.show(mass, 'mass').split('\u00a0')[1]}, {about('volume')}
            <em>{units.figure(thing.volume_l * count, 'volume')}</em> {units.show(1, 'volume').split('\u00a0')[1]}
            {where ? '' : minutesWords(minutes)}
            {thing.guessed.includes('mass') ? ' guess' : ''}
          </small>
        </span>
      </TagBody>
      {menu && <div className="more">{menu}</div>}
    </Wrap>
  )
}
