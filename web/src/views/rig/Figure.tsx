/** A figure of a bike with where it is from beneath it; one that is overwritten is measured until its rider says it is the maker's. */
import type { ReactNode } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import type { Bike } from '../../api/client'
import { Menu } from '../../ui/Menu'

const Box = styled.div`
  display: flex;
  flex-direction: column;
  min-width: 0;
`
type Source = NonNullable<Bike['sources'][string]>
const SOURCES: Record<Source, string> = { maker: 'the maker’s', measured: 'measured', default: 'common practice' }
const Whence = styled(AriaButton)`
  font-size: var(--size-fine);
  font-stretch: var(--width-narrow);
  color: var(--ink2);
  text-align: left;
  min-height: 24px;
  cursor: pointer;
  border-bottom: 1px dotted var(--ink2);
  align-self: start;
  @media (pointer: coarse) {
    min-height: 44px;
  }
`

/** Keeps a part of a bike, told by what it is. */
export type Say = (what: string, part: Partial<Bike>) => void

interface Props {
  of: Bike
  id: string
  label: string
  say: Say
  children: (taken: (part: Partial<Bike>) => void) => ReactNode
}

export function Figure({ of: bike, id, label, say, children }: Props) {
  const source = bike.sources[id] ?? 'default'
  const put = (part: Partial<Bike>, from: Source) => say(label, { ...part, sources: { ...bike.sources, [id]: from } })
  return (
    <Box>
      {children((part) => put(part, source === 'default' ? 'measured' : source))}
      <Menu
        label={`Where ${label} is from`}
        entries={(Object.keys(SOURCES) as Source[]).map((from) => ({ id: from, text: SOURCES[from] }))}
        onChoose={(from) => put({}, from as Source)}
      >
        <Whence aria-label={`${label}: ${SOURCES[source]}. Say where it is from`}>{SOURCES[source]}</Whence>
      </Menu>
    </Box>
  )
}
