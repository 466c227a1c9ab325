/** A road typed by hand: one line a day. */
import { useState } from 'react'
import type { Road } from '../../api/client'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted } from '../../ui/controls'
import { Area } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { read } from '../../ui/units'

type TypedDay = Road['typed_days'][number]

export function TypedDays({ days, onClose, onKeep }: { days: TypedDay[]; onClose: () => void; onKeep: (days: TypedDay[]) => void }) {
  const units = useUnits()
  const line = (d: TypedDay) =>
    [
      units.figure(d.distance_km, 'distance'),
      units.figure(d.ascent_m, 'elevation'),
      ...(d.highest_m === null ? [] : [units.figure(d.highest_m, 'elevation')]),
      ...(d.lowest_m === null ? [] : [units.figure(d.lowest_m, 'elevation')]),
    ]
      .map((t) => t.replace(/[\u202f]/g, ''))
      .join(' ')
  const [text, setText] = useState(days.map(line).join('\n'))
  const rows = text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
  const parsed = rows.map((row) => {
    const cells = row.split(/[\s;]+/)
    const [distance, ascent, high, low] = [0, 1, 2, 3].map((i) =>
      cells[i] === undefined ? undefined : read(cells[i], i === 0 ? 'distance' : 'elevation', units.system),
    )
    if (distance === undefined || (cells[1] !== undefined && ascent === undefined) || distance < 0 || distance > 500) return null
    return { distance_km: distance, ascent_m: ascent ?? 0, highest_m: high ?? null, lowest_m: low ?? null }
  })
  const bad = parsed.findIndex((d) => d === null)
  return (
    <Dialog draft title="Type the days" open onClose={onClose}>
      <Muted>
        One day a line: distance, climb, highest, lowest, with spaces between, in {units.system === 'metric' ? 'km and m' : 'miles and feet'}. The
        last two may be left out.
      </Muted>
      <Area aria-label="Days" value={text} onChange={(e) => setText(e.target.value)} placeholder={'72 850 640 120\n65 1100'} />
      <p role="status">{bad >= 0 ? `Line ${bad + 1} cannot be read: “${rows[bad]}”` : `${rows.length} days`}</p>
      <Actions>
        <Button onPress={onClose}>Not now</Button>
        <Button $wanted isDisabled={bad >= 0 || !rows.length} onPress={() => onKeep(parsed.filter((d) => d !== null))}>
          Take these days
        </Button>
      </Actions>
    </Dialog>
  )
}
