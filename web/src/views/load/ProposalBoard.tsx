/** A search for a load while it goes on, and how good what it found is, in plain words. */
import { useRef, useState } from 'react'
import styled from 'styled-components'
import type { Placement, Progress, Proposal } from '../../api/client'
import { useDesk } from '../../api/tour'
import { pinThing } from '../../instruments/loadEdits'
import { Button } from '../../ui/controls'
import { Gauge } from '../../ui/notices'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'

const Board = styled.div`
  flex: none;
  max-height: 55%;
  overflow-y: auto;
  margin: 8px 20px 0 0;
  background: var(--tag);
  border: 2px solid var(--ink);
  border-radius: 3px;
  padding: 8px 12px;
  font-size: var(--size-small);
  line-height: 17px;
  display: flex;
  flex-direction: column;
  gap: 6px;
  > div:last-child {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    justify-content: flex-end;
  }
  ${phone} {
    max-height: none;
    margin: 8px 14px 0;
  }
`
const USUAL_ROUNDS = 7
const MORE_ROUNDS = 20

export interface Search {
  best: Proposal | null
  running: boolean
  /** How many searches are before this one, in words; nothing where it runs. */
  place: string
  start: (rounds?: number) => void
  /** Frees pins that stand in the way, and searches again. */
  free: (pins: Placement[]) => void
  keep: () => void
  cancel: () => void
  close: () => void
}

/** Runs one search; stopping keeps the best load so far, cancelling changes nothing. */
export function useSearch(): Search {
  const { propose, change, sheet } = useDesk()
  const [best, setBest] = useState<Proposal | null>(null)
  const [running, setRunning] = useState(false)
  const [place, setPlace] = useState('')
  const stop = useRef<AbortController | null>(null)
  const end = () => {
    stop.current?.abort()
    setRunning(false)
  }
  const start = (rounds = USUAL_ROUNDS) => {
    const controller = new AbortController()
    stop.current = controller
    setBest(null)
    setPlace('')
    setRunning(true)
    const tell = (news: Proposal | Progress) => {
      setPlace('load' in news ? '' : news.what)
      if ('load' in news) setBest(news)
    }
    void propose(rounds, tell, controller.signal).then((last) => {
      if (controller.signal.aborted) return
      setRunning(false)
      setBest(last ?? null)
    })
  }
  return {
    best,
    running,
    place,
    start,
    free: (pins) => {
      const load = pins.reduce((changed, p) => pinThing(changed, p.thing_id, p.carrier_id, false), sheet.load)
      void change('Free what stands in the way', { load }).then((done) => done && start())
    },
    keep: () => {
      end()
      if (best) void change('Propose a load, stopped early', { load: best.load })
    },
    cancel: () => {
      end()
      setBest(null)
    },
    close: () => setBest(null),
  }
}

export function ProposalBoard({ search }: { search: Search }) {
  const { best, running } = search
  const say = useWords()
  if (!best && !running) return null
  return (
    <Board role="status">
      {running && (
        <Gauge aria-label="Searching for a better load" value={(best?.done ?? 0) * 100}>
          {({ percentage, valueText }) => (
            <>
              <span>{search.place ? 'Waiting' : 'Searching'}</span>
              <div>
                <div style={{ width: `${percentage ?? 0}%` }} />
              </div>
              <span>{valueText}</span>
            </>
          )}
        </Gauge>
      )}
      <span>{best ? say(best, running) : search.place ? `${search.place}. It begins by itself.` : 'The first load comes in a moment.'}</span>
      <div>
        {running ? (
          <>
            <Button $small onPress={search.cancel}>
              Cancel
            </Button>
            <Button $small $wanted isDisabled={!best} onPress={search.keep}>
              Stop and keep this one
            </Button>
          </>
        ) : (
          <>
            {best?.change && best.change.frees.length > 0 && (
              <Button $small $wanted onPress={() => search.free(best.change?.frees ?? [])}>
                Free {best.change.frees.length > 1 ? 'them' : 'it'} and search again
              </Button>
            )}
            {!best?.proven && (
              <Button $small onPress={() => search.start(MORE_ROUNDS)}>
                A longer search may find better
              </Button>
            )}
            <Button $small onPress={search.close}>
              Close
            </Button>
          </>
        )}
      </div>
    </Board>
  )
}

/** What stays out after the change that helps most. */
const stillOut = (change: NonNullable<Proposal['change']>) => {
  const food = change.food_still_out ? `${change.food_still_out * 10}\u00a0% of the food` : ''
  const things = change.still_out ? `${change.still_out} of them` : ''
  return things || food ? `${[things, food].filter(Boolean).join(' and ')} stay out` : 'everything goes in'
}

/** How good a proposal is, what stays out and what would be short. */
function useWords() {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const stops = assessment.findings.filter((f) => f.grade === 'stops_you' && f.aside === null)
  return (proposal: Proposal, running: boolean) => {
    const count = Object.values(proposal.out).reduce((sum, n) => sum + n, 0)
    const others = stops.map((f) => units.say(f.sentence)).slice(0, 2)
    const holds = proposal.holds ? 'All bags, racks and wheels hold' : 'Not all bags, racks and wheels hold'
    const verdict =
      running || !stops.length
        ? `${holds}.`
        : `${holds}; ${stops.length === 1 ? 'one finding still stops' : `${stops.length} findings still stop`} you: ${others.join(' ')}${stops.length > others.length ? ' …' : ''}`
    const out = Object.entries(proposal.out).map(([id, n]) => `${n > 1 ? `${n} × ` : ''}${sheet.kit.find((t) => t.id === id)?.name ?? id}`)
    const near = proposal.bound !== null && proposal.points > 0 ? Math.max(0, 1 - proposal.bound / proposal.points) : null
    if (proposal.food_out_tenths) out.push(`${proposal.food_out_tenths * 10}\u00a0% of the food`)
    const named = `${out.slice(0, 6).join(', ')}${out.length > 6 ? ` and ${out.length - 6} more` : ''}`
    const reasons = Object.values(proposal.reasons)
    const short = proposal.short
      .slice(0, 3)
      .map(
        (s) =>
          `${s.limit}${s.too_light ? ' too light' : ''} by ${[s.mass_kg ? units.show(s.mass_kg, 'mass') : '', s.volume_l ? units.show(s.volume_l, 'volume') : ''].filter(Boolean).join(' and ')}`,
      )
    return [
      verdict,
      proposal.complete ? 'Everything has a place.' : `${count} of ${proposal.things} things stay out: ${named}.`,
      reasons.length > 0 &&
        `${reasons
          .slice(0, 3)
          .map((r) => units.say(r))
          .join('; ')}.`,
      short.length > 0 && `Short with all of it: ${short.join('; ')}.`,
      proposal.change && `What would help most: ${units.say(proposal.change.words)}; then ${stillOut(proposal.change)}.`,
      proposal.proven
        ? 'By these aims no better load exists.'
        : `${proposal.points.toFixed(0)} points; ${near === null ? 'how much better could exist is not known yet.' : `no load can be more than ${units.show(near, 'share')} better.`}`,
    ]
      .filter(Boolean)
      .join(' ')
  }
}
