/** The place where the party is, and the way to the one before and after. */
import styled from 'styled-components'
import { shortDate } from '../../ui/dates'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'
import { phone, sign } from '../../ui/theme'
import type { Today } from './useToday'
import { HERE_KM } from './Where'

const Board = styled.div`
  display: grid;
  grid-template-columns: 54px 1fr 54px;
  background: var(--now);
  color: var(--onnow);
  border: 2px solid var(--onnow);
  margin: 8px 0 0;
  button {
    display: grid;
    place-items: center;
    min-height: 56px;
  }
  button:disabled {
    opacity: 0.35;
  }
  h2 {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 780;
    font-size: 18px;
    line-height: 22px;
  }
  > div {
    padding: 6px 0;
    text-align: center;
    min-width: 0;
    font-size: var(--size-small);
    font-weight: 600;
  }
  ${phone} {
    margin: 6px -8px 0;
  }
`
export function PlaceBoard({ today: { sheet, now, km, road, setMoved } }: { today: Today }) {
  const units = useUnits()
  const places = [...new Set(sheet.road.stops.map((s) => s.at_km))].sort((a, b) => a - b)
  const before = places.findLast((p) => p < km - 0.5)
  const after = places.find((p) => p > km + 0.5)
  const place = sheet.road.stops.find((s) => Math.abs(s.at_km - km) < HERE_KM)
  return (
    <Board>
      <button
        type="button"
        aria-label="Back to the place before"
        disabled={before === undefined}
        onClick={() => before !== undefined && setMoved(before)}
      >
        <Icon name="left" />
      </button>
      <div>
        <h2>
          {now.begun ? `Day ${now.day}${place ? `, ${Math.abs(place.at_km - km) < 0.6 ? '' : 'near '}${place.name}` : ''}` : 'Before the start'}
        </h2>
        {shortDate(now.date)}
        {now.wall ? `, ${now.wall.slice(11, 16)}` : ''}
        {road && `, ${units.show(km, 'distance', 0)} of ${units.show(now.days.at(-1)?.to_km ?? 0, 'distance', 0)}`}
      </div>
      <button type="button" aria-label="On to the next place" disabled={after === undefined} onClick={() => after !== undefined && setMoved(after)}>
        <Icon name="right" />
      </button>
    </Board>
  )
}
