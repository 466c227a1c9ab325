/** What is on board at the moment of the playhead, in kilograms by supply; or what the lane of the weather shows. */
import styled from 'styled-components'
import type { Moments } from '../api/client'
import { useShown } from '../api/tour'
import { useUnits } from '../ui/preferences'
import { SUPPLY_WORDS } from '../ui/supplies'
import { narrow } from '../ui/theme'
import { WEATHER_KEYS } from './WeatherLane'

const Box = styled.div`
  position: absolute;
  left: 20px;
  top: 8px;
  width: 116px;
  pointer-events: none;
  z-index: 2;
  > span {
    width: 150px;
  }
  strong {
    width: 150px;
    font-size: var(--size-figure);
    font-weight: 720;
    line-height: 26px;
    display: block;
  }
  span {
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
    line-height: 15px;
    display: block;
  }
  ul {
    display: grid;
    grid-template-columns: 16px 1fr auto;
    gap: 0 5px;
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    line-height: 16px;
    margin-top: 2px;
  }
  li {
    display: contents;
  }
  b {
    font-weight: 720;
    text-align: right;
  }
  ${narrow} {
    display: none;
  }
`

export function RibbonLegend({ moments, moment, weather }: { moments: Moments; moment: number; weather: boolean }) {
  const { sheet } = useShown()
  const units = useUnits()
  const [total, fuel, gear] = [moments.total_kg, moments.fuel_kg, moments.gear_kg].map((kg) => kg[moment] ?? 0) as [number, number, number]
  return (
    <Box>
      <strong>{units.show(total, 'mass')}</strong>
      <span>{sheet.rig.bikes.length > 1 ? 'all bikes as they stand' : 'the bike as it stands'}</span>
      {weather ? (
        WEATHER_KEYS.map((words) => <span key={words}>{words}</span>)
      ) : (
        <ul>
          {[
            ...moments.supplies.map((s) => [s.supply, SUPPLY_WORDS[s.supply], s.mass_kg[moment] ?? 0] as const),
            ['fuel', 'Fuel', fuel] as const,
            ['kit', 'Rig and kit', gear] as const,
          ].map(([id, name, value]) => (
            <li key={id}>
              <svg width="14" height="14">
                <rect x=".75" y=".75" width="12.5" height="12.5" fill={`url(#${id})`} stroke="var(--ink)" strokeWidth="1.2" />
              </svg>
              {name}
              <b>{units.figure(value, 'mass', 1)}</b>
            </li>
          ))}
        </ul>
      )}
    </Box>
  )
}
