/** The stretches between supplies, kind by kind; the longest of each kind governs. */
import { memo } from 'react'
import { useDesk } from '../../api/tour'
import { useGoToKm } from '../../instruments/moment'
import type { Gap } from '../../api/client'
import { Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { Sheet } from '../../ui/sheet'

const NAMES: Record<Gap['supply'], string> = {
  water: 'Water',
  food: 'Food',
  fuel: 'Fuel',
  plugs: 'Plugs',
  bike_shop: 'Bike shop',
  laundry: 'Laundry',
}
const SHOWN = 5

export const GapsTable = memo(function GapsTable() {
  const { assessment } = useDesk()
  const goToKm = useGoToKm()
  const units = useUnits()
  const amount = (gap: Gap, of: number) => (gap.supply === 'water' ? units.show(of, 'volume') : gap.supply === 'food' ? units.show(of, 'mass') : '')
  const kinds = (Object.keys(NAMES) as Gap['supply'][]).map((supply) => ({
    supply,
    gaps: assessment.gaps
      .filter((g) => g.supply === supply)
      .sort((a, b) => b.need - a.need || b.to_km - b.from_km - (a.to_km - a.from_km))
      .slice(0, SHOWN),
  }))
  return (
    <Sheet>
      <thead>
        <tr>
          <th>Supply</th>
          <th>From</th>
          <th>To</th>
          <th className="n">Far</th>
          <th className="n">Riding</th>
          <th className="n">Nights</th>
          <th className="n">Carry</th>
          <th className="n">Reserve</th>
          <th>What does not count</th>
        </tr>
      </thead>
      <tbody>
        {kinds.flatMap(({ supply, gaps }) =>
          gaps.map((gap, i) => (
            <tr key={`${supply}${gap.from_km}`}>
              <td>{i === 0 && <b>{NAMES[supply]}</b>}</td>
              <td>
                <button type="button" className="plain" onClick={() => goToKm(gap.from_km)}>
                  {gap.from_name}
                </button>
              </td>
              <td>{gap.to_name}</td>
              <td className="n">{units.show(gap.to_km - gap.from_km, 'distance')}</td>
              <td className="n">{units.show(gap.hours, 'hours')}</td>
              <td className="n">{gap.nights}</td>
              <td className="n">{gap.governs ? <b>{amount(gap, gap.need) || 'longest'}</b> : amount(gap, gap.need)}</td>
              <td className="n">
                {amount(gap, gap.reserve)}
                {gap.onward > 0.05 && <Muted>and {amount(gap, gap.onward)} for what follows</Muted>}
              </td>
              <td>
                <Muted as="span">{gap.missed.map((m) => `${m.name}: ${units.say(m.why)}`).join('; ')}</Muted>
              </td>
            </tr>
          )),
        )}
        {!assessment.gaps.length && (
          <tr>
            <td colSpan={9}>
              <Muted>No road yet.</Muted>
            </td>
          </tr>
        )}
      </tbody>
    </Sheet>
  )
})
