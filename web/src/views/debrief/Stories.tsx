/** Each thing against the days: a line carried, blocks used, marks where it left, came or broke; its verdict at the right end. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Day, ThingStory } from '../../api/client'
import { ribbonScale } from '../../instruments/ribbonScale'
import { useSize } from '../../instruments/useSize'
import { Menu } from '../../ui/Menu'
import { Button, Muted, RailLine } from '../../ui/controls'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { FIRST, OF_WARMTH, VERDICTS } from './verdicts'

/** Names end where the ribbon above begins, and the strips where it ends. */
const NAMES_PX = 148
export const BUTTONS_PX = 312
const RIBBON_END_PX = 22

const Row = styled.li`
  display: grid;
  grid-template-columns: ${NAMES_PX}px minmax(0, 1fr) ${BUTTONS_PX}px;
  align-items: center;
  border-bottom: 1px solid var(--hair);
  min-height: 44px;
  > div:first-child {
    min-width: 0;
    padding: 4px 10px 4px 0;
    line-height: 16px;
    b {
      display: block;
      font-weight: 620;
      font-stretch: var(--width-narrow);
    }
    span {
      font-size: var(--size-note);
    }
  }
  ${phone} {
    grid-template-columns: 1fr;
    padding: 6px 0;
    gap: 4px;
  }
`
const Said = styled.div`
  display: flex;
  gap: 4px;
  justify-content: flex-end;
  ${phone} {
    justify-content: flex-start;
  }
  button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--tag);
    border-color: var(--ink);
  }
`
const Words = styled.p`
  font-size: var(--size-note);
  font-stretch: var(--width-narrow);
  line-height: 15px;
  text-align: right;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  ${phone} {
    text-align: left;
    white-space: normal;
  }
`
const AT_FIRST = 14
const HEIGHT = 18

export function Stories({
  stories,
  days,
  along,
  pending,
  onJudge,
}: {
  stories: ThingStory[]
  days: number
  /** The days as the ribbon above spaces them; left out, all alike. */
  along?: Day[]
  pending: Map<string, string>
  onJudge: (thing: string, verdict: string) => void
}) {
  const [all, setAll] = useState(false)
  const [bag, setBag] = useState('')
  // What is of most weight for a day of use comes first; what nobody judged waits behind.
  const price = (s: ThingStory) => (s.verdict === null ? -1 : s.kg / Math.max(s.verdict === 'daily' ? days : s.used_days.length, 0.5))
  const bags = [...new Set(stories.map((s) => s.bag))]
  const ordered = bag ? stories.filter((s) => s.bag === bag) : [...stories].sort((a, b) => price(b) - price(a))
  const shown = all || bag ? ordered : ordered.slice(0, AT_FIRST)
  return (
    <section aria-label="Things" style={{ marginTop: 6 }}>
      <RailLine>
        <Icon name="kit" size={17} />
        {bag ? `Unpacking: ${bag}` : 'Most kilograms carried for a day of use first'}
        <em>
          <Menu
            label="Unpack a bag"
            entries={[
              { id: 'all', text: 'All things by their price' },
              ...bags.map((b) => ({ id: `bag ${b}`, text: b || 'Worn, fixed or at home' })),
            ]}
            onChoose={(id) => setBag(id === 'all' ? '' : id.slice(4))}
          >
            <Button $small>Unpack bag by bag</Button>
          </Menu>
        </em>
      </RailLine>
      <Legend />
      <ul>
        {shown.map((s) => (
          <Story key={s.thing_id} story={s} days={days} along={along} said={pending.get(s.thing_id)} onJudge={(v) => onJudge(s.thing_id, v)} />
        ))}
      </ul>
      {ordered.length > shown.length && (
        <Button $small onPress={() => setAll(true)} style={{ marginTop: 8 }}>
          {ordered.length - shown.length} more things
        </Button>
      )}
    </section>
  )
}

interface StoryProps {
  story: ThingStory
  days: number
  along?: Day[]
  said?: string
  onJudge: (verdict: string) => void
}

function Story({ story, days, along, said, onJudge }: StoryProps) {
  const units = useUnits()
  const verdict = said ?? story.verdict
  const own = said !== undefined || story.said
  const among = FIRST.includes(verdict as (typeof FIRST)[number])
  const words: Record<string, string> = story.warms ? { ...VERDICTS, ...OF_WARMTH } : VERDICTS
  const other = verdict && !among ? words[verdict] : undefined
  const judged = story.thing_id.startsWith('wish-')
  return (
    <Row aria-label={story.name}>
      <div>
        <b>{story.name}</b>
        <Muted as="span">{story.used}</Muted>
      </div>
      <div>
        <Words>{said !== undefined && said !== story.verdict ? 'noted' : units.say(story.words)}</Words>
        <Strip story={story} days={days} along={along} />
      </div>
      {judged ? (
        <span />
      ) : (
        <Said role="group" aria-label={`Verdict on ${story.name}`}>
          {FIRST.map((v) => (
            <Button key={v} $small aria-pressed={verdict === v && own} onPress={() => onJudge(v)}>
              {verdict === v && !own ? `${VERDICTS[v]}?` : VERDICTS[v]}
            </Button>
          ))}
          <Menu
            label={`More verdicts on ${story.name}`}
            entries={Object.entries(words)
              .filter(([id]) => !FIRST.includes(id as (typeof FIRST)[number]))
              .map(([id, text]) => ({ id, text }))}
            onChoose={onJudge}
          >
            <Button
              $small
              aria-pressed={own && other !== undefined}
              aria-label={other ? `${other}: more verdicts on ${story.name}` : `More verdicts on ${story.name}`}
            >
              {other ?? '…'}
            </Button>
          </Menu>
        </Said>
      )}
    </Row>
  )
}

function Strip({ story, days, along }: { story: ThingStory; days: number; along?: Day[] }) {
  const [box, { width }] = useSize<HTMLDivElement>()
  const edges = along && ribbonScale(along, 0, width - RIBBON_END_PX).edges
  const x = (day: number) => edges?.[day] ?? (day / days) * (width - 10)
  const y = HEIGHT / 2
  const used =
    story.verdict === 'daily' && !story.used_days.length
      ? Array.from({ length: story.carried_to - story.carried_from + 1 }, (_, i) => story.carried_from + i)
      : story.used_days
  return (
    <div ref={box} style={{ height: HEIGHT }}>
      {width > 0 && story.carried_to > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`${story.name}: carried from day ${story.carried_from} to ${story.carried_to}, ${story.used || 'use not said'}`}
        >
          <path
            d={`M${x(story.carried_from - 1)} ${y}H${x(story.carried_to)}`}
            stroke="var(--ink)"
            strokeWidth={1.4}
            strokeDasharray={story.insurance ? '3 3' : undefined}
          />
          {used.map((d) => (
            <rect key={d} x={x(d - 1) + 0.6} y={y - 3} width={Math.max(x(d) - x(d - 1) - 1.2, 2)} height={6} fill="var(--ink)" />
          ))}
          {story.marks.map((m) => {
            const at = x(m.day - (m.kind === 'came' ? 1 : 0))
            const key = `${m.day} ${m.kind}`
            if (m.kind === 'came') return <path key={key} d={`M${at - 5} ${y}h10M${at} ${y - 5}v10`} stroke="var(--ink)" strokeWidth={2} />
            if (m.kind === 'broke' || m.kind === 'wore_out')
              return <path key={key} d={`M${at} ${y - 7}l3 5l-4 3l3 5`} fill="none" stroke="var(--ink)" strokeWidth={2} />
            return <path key={key} d={`M${at} ${y - 5}v10M${at} ${y}h9m-4-4l4 4l-4 4`} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
          })}
        </svg>
      )}
    </div>
  )
}

function Legend() {
  return (
    <Muted style={{ padding: '3px 0' }}>
      Block: used that day. Line: carried. Dashed: insurance. Arrow: left the bike. Plus: came. Crack: broke. A question mark: what the diary
      proposes.
    </Muted>
  )
}
