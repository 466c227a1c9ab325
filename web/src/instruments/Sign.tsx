/** The yellow board on the playhead: day, date, place and steps to the neighbouring events. */
import styled from 'styled-components'
import { shortDate } from '../ui/dates'
import { useShown } from '../api/tour'
import { Icon } from '../ui/icons'
import { useUnits } from '../ui/preferences'
import { sign } from '../ui/theme'
import { useMoment } from './moment'

const Board = styled.div<{ $phone: boolean }>`
  position: absolute;
  top: 0;
  height: ${(p) => (p.$phone ? 48 : 31)}px;
  background: var(--now);
  color: var(--onnow);
  border: 2px solid var(--onnow);
  display: flex;
  align-items: stretch;
  z-index: 3;
  button {
    width: ${(p) => (p.$phone ? 48 : 32)}px;
    display: grid;
    place-items: center;
  }
  button:focus-visible {
    outline-offset: -4px;
    outline-color: var(--onnow);
  }
  p {
    flex: 1;
    display: flex;
    align-items: baseline;
    gap: 10px;
    padding-top: ${(p) => (p.$phone ? 9 : 4)}px;
    min-width: 0;
    white-space: nowrap;
    overflow: hidden;
    font-size: var(--size-small);
    font-stretch: var(--width-narrow);
    font-weight: 550;
  }
  ${(p) => p.$phone && 'p { flex-direction: column; gap: 0; align-items: center; padding-top: 5px; line-height: 17px; }'}
  .where {
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  b {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 780;
    font-size: var(--size-text);
  }
`

const ZOOM_PX = 76

export function Sign({ x, width, phone, gutter }: { x: number; width: number; phone: boolean; gutter: number }) {
  const { assessment } = useShown()
  const { moment, setMoment } = useMoment()
  const units = useUnits()
  const moments = assessment.moments
  if (!moments) return null
  const number = moments.day[moment] ?? 1
  const day = assessment.days[number - 1]
  const events = moments.km.map((_, i) => i).filter((i) => i === 0 || i === moments.km.length - 1 || (moments.place[i] !== '' && moments.leaving[i]))
  const earlier = events.findLast((i) => i < moment)
  const later = events.find((i) => i > moment)
  const place = moments.place[moment]
  const edge = phone ? 8 : 10
  const board = Math.min(400, width - 2 * edge)
  // Beside the figures at the left and the zoom at the right, not over them.
  const left = Math.max(phone ? edge : gutter, Math.min(x - board / 2, width - board - (phone ? edge : ZOOM_PX)))
  return (
    <Board $phone={phone} style={{ left, width: board }}>
      <button type="button" aria-label="Previous event" disabled={earlier === undefined} onClick={() => earlier !== undefined && setMoment(earlier)}>
        <Icon name="left" size={16} />
      </button>
      <p>
        <b>Day {number}</b>
        <span className="where">
          {day ? `${shortDate(day.date)}, ` : ''}
          {units.show(moments.km[moment] ?? 0, 'distance')}
          {place ? `, ${moments.leaving[moment] ? 'leaving' : 'reaching'} ${place}` : ''}
        </span>
      </p>
      <button type="button" aria-label="Next event" disabled={later === undefined} onClick={() => later !== undefined && setMoment(later)}>
        <Icon name="right" size={16} />
      </button>
    </Board>
  )
}
