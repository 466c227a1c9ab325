/** What was noted, the newest first: taken, on its way, or refused; each can be undone. */
import { type ReactNode, useState } from 'react'
import styled from 'styled-components'
import { useDesk } from '../../api/tour'
import { giveUp, giveUpPicture, sendAgain } from '../../offline/queue'
import { Button, Muted } from '../../ui/controls'
import { fullDate } from '../../ui/dates'
import { Fold } from '../../ui/Fold'
import { useUnits } from '../../ui/preferences'
import type { Shown } from './useDiary'
import { wallOf, wordsOf } from './words'

const Log = styled.ol`
  li {
    display: grid;
    grid-template-columns: 54px 1fr auto;
    gap: 8px;
    align-items: baseline;
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
  }
  li[data-state='waiting'] {
    border-left: 3px dashed var(--ink);
    padding-left: 8px;
  }
  li[data-state='refused'] {
    border-left: 3px solid var(--ink);
    padding-left: 8px;
  }
  img {
    max-width: 220px;
    display: block;
    margin-top: 4px;
  }
  h3 {
    font-weight: 700;
    padding-top: 10px;
  }
`
const Trouble = styled.span`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  padding-top: 4px;
`
const FIRST_ENTRIES = 60

interface RefusedProps {
  what: string
  id: string
  onForget: (id: string) => Promise<void>
  children?: ReactNode
}

/** What was not taken, and what can be done about it. */
function Refused({ what, id, onForget, children }: RefusedProps) {
  return (
    <Trouble role="alert">
      <b>{what}</b>
      <Button $small onPress={() => void sendAgain(id)}>
        Send it again
      </Button>
      {children}
      <Button $small onPress={() => void onForget(id)}>
        Forget it
      </Button>
    </Trouble>
  )
}

/** Hands a picture back to the files of this device. */
function save(picture: Blob, date: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(picture)
  link.download = `diary ${date}${picture instanceof File ? ` ${picture.name}` : ''}`
  link.click()
  window.setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}

export function Entries({ entries, onUndo }: { entries: Shown[]; onUndo: (one: Shown) => void }) {
  const { sheet, tour } = useDesk()
  const units = useUnits()
  const [all, setAll] = useState(false)
  const shown = entries.toReversed().slice(0, all ? undefined : FIRST_ENTRIES)
  if (!entries.length) return <Muted style={{ marginTop: 10 }}>Nothing is noted yet. One touch on a verb, one on Keep.</Muted>
  return (
    <Fold summary={`${entries.length} entries`} open>
      <Log>
        {shown.map((one, i) => {
          const wall = wallOf(one.entry)
          const above = shown[i - 1]
          const head = !above || wallOf(above.entry).date !== wall.date
          return (
            <li key={one.entry.id} data-state={one.state}>
              {head && <h3 style={{ gridColumn: '1 / -1' }}>{fullDate(wall.date)}</h3>}
              <Muted as="span">{wall.time}</Muted>
              <span>
                {wordsOf(one.entry, sheet, units)}
                <Muted as="span">
                  {' '}
                  {[one.entry.author, one.entry.km === null ? '' : units.show(one.entry.km, 'distance', 0), one.state === 'waiting' ? 'to send' : '']
                    .filter(Boolean)
                    .join(', ')}
                </Muted>
                {one.entry.note && <Muted>{one.entry.note}</Muted>}
                {one.hasPicture && (
                  <img
                    src={`/api/tours/${tour.id}/diary/${one.entry.id}/picture`}
                    alt={one.entry.note || wordsOf(one.entry, sheet, units)}
                    loading="lazy"
                  />
                )}
                {one.picture && (
                  <Refused what={`Picture not taken: ${one.picture.refused}`} id={one.entry.id} onForget={giveUpPicture}>
                    <Button $small onPress={() => one.picture && save(one.picture.picture, wall.date)}>
                      Save it on this device
                    </Button>
                  </Refused>
                )}
                {one.refused && <Refused what={`Not taken: ${one.refused}`} id={one.entry.id} onForget={giveUp} />}
              </span>
              {one.state !== 'refused' && (
                <Button $small aria-label={`Undo: ${wordsOf(one.entry, sheet, units)}`} onPress={() => onUndo(one)}>
                  Undo
                </Button>
              )}
            </li>
          )
        })}
      </Log>
      {entries.length > shown.length && (
        <Button $small onPress={() => setAll(true)}>
          Show all {entries.length}
        </Button>
      )}
    </Fold>
  )
}
