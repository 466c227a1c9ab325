/** Stretches with a surface of their own, and stretches that are not ridden. */
import type { ReactNode } from 'react'
import { ToggleButton } from 'react-aria-components'
import styled from 'styled-components'
import { BOUNDS } from '../../api/bounds'
import type { Road } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useMoment } from '../../instruments/moment'
import { type Surface, SurfaceMark } from '../../instruments/RibbonSurfaces'
import { Button, IconButton, Muted, RailLine, Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'
import { phone } from '../../ui/theme'
import { CARRIAGE_WORDS, choices, SURFACE_WORDS } from './words'

const Brushes = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  button {
    display: flex;
    align-items: center;
    gap: 7px;
    min-height: 36px;
    padding: 0 10px;
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    background: var(--tag);
    font-size: var(--size-small);
    font-weight: 600;
    font-stretch: var(--width-text);
    cursor: pointer;
    &[data-selected] {
      border: 2.5px solid var(--ink);
      font-weight: 750;
    }
  }
  ${phone} {
    button {
      min-height: 48px;
    }
  }
`

interface Stretch {
  from_km: number
  to_km: number
}

const NEW_KM = 20

export function SurfacesPanel({
  road,
  put,
  brush,
  setBrush,
}: {
  road: Road
  put: (what: string, part: Partial<Road>) => void
  brush: Surface | null
  setBrush: (brush: Surface | null) => void
}) {
  return (
    <>
      <RailLine>Surfaces</RailLine>
      <Muted>
        Take a brush and drag along the ribbon. Elsewhere the road is as smooth as the bike's rolling resistance says; later lines lie over earlier
        ones.
      </Muted>
      <Brushes role="group" aria-label="Brush">
        {choices(SURFACE_WORDS).map(({ id, text }) => (
          <ToggleButton key={id} isSelected={brush === id} onChange={(on) => setBrush(on ? id : null)}>
            <svg width={36} height={14} aria-hidden="true">
              <SurfaceMark d="M0 7H36" surface={id} />
            </svg>
            {text}
          </ToggleButton>
        ))}
      </Brushes>
      <Stretches
        name="surface"
        list={road.surfaces}
        fresh={{ surface: 'gravel' as const, mapped: null }}
        add="Gravel from the playhead on"
        onChange={(what, surfaces) => put(what, { surfaces })}
        kind={(s, set) => (
          <Choice
            label={s.mapped ? 'Surface, by a map' : 'Surface'}
            value={s.surface}
            onChange={(surface) => set({ surface })}
            options={choices(SURFACE_WORDS)}
          />
        )}
      />
      <RailLine>Not ridden</RailLine>
      <Muted>Ferries, trains, buses and flights: no riding, no climb, but hours of the day.</Muted>
      <Stretches
        name="transfer"
        list={road.transfers}
        fresh={{ by: 'ferry' as const, hours: 2 }}
        add="Ferry from the playhead on"
        onChange={(what, transfers) => put(what, { transfers })}
        kind={(t, set) => (
          <>
            <Choice label="By" value={t.by} onChange={(by) => set({ by })} options={choices(CARRIAGE_WORDS)} />
            <Measure label="Takes" value={t.hours} quantity="hours" range={BOUNDS.Transfer.hours} onChange={(hours) => set({ hours })} />
          </>
        )}
      />
      <RailLine>Narrow places</RailLine>
      <Row $min={200}>
        <Measure
          label="Narrowest gate, bridge or path (0: none known)"
          value={road.narrowest_mm ?? 0}
          quantity="length"
          range={[0, BOUNDS.Road.narrowest_mm[1]]}
          onChange={(v) => put('Narrowest passage', { narrowest_mm: v < BOUNDS.Road.narrowest_mm[0] ? null : v })}
        />
        <Muted>Rigs wider than this, with a hand's breadth, are told of under Load.</Muted>
      </Row>
    </>
  )
}

/** A list of stretches, each with its two ends and what is particular to its kind. */
export function Stretches<T extends Stretch>({
  name,
  list,
  fresh,
  add,
  onChange,
  kind,
}: {
  name: string
  list: T[]
  fresh: Omit<T, keyof Stretch>
  add: string
  onChange: (what: string, list: T[]) => void
  kind: (stretch: T, set: (part: Partial<T>) => void) => ReactNode
}) {
  const { assessment } = useDesk()
  const { moment } = useMoment()
  const end = assessment.road?.length_km ?? 0
  const from_km = Math.round(assessment.moments?.km[moment] ?? 0)
  const to_km = Math.min(from_km + NEW_KM, end)
  return (
    <>
      {list.map((stretch, i) => {
        const set = (part: Partial<T>) => {
          // What the rider changes is no word of a map any more.
          const next = { ...stretch, ...('mapped' in stretch ? { mapped: null } : {}), ...part }
          if (next.from_km < next.to_km)
            onChange(
              `Change a ${name}`,
              list.map((other, j) => (j === i ? next : other)),
            )
        }
        return (
          <Row key={i} $min={96}>
            {kind(stretch, set)}
            <Measure
              label="From"
              value={stretch.from_km}
              quantity="distance"
              decimals={1}
              range={[0, end]}
              onChange={(km) => set({ from_km: km } as Partial<T>)}
            />
            <Measure
              label="To"
              value={stretch.to_km}
              quantity="distance"
              decimals={1}
              range={[0, end]}
              onChange={(km) => set({ to_km: km } as Partial<T>)}
            />
            <IconButton
              aria-label={`Remove this ${name}`}
              onPress={() =>
                onChange(
                  `Remove a ${name}`,
                  list.filter((_, j) => j !== i),
                )
              }
            >
              ×
            </IconButton>
          </Row>
        )
      })}
      <Button $small isDisabled={from_km >= to_km} onPress={() => onChange(`Add a ${name}`, [...list, { ...fresh, from_km, to_km } as T])}>
        {add}
      </Button>
    </>
  )
}
