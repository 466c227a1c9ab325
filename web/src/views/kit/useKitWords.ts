/** What a line of the kit says of a thing: where it is, why it comes, what grounds its price. */
import { useMemo } from 'react'
import type { Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import { carrierEntries } from '../../instruments/loadEdits'
import { useUnits } from '../../ui/preferences'
import type { useRanking } from './useRanking'
import { whereWords } from './WhereFields'

const ASKED_ABOVE_KG = 1

export function useKitWords(ranking: ReturnType<typeof useRanking>['data']) {
  const { sheet } = useDesk()
  const units = useUnits()
  const { rig, riders } = sheet
  const entries = useMemo(() => carrierEntries({ rig, riders }), [rig, riders])
  const placeOf = (t: Thing) => {
    const told = whereWords(t.where, (km) => units.show(km, 'distance'))
    if (t.where.length && !t.where.some((w) => w.how === 'packed') && (t.where[0]?.from_km ?? 0) === 0) return told
    const at = sheet.load.placements.filter((p) => p.thing_id === t.id).map((p) => entries.find((e) => e.id === p.carrier_id)?.label ?? '')
    return [at.length ? [...new Set(at)].join(', ') : 'on the shelf', told].filter(Boolean).join('; ')
  }
  const stowed = new Set(sheet.load.placements.map((p) => p.thing_id))
  const whyOf = (t: Thing) => {
    const told = t.where.length > 0 || !(stowed.has(t.id) || t.inside !== null) ? placeOf(t) : ''
    return [told, t.last_time && `last time: ${t.last_time}`, t.because || (t.mass_kg * t.count > ASKED_ABOVE_KG ? 'why does it come?' : '')]
      .filter(Boolean)
      .join('; ')
  }
  const rows = useMemo(() => new Map(ranking?.things.map((r) => [r.thing_id, r])), [ranking])
  const groundOf = (t: Thing) => {
    const row = rows.get(t.id)
    if (!row) return ''
    const each = row.minutes_a_use !== null && row.minutes_a_use >= 0.05 ? `${units.show(row.minutes_a_use, 'minutes', 1)} a use` : ''
    return [units.say(row.ground), each].filter(Boolean).join('; ')
  }
  return { placeOf, whyOf, groundOf }
}
