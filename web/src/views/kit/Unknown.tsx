/** Things that say nothing of what they are though their names do: how many there are, and a page of doubts that makes them known. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Thing } from '../../api/client'
import { api } from '../../api/client'
import { useDesk, useWork } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted } from '../../ui/controls'
import { type Answers, Doubts, keyOf } from './Doubts'

const NAMED = 12
const silent = (t: Thing) => !t.role && !t.serves.length && !t.natures.length && !t.holds_water_l && !t.fit

export function Unknown() {
  const { tour, sheet, ask } = useDesk()
  const { busy } = useWork()
  const [open, setOpen] = useState(false)
  const [answers, setAnswers] = useState<Answers>([])
  const { data } = useQuery({
    queryKey: ['unknown', tour.id, tour.revision],
    queryFn: () => api.unknownThings(tour.id),
    staleTime: Infinity,
    enabled: sheet.kit.some(silent),
    placeholderData: (before) => before,
  })
  const unknown = data?.things.length ?? 0
  if (!unknown || !sheet.kit.some(silent)) return null
  const names = sheet.kit.filter((t) => data?.things.includes(t.id)).map((t) => t.name)
  const take = async () => {
    const kept = await ask('Saying what things are', (id, revision) => api.makeKnown(id, revision, answers))
    if (kept) setOpen(false)
  }
  return (
    <>
      <Button $small onPress={() => setOpen(true)}>
        {unknown === 1 ? '1 thing is not known yet' : `${unknown} things are not known yet`}
      </Button>
      {open && (
        <Dialog draft title="What they are" open onClose={() => setOpen(false)} wide>
          <Muted>
            Ready and Stores cannot count what says nothing of what it does. Names tell most of it; what is taken is marked as a guess, and undone in
            one step.
          </Muted>
          <p>
            {names.slice(0, NAMED).join(', ')}
            {names.length > NAMED && ` and ${names.length - NAMED} more`}
          </p>
          <Doubts
            questions={data?.questions ?? []}
            answers={answers}
            onAnswer={(answer) => setAnswers([...answers.filter((a) => keyOf(a) !== keyOf(answer)), answer])}
            onLast={() => void take()}
          />
          <Actions>
            <Button onPress={() => setOpen(false)}>Not now</Button>
            <Button $wanted isDisabled={busy !== ''} onPress={() => void take()}>
              Take what the names say
            </Button>
          </Actions>
        </Dialog>
      )}
    </>
  )
}
