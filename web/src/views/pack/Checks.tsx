/** Service, trial ride, last hours: ticked by whoever looks, with or without a network, each with what it feeds. */
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import type { PackPage } from '../../api/client'
import { useDesk } from '../../api/tour'
import { note, useWaiting } from '../../offline/queue'
import { useAuthor } from '../../offline/useAuthor'
import { Button, Muted, RailLine } from '../../ui/controls'
import { Dot, Icon, type IconName, Wedge } from '../../ui/icons'
import { TickBox } from '../../ui/TickBox'
import { useUnits } from '../../ui/preferences'
import { phone } from '../../ui/theme'
import { usePackPage } from './usePackPage'

const Columns = styled.div`
  padding: 12px 20px 24px;
  columns: 2 420px;
  column-gap: 28px;
  ${phone} {
    padding: 10px 14px;
    columns: 1;
  }
  section {
    break-inside: avoid-column;
    margin-bottom: 20px;
  }
`
const Line = styled.li`
  display: grid;
  grid-template-columns: 44px 1fr auto;
  gap: 4px 8px;
  align-items: center;
  border-bottom: 1px solid var(--hair);
  min-height: 44px;
  b {
    font-weight: 600;
  }
  a {
    color: inherit;
  }
  > p {
    grid-column: 2 / 4;
    padding-bottom: 5px;
    margin-top: -6px;
  }
`
type Check = PackPage['checks'][number]
const LISTS: [Check['of'], string, IconName][] = [
  ['service', 'Service', 'load'],
  ['trial', 'Trial ride', 'riding'],
  ['again', 'After the first kilometres, and at home', 'stop'],
  ['first_aid', 'In the first-aid kit', 'rider'],
  ['last', 'The last hours', 'tick'],
]

export function Checks() {
  const { tour, sheet, change } = useDesk()
  const { data } = usePackPage()
  const units = useUnits()
  const [author] = useAuthor()
  const { waiting } = useWaiting()
  const [bike, setBike] = useState(sheet.rig.bikes[0]?.id ?? '')
  if (!data) return null
  // What waits on this device holds here already.
  const pending = new Map(
    waiting.filter((w) => w.tour === tour.id && w.entry.verb === 'checked').map((w) => [w.entry.about, w.entry.word as Check['state'] | '']),
  )
  const stateOf = (check: Check): Check['state'] => {
    const here = pending.get(check.key)
    return here === undefined ? check.state : here === '' ? 'open' : here
  }
  const say = (check: Check, word: '' | 'done' | 'trouble') => void note(tour.id, { verb: 'checked', about: check.key, word, author })
  const of = (list: Check['of']) => data.checks.filter((c) => c.of === list && (c.bike_id === null || c.bike_id === bike))
  const service = of('service')
  const current = sheet.rig.bikes.find((b) => b.id === bike)
  const allDone = service.length > 0 && service.every((c) => stateOf(c) === 'done')
  return (
    <Columns>
      {sheet.rig.bikes.length > 1 && (
        <section aria-label="Which bike">
          {sheet.rig.bikes.map((b) => (
            <Button key={b.id} $small aria-pressed={b.id === bike} onPress={() => setBike(b.id)} style={{ marginRight: 6 }}>
              <Dot on={b.id === bike} />
              {b.name}
            </Button>
          ))}
        </section>
      )}
      {LISTS.map(([list, words, icon]) => {
        const checks = of(list)
        const done = checks.filter((c) => stateOf(c) !== 'open').length
        return (
          <section key={list} aria-label={words}>
            <RailLine>
              <Icon name={icon} size={17} />
              {words}
              <em>
                {done} of {checks.length}
              </em>
            </RailLine>
            {list === 'trial' && <Muted style={{ padding: '4px 0' }}>{data.trial}</Muted>}
            {list === 'first_aid' && <Muted style={{ padding: '4px 0' }}>{data.first_aid}</Muted>}
            <ul>
              {checks.map((check) => {
                const state = stateOf(check)
                const words = units.say(check.words)
                return (
                  <Line key={check.key}>
                    <TickBox
                      isSelected={state === 'done'}
                      onChange={(on) => say(check, on ? 'done' : '')}
                      label={list === 'trial' ? `${words} No` : words}
                    />
                    <span>
                      <b>{words}</b>
                      {state === 'done' && list === 'trial' && <Muted as="span"> no</Muted>}
                      {check.by && <Muted as="span"> {check.by}</Muted>}
                    </span>
                    {list === 'first_aid' ? (
                      <span />
                    ) : (
                      <Button
                        $small
                        aria-pressed={state === 'trouble'}
                        aria-label={`${words} ${list === 'trial' ? 'Yes' : 'Trouble'}`}
                        onPress={() => say(check, state === 'trouble' ? '' : 'trouble')}
                      >
                        {state === 'trouble' && <Wedge grade="slows_you" size={14} />}
                        {list === 'trial' ? 'Yes' : 'Trouble'}
                      </Button>
                    )}
                    {check.costs && state !== 'done' && (
                      <Muted>
                        {units.say(check.costs)} {check.view && <Link to={`../${check.view}`}>See it</Link>}
                      </Muted>
                    )}
                  </Line>
                )
              })}
            </ul>
            {list === 'service' && allDone && current && current.state !== 'serviced' && (
              <p style={{ marginTop: 8 }}>
                <Button
                  $wanted
                  onPress={() =>
                    void change(`${current.name} is serviced`, {
                      rig: { ...sheet.rig, bikes: sheet.rig.bikes.map((b) => (b.id === bike ? { ...b, state: 'serviced' } : b)) },
                    })
                  }
                >
                  It is serviced: fewer spares are asked for
                </Button>
              </p>
            )}
          </section>
        )
      })}
    </Columns>
  )
}
