import { useDesk } from '../../api/tour'
import { fixtureWords } from '../../instruments/Fixtures'
import { Muted, Title } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { whereWords } from '../kit/WhereFields'
import { Card } from './BagCard'

/** What is on the shelf still, worn, fixed, posted or waits somewhere: it is in no bag at the start, and easily forgotten. */
export function NotInBags() {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const fixed = assessment.bikes.flatMap((bike) => bike.fixtures)
  const away = sheet.kit.filter((t) => t.where.some((w) => w.from_km > 0 || ['posted', 'waiting', 'home'].includes(w.how)))
  const holds = (id: string) => sheet.kit.filter((t) => t.inside === id).map((t) => t.name)
  const out = sheet.kit.filter((t) => (assessment.shelf[t.id] ?? 0) > 0)
  if (!fixed.length && !away.length && !out.length) return null
  return (
    <Card aria-label="Not in a bag" style={{ marginTop: 12 }}>
      <div>
        <Title as="h2">Not in a bag</Title>
        {out.length > 0 && (
          <>
            <Muted>Not stowed: it stays here as things stand.</Muted>
            <ul>
              {out.map((t) => (
                <li key={t.id}>
                  {(assessment.shelf[t.id] ?? 0) > 1 ? `${assessment.shelf[t.id]} × ` : ''}
                  {t.name}
                </li>
              ))}
            </ul>
          </>
        )}
        {fixed.length > 0 && (
          <ul>
            {fixed.map((f) => (
              <li key={`${f.thing_id}${f.from_km}`}>{fixtureWords(f, units)}</li>
            ))}
          </ul>
        )}
        {away.length > 0 && (
          <>
            <Muted style={{ marginTop: 8 }}>Comes and goes on the way: post it in time, and tell who waits for it.</Muted>
            <ul>
              {away.map((t) => (
                <li key={t.id}>
                  {t.name}
                  {holds(t.id).length > 0 && `, with ${holds(t.id).join(', ')}`}: {whereWords(t.where, (km) => units.show(km, 'distance'))}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </Card>
  )
}
