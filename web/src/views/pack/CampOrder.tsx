/** In which order camp is made and struck, which bags that opens, and the minutes of it. */
import type { Camp } from '../../api/client'
import { useDesk } from '../../api/tour'
import { carrierEntries } from '../../instruments/loadEdits'
import { Muted, RailLine } from '../../ui/controls'
import { Fold } from '../../ui/Fold'
import { Icon } from '../../ui/icons'
import { useUnits } from '../../ui/preferences'

const WORDS = { shelter: 'Tent', bed: 'Mat and bag', kitchen: 'Stove' } as const

export function CampOrder() {
  const { sheet, assessment } = useDesk()
  const units = useUnits()
  const camp = assessment.camp
  if (!camp.things) return null
  const labels = new Map(carrierEntries(sheet).map((e) => [e.id, e.label]))
  const names = (ids: string[]) => ids.map((id) => labels.get(id) ?? id).join(', ')
  const steps = (of: Camp['evening']) => (
    <ol>
      {of.map((step, i) => (
        <li key={step.moment} style={{ padding: '3px 0' }}>
          <b>
            {i + 1} {WORDS[step.moment]}
          </b>
          : {names(step.carrier_ids)}
          <Muted>
            {step.because}
            {step.in_rain_opens.length > 0 && `. In rain ${names(step.in_rain_opens)} lets water in on what must stay dry`}
          </Muted>
        </li>
      ))}
    </ol>
  )
  return (
    <section aria-label="Camp order" style={{ marginTop: 14 }}>
      <RailLine>
        <Icon name="camp" size={17} />
        {camp.evening.length ? 'Making camp' : 'Packing'}
        {camp.evening.length > 0 && (
          <em>
            {camp.bags_opened} bags, {units.show(camp.evening_minutes, 'minutes')}
          </em>
        )}
      </RailLine>
      {steps(camp.evening)}
      {camp.morning.length > 0 && <Fold summary="Striking it in the morning">{steps(camp.morning)}</Fold>}
      <Muted style={{ marginTop: 6 }}>
        Packing all {camp.things} things takes about {units.show(camp.minutes, 'minutes')}, {units.show(camp.cold_minutes, 'minutes')} with cold hands
        {camp.cold ? ', which some mornings of this tour make' : ''}. Ten things fewer save {units.show(camp.lighter_minutes, 'minutes', 1)}. Pack it
        twice at home by the cards, the second time by the clock and once with gloves.
      </Muted>
    </section>
  )
}
