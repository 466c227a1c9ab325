/** What is fixed to the bike at the moment: a clamp on its place, with its name; what is worn and in pockets as words. */
import { type BikeTrace, type Moments } from '../api/client'
import type { useUnits } from '../ui/preferences'
import type { RigView } from './rigView'

type Fixture = BikeTrace['fixtures'][number]

/** Of the things that are not in bags those that are there at a moment. */
export const thereAt = (fixtures: Fixture[], moments: Moments | null, moment: number): Fixture[] => {
  const km = moments?.km[moment] ?? 0
  return fixtures.filter((f) => f.from_km <= km && (f.to_km === null || km <= f.to_km))
}

export function FixtureMarks({ fixtures, view }: { fixtures: Fixture[]; view: RigView }) {
  return (
    <g>
      {fixtures
        .filter((f) => !f.on_body)
        .map((f, i) => {
          const [x, y] = [view.x(f.at.x), view.y(f.at.y) - (fixtures.slice(0, i).filter((o) => o.where === f.where).length % 3) * 9]
          return (
            <g key={f.thing_id}>
              <title>{`${f.name}, ${f.where}`}</title>
              <rect x={x - 4} y={y - 4} width={8} height={8} rx={2} fill="var(--tag)" stroke="var(--ink)" strokeWidth={1.6} />
              <path d={`M${x - 7} ${y + 5}h14`} stroke="var(--ink)" strokeWidth={1.6} />
            </g>
          )
        })}
    </g>
  )
}

export const fixtureWords = (f: Fixture, units: ReturnType<typeof useUnits>): string => {
  const from = f.from_km > 0 ? ` from ${units.show(f.from_km, 'distance')}` : ''
  const to = f.to_km !== null ? ` to ${units.show(f.to_km, 'distance')}` : ''
  return `${f.name}, ${f.where}, ${units.show(f.kg, 'mass', 2)}${from}${to}`
}
