/** The missing kilo: a staircase from the parts to the scale, one step a cause with its range, each with its deed. */
import { Link } from 'react-router'
import styled from 'styled-components'
import type { Missing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Muted, RailLine } from '../../ui/controls'
import { Fold } from '../../ui/Fold'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'

const Stairs = styled.ol`
  padding: 6px 0;
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px 10px;
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
  }
  li > svg {
    grid-column: 1 / 3;
    width: 100%;
    height: 16px;
  }
  a {
    color: inherit;
  }
  b {
    font-weight: 620;
    font-stretch: var(--width-text);
  }
`
const DEEDS: Record<Missing['causes'][number]['deed'], { words: string; to?: string }> = {
  fill: { words: 'Empty it, or weigh again with it noted as full' },
  weigh_thing: { words: 'Weigh these on the kitchen scale' },
  weigh_carrier: { words: 'Weigh the empty bags', to: '../rig' },
  stow: { words: 'Stow it in the plan', to: '../load' },
  dry: { words: 'Weigh again when it is dry' },
  leave: { words: 'Leave it' },
}

export function MissingKilo({ missing }: { missing: Missing }) {
  const { sheet } = useDesk()
  const units = useUnits()
  const bike = sheet.rig.bikes.find((b) => b.id === missing.bike_id)
  const span = Math.max(Math.abs(missing.to_explain_kg), ...missing.causes.map((c) => Math.abs(c.takes_kg)), 0.01)
  const steps = missing.causes.map((cause, i) => ({ cause, from: missing.causes.slice(0, i).reduce((sum, c) => sum + c.takes_kg, 0) }))
  const explained = missing.causes.reduce((sum, c) => sum + c.takes_kg, 0)
  const bar = (from: number, size: number, look: 'known' | 'range' | 'left') => {
    const [a, b] = [from, from + size].sort((p, q) => p - q) as [number, number]
    const low = Math.min(0, missing.to_explain_kg)
    return (
      <svg viewBox="0 0 100 16" preserveAspectRatio="none" aria-hidden="true">
        <rect
          x={((a - low) / span) * 100}
          y={1}
          width={Math.max(((b - a) / span) * 100, 0.6)}
          height={14}
          fill={look === 'known' ? 'var(--kit)' : look === 'range' ? 'url(#hatch)' : 'var(--tag)'}
          stroke="var(--ink)"
          strokeDasharray={look === 'left' ? '3 3' : undefined}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    )
  }
  const under = Math.abs(missing.left_kg) <= missing.unsure_kg
  return (
    <section aria-label={`Missing kilo of ${bike?.name}`}>
      <RailLine>
        <Icon name="load" size={17} />
        {units.show(Math.abs(missing.to_explain_kg), 'mass', 2)} {missing.to_explain_kg < 0 ? 'lighter' : 'heavier'} than the parts
        <em>{bike?.name}</em>
      </RailLine>
      <Muted>
        {units.show(missing.parts_kg, 'mass', 2)} in parts, {units.show(missing.scale_kg, 'mass', 2)} on the scale. The fewest causes that explain it:
      </Muted>
      <Stairs>
        {steps.map(({ cause, from }) => (
          <li key={cause.words.words + cause.about}>
            <b>{units.say(cause.words)}</b>
            <span>{units.show(cause.takes_kg, 'mass', 2)}</span>
            {bar(from, cause.takes_kg, cause.low_kg === 0 && cause.high_kg === cause.takes_kg ? 'known' : 'range')}
            <Muted>
              {units.figure(cause.low_kg, 'mass', 2)} to {units.show(cause.high_kg, 'mass', 2)}.{' '}
              {DEEDS[cause.deed].to ? <Link to={DEEDS[cause.deed].to ?? ''}>{DEEDS[cause.deed].words}</Link> : DEEDS[cause.deed].words}
            </Muted>
          </li>
        ))}
        <li>
          <b>Left over</b>
          <span>{units.show(missing.left_kg, 'mass', 2)}</span>
          {bar(explained, missing.left_kg, 'left')}
          <Muted>
            {under
              ? `Less than the scale can tell: two readings are good to ${units.show(missing.unsure_kg, 'mass', 2)}.`
              : 'Nothing above explains it: look for a forgotten thing.'}
          </Muted>
        </li>
      </Stairs>
      {missing.others.length > 0 && (
        <Fold summary="What else it could be">
          <ul>
            {missing.others.map((c) => (
              <li key={c.words.words + c.about}>
                {units.say(c.words)}{' '}
                <Muted as="span">
                  {units.figure(c.low_kg, 'mass', 2)} to {units.show(c.high_kg, 'mass', 2)}
                </Muted>
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </section>
  )
}
