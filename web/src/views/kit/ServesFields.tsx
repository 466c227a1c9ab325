/** What a thing is for, and what it fits. */
import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { BLANK, BOUNDS } from '../../api/bounds'
import { api, type Catalogue, type Thing } from '../../api/client'
import { Button, Muted, Row } from '../../ui/controls'
import { Choice, Field, Measure, SettledField } from '../../ui/fields'

type Service = Catalogue['services'][number]
type Fit = NonNullable<Thing['fit']>
const Chips = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`
/** What asks for more than its name: parts and tools of a bike, and what has a thread or a mount. */
const FITS: Record<string, (keyof Fit)[]> = {
  tube: ['bead_seat_mm', 'valve', 'valve_mm'],
  tyre: ['bead_seat_mm'],
  pump: ['valve', 'stroke_ml'],
  valve_core: ['valve'],
  chain_link: ['speeds'],
  chain_tool: ['speeds'],
  keys: ['keys'],
  spanner: ['keys'],
  spoke: ['lengths_mm'],
  hanger: ['pattern'],
  pads: ['pattern'],
  lens: ['pattern'],
  camera: ['pattern'],
  memory_card: ['pattern'],
}

/** The table of what things can serve. */
export function useServices(): Service[] {
  const { data } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue, staleTime: Infinity })
  return data?.services ?? []
}

export const wordsOf = (services: Service[], id: string) => services.find((s) => s.id === id)?.words ?? id.replaceAll('_', ' ')

export function ServesFields({ thing, onChange }: { thing: Thing; onChange: (part: Partial<Thing>) => void }) {
  const services = useServices()
  const sorted = [...services].sort((a, b) => bare(a.words).localeCompare(bare(b.words)))
  const asked = new Set(thing.serves.flatMap((s) => FITS[s] ?? []))
  const fit = thing.fit ?? BLANK.Fit
  const setFit = (part: Partial<Fit>) => onChange({ fit: { ...fit, ...part } })
  return (
    <>
      <Chips role="group" aria-label="It serves as">
        {thing.serves.map((id) => (
          <Button
            key={id}
            $small
            aria-label={`No longer ${wordsOf(services, id)}`}
            onPress={() => onChange({ serves: thing.serves.filter((s) => s !== id) })}
          >
            {wordsOf(services, id)} ×
          </Button>
        ))}
      </Chips>
      <Row $min={190}>
        <Choice
          label="It also serves as"
          value="-"
          onChange={(id) => id !== '-' && onChange({ serves: [...thing.serves, id].slice(0, 12) })}
          options={[
            { id: '-', text: 'choose …' },
            ...sorted.filter((s) => !thing.serves.includes(s.id)).map((s) => ({ id: s.id, text: bare(s.words) })),
          ]}
        />
      </Row>
      {asked.size > 0 && (
        <Row $min={150}>
          {asked.has('bead_seat_mm') && (
            <Measure
              label="Wheel, bead seat"
              value={fit.bead_seat_mm}
              quantity="length"
              range={BOUNDS.Fit.bead_seat_mm}
              onChange={(bead_seat_mm) => setFit({ bead_seat_mm })}
              onClear={() => setFit({ bead_seat_mm: null })}
            />
          )}
          {asked.has('valve') && (
            <Choice
              label="Valve"
              value={fit.valve ?? '-'}
              onChange={(v) => setFit({ valve: v === '-' ? null : v })}
              options={[
                { id: '-' as const, text: 'any' },
                { id: 'presta' as const, text: 'presta' },
                { id: 'schrader' as const, text: 'schrader' },
                { id: 'woods' as const, text: 'woods' },
              ]}
            />
          )}
          {asked.has('valve_mm') && (
            <Measure
              label="Valve’s length"
              value={fit.valve_mm}
              quantity="length"
              range={BOUNDS.Fit.valve_mm}
              onChange={(valve_mm) => setFit({ valve_mm })}
              onClear={() => setFit({ valve_mm: null })}
            />
          )}
          {asked.has('stroke_ml') && (
            <Measure
              label="One stroke moves, ml"
              value={fit.stroke_ml}
              quantity="count"
              range={BOUNDS.Fit.stroke_ml}
              onChange={(stroke_ml) => setFit({ stroke_ml })}
              onClear={() => setFit({ stroke_ml: null })}
            />
          )}
          {asked.has('speeds') && (
            <Measure
              label="For sprockets"
              value={fit.speeds}
              quantity="count"
              range={BOUNDS.Fit.speeds}
              onChange={(n) => setFit({ speeds: Math.round(n) })}
              onClear={() => setFit({ speeds: null })}
            />
          )}
          {asked.has('keys') && (
            <SettledField
              optional
              label="Turns, commas between (hex 5, T25)"
              value={fit.keys.join(', ')}
              onChange={(v) => setFit({ keys: listed(v) })}
            />
          )}
          {asked.has('lengths_mm') && (
            <SettledField
              optional
              label="Lengths in mm, commas between"
              value={fit.lengths_mm.join(', ')}
              onChange={(v) =>
                setFit({
                  lengths_mm: listed(v)
                    .map(Number)
                    .filter((n) => Number.isFinite(n) && n > 0),
                })
              }
            />
          )}
          {asked.has('pattern') && <Field label="Shape, as you call it" value={fit.pattern} onChange={(pattern) => setFit({ pattern })} />}
        </Row>
      )}
      <Muted>What a tour asks for is held against what things serve; a figure that is left open fits all.</Muted>
    </>
  )
}

const bare = (words: string) => words.replace(/^(an?|the) /, '')
const listed = (text: string) =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)
    .slice(0, 30)
