/** What happened: what comes next ticked, four big buttons, what was noted last, and more beside; one of them opened. */
import { useState } from 'react'
import styled from 'styled-components'
import type { Draft } from '../../offline/queue'
import { useAuthor } from '../../offline/useAuthor'
import { Actions, Button } from '../../ui/controls'
import { Dot } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { CareTonight } from './CareTonight'
import { ComesNext } from './ComesNext'
import { type OpenVerb, VerbPanel } from './Panels'
import type { Today } from './useToday'
import { VerbIcon } from './VerbIcon'
import { Where } from './Where'
import { VERBS, wallOf, wordsOf } from './words'

const Four = styled.div<{ $row?: boolean }>`
  display: grid;
  grid-template-columns: repeat(${(p) => (p.$row ? 3 : 2)}, 1fr);
  gap: 8px;
  margin-top: 10px;
  > button {
    border: 2px solid var(--ink);
    border-radius: 3px;
    background: var(--tag);
    min-height: ${(p) => (p.$row ? 84 : 92)}px !important;
    padding: 12px 14px;
    display: flex;
    flex-direction: column;
    justify-content: space-between;
    font-size: ${(p) => (p.$row ? 16 : 18)}px;
    font-weight: 680;
    text-align: left;
  }
`
const More = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  gap: 8px;
  margin-top: 8px;
  > button {
    min-height: 52px;
    padding: 0 8px;
  }
`
const Last = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 10px;
  > p {
    flex: 1;
    font-size: var(--size-small);
  }
`
/** Where each entry is reached; the type asks for every one. */
const REACHED: Record<OpenVerb, 'big' | 'beside' | 'elsewhere'> = {
  ...{ used: 'big', sent_home: 'big', broke: 'big', ran_out: 'big' },
  ...{ drank: 'beside', ate: 'beside', filled: 'beside', bought: 'beside', left: 'beside', slept: 'beside', spent: 'beside', charged: 'beside' },
  ...{ packed_in: 'beside', lost: 'beside', given_away: 'beside', swapped: 'beside', mended: 'beside', wore: 'beside', pressure: 'beside' },
  ...{ oiled: 'beside', washed: 'beside', wet_through: 'beside', hurt: 'beside', hazard: 'beside', note: 'beside' },
  ...{ set_out: 'elsewhere', arrived: 'elsewhere', here: 'elsewhere' },
}
const reached = (where: 'big' | 'beside') => (Object.keys(REACHED) as OpenVerb[]).filter((verb) => REACHED[verb] === where)
const [BIG, BESIDE] = [reached('big'), reached('beside')]

export function Deeds({ today }: { today: Today }) {
  const { sheet, now, diary, gone, last } = today
  const units = useUnits()
  const [open, setOpen] = useState<OpenVerb | null>(null)
  const [more, setMore] = useState(false)
  const note = async (drafts: Draft[], picture?: Blob) => {
    if (!(await today.note(drafts, picture))) return
    setOpen(null)
    setMore(false)
  }
  if (open)
    return (
      <>
        <VerbPanel
          key={open}
          verb={open}
          now={now}
          gone={gone}
          onKeep={(drafts, picture) => void note(drafts, picture)}
          onClose={() => setOpen(null)}
        />
        <Four $row>
          {BIG.filter((v) => v !== open)
            .slice(0, 3)
            .map((v) => (
              <button key={v} type="button" onClick={() => setOpen(v)}>
                <VerbIcon verb={v} size={34} />
                {VERBS[v]}
              </button>
            ))}
        </Four>
      </>
    )
  return (
    <>
      {now.planned.length > 0 && (
        <ComesNext planned={now.planned.slice(0, 3)} entries={diary.entries} onDone={(draft) => void note([draft])} onOther={setOpen} />
      )}
      <CareTonight
        tasks={now.care}
        today={diary.entries.filter((one) => wallOf(one.entry).date === now.date)}
        onDone={(draft) => void note([draft])}
      />
      <Four>
        {BIG.map((v) => (
          <button key={v} type="button" onClick={() => setOpen(v)}>
            <VerbIcon verb={v} />
            {VERBS[v]}
          </button>
        ))}
      </Four>
      <Last>
        <p>{last ? `Last: ${wordsOf(last.entry, sheet, units)}, ${wallOf(last.entry).time}` : 'Nothing noted yet.'}</p>
        {last && <Button onPress={() => void diary.undo(last.entry)}>Undo it</Button>}
        <Button aria-expanded={more} onPress={() => setMore(!more)}>
          More
        </Button>
      </Last>
      {now.tonight.length > 0 && (
        <Actions style={{ justifyContent: 'flex-start', marginTop: 8 }}>
          {now.tonight.slice(0, 2).map((q) => (
            <Button
              key={q.key}
              onPress={() =>
                q.key === 'slept'
                  ? setOpen('slept')
                  : q.key === 'bolts'
                    ? void note([{ verb: 'checked', about: q.about, word: 'done' }])
                    : setOpen('left')
              }
            >
              {q.words}
            </Button>
          ))}
        </Actions>
      )}
      {more && <Beside today={today} onOpen={setOpen} />}
    </>
  )
}

/** All other entries, the kilometre, and who notes. */
function Beside({ today: { sheet, now, km, note, setMoved, lay }, onOpen }: { today: Today; onOpen: (verb: OpenVerb) => void }) {
  const [author, setAuthor] = useAuthor()
  return (
    <>
      <More>
        {BESIDE.map((v) => (
          <Button key={v} onPress={() => onOpen(v)}>
            {VERBS[v]}
          </Button>
        ))}
        {now.begun && !now.over && <Button onPress={() => void note([{ verb: 'arrived' }])}>Arrived</Button>}
      </More>
      <Where km={km} onKm={setMoved} onTrack={lay} />
      <Actions style={{ justifyContent: 'flex-start', marginTop: 8 }}>
        {sheet.riders.map((r) => (
          <Button key={r.id} $small aria-pressed={r.name === author} onPress={() => setAuthor(r.name)}>
            <Dot on={r.name === author} />I am {r.name}
          </Button>
        ))}
      </Actions>
    </>
  )
}
