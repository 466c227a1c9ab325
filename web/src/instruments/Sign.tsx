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
  height: ${(p) => (p.$phone ? 40 : 31)}px;
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
    white-space: nowrap;
    overflow: hidden;
    font-size: 13.5px;
    font-stretch: 86%;
    font-weight: 550;
  }
  b {
    font-family: ${sign};
    font-stretch: 116%;
    font-weight: 780;
    font-size: 14.5px;
  }
`

export function Sign({ x, width, phone }: { x: number; width: number; phone: boolean }) {
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
  const board = phone ? width - 16 : 400
  const left = Math.max(phone ? 8 : 10, Math.min(x - board / 2, width - board - (phone ? 8 : 10)))
  return (
    <Board $phone={phone} style={{ left, width: board }}>
      <button type="button" aria-label="Previous event" disabled={earlier === undefined} onClick={() => earlier !== undefined && setMoment(earlier)}>
        <Icon name="left" size={16} />
      </button>
      <p>
        <b>Day {number}</b>
        <span>
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
