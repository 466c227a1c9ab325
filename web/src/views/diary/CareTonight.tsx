/** What the bikes ask for this evening, each noted with one touch. */
import type { Entry, Now } from '../../api/client'
import type { Draft } from '../../offline/queue'
import { Button } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { Lines } from './ComesNext'
import type { Shown } from './useDiary'

type Task = Now['care'][number]

/** How a task is noted. */
function draftOf(task: Task): Draft {
  switch (task.kind) {
    case 'oil':
      return { verb: 'oiled' }
    case 'clean':
      return { verb: 'washed', about: 'bike' }
    case 'pressure':
      return { verb: 'pressure' }
    case 'renew':
      return { verb: 'mended', about: `${task.part}:${task.bike_ids[0]}` }
    case 'spokes':
      return { verb: 'checked', about: 'spokes', word: 'done' }
    case 'look':
      return { verb: 'checked', about: 'bolts-100', word: 'done' }
  }
}

const isOf = (entry: Entry, draft: Draft) => entry.verb === draft.verb && (draft.about === undefined || entry.about === draft.about)

export function CareTonight({ tasks, today, onDone }: { tasks: Task[]; today: Shown[]; onDone: (draft: Draft) => void }) {
  const units = useUnits()
  const open = tasks.filter((task) => !today.some((one) => isOf(one.entry, draftOf(task))))
  if (!open.length) return null
  return (
    <Lines aria-label="For the bikes">
      {open.map((task) => (
        <li key={`${task.kind} ${task.part ?? ''} ${task.bike_ids.join(' ')}`}>
          <b>Bikes</b>
          <span>
            {units.say(task.words)}
            <small>{units.say(task.because)}</small>
          </span>
          <Button onPress={() => onDone(draftOf(task))} aria-label={`${units.say(task.words)}: done`}>
            Done
          </Button>
        </li>
      ))}
    </Lines>
  )
}
