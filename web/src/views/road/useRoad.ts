/** Changes of the road: any part of it, its stops, and the next water or shop of one. */
import { useCallback, useMemo } from 'react'
import type { Road, Stop } from '../../api/client'
import { useDesk } from '../../api/tour'
import { said } from './guessed'

const NEXT_WATER = { none: 'unsure', unsure: 'seasonal', snow: 'none', seasonal: 'reliable', reliable: 'none' } as const
const NEXT_SHOP = { none: 'snacks', snacks: 'basic', basic: 'full', full: 'none' } as const

export function useRoad() {
  const { sheet, change } = useDesk()
  const road = sheet.road
  const put = useCallback((what: string, part: Partial<Road>) => void change(what, { road: { ...road, ...part } }), [change, road])
  const putStops = useCallback(
    (stops: Stop[], what: string, nights = road.nights) => put(what, { stops: [...stops].sort((a, b) => a.at_km - b.at_km), nights }),
    [put, road.nights],
  )
  const putStop = useMemo(
    () => (stop: Stop, part: Partial<Stop>, what: string) =>
      void change(what, { road: { ...road, stops: road.stops.map((s) => (s.id === stop.id ? said(s, part) : s)) } }),
    [change, road],
  )
  const onSupply = useMemo(
    () => (stop: Stop, supply: 'water' | 'shop') =>
      supply === 'water'
        ? putStop(stop, { water: NEXT_WATER[stop.water] }, `Water at ${stop.name}: ${NEXT_WATER[stop.water]}`)
        : putStop(stop, { shop: NEXT_SHOP[stop.shop] }, `Shop at ${stop.name}: ${NEXT_SHOP[stop.shop]}`),
    [putStop],
  )
  return { road, put, putStops, onSupply }
}
