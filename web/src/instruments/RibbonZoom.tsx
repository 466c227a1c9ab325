/** Which days of the tour a ribbon shows: all, or some around the playhead, fewer by wheel, fingers, keys and buttons. */
import { useMemo, useState } from 'react'
import styled from 'styled-components'
import type { Day } from '../api/client'
import { IconButton } from '../ui/controls'
import { ribbonScale } from './ribbonScale'

/** Number of days shown at once on a phone, and as near as one can look. */
const PHONE_DAYS = 9
const FEWEST_DAYS = 2

export function useZoom(days: Day[], dayNow: number, { width, small, gutter }: { width: number; small: boolean; gutter: number }) {
  const [wanted, setWanted] = useState(Infinity)
  const span = Math.min(days.length, wanted, small ? PHONE_DAYS : Infinity)
  const from = Math.max(1, Math.min(dayNow - Math.floor(span / 2), days.length - span + 1))
  const to = from + span - 1
  const scale = useMemo(() => ribbonScale(days, gutter, width - (small ? 14 : 22), from, to), [days, gutter, width, small, from, to])
  const zoom = (times: number) => setWanted(span * times >= days.length ? Infinity : Math.max(FEWEST_DAYS, Math.round(span * times)))
  return { scale, zoom, span }
}

const Box = styled.div`
  position: absolute;
  right: 4px;
  top: 0;
  z-index: 3;
  display: flex;
  button {
    width: 32px;
    height: 32px;
    font-size: var(--size-head);
    font-weight: 700;
  }
`

export function RibbonZoom({ days, span, zoom }: { days: Day[]; span: number; zoom: (times: number) => void }) {
  if (days.length <= FEWEST_DAYS) return null
  return (
    <Box>
      <IconButton aria-label="Show fewer days" isDisabled={span <= FEWEST_DAYS} onPress={() => zoom(0.5)}>
        +
      </IconButton>
      <IconButton aria-label="Show more days" isDisabled={span >= days.length} onPress={() => zoom(2)}>
        −
      </IconButton>
    </Box>
  )
}
