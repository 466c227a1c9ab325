/** What hangs on the bike, chain by chain, with limits and fills; each figure can be overwritten. */
import { Muted, RailLine, Section } from '../../ui/controls'
import { CarrierItem } from './CarrierItem'
import type { Hung } from './hung'
import { SupportItem } from './SupportItem'

export function HungList(hung: Hung) {
  const { bike } = hung
  const alone = bike.carriers.filter((c) => ![...bike.supports, ...bike.carriers].some((s) => s.id === c.hangs_on))
  return (
    <>
      <Section>What hangs on it</Section>
      {bike.supports.map((support) => (
        <div key={support.id}>
          <SupportItem support={support} {...hung} />
          {bike.carriers
            .filter((c) => c.hangs_on === support.id)
            .map((c) => (
              <CarrierItem key={c.id} carrier={c} {...hung} />
            ))}
        </div>
      ))}
      <div>
        <RailLine>On the bike itself</RailLine>
        {alone.map((c) => (
          <CarrierItem key={c.id} carrier={c} {...hung} />
        ))}
        {!alone.length && <Muted>Nothing yet.</Muted>}
      </div>
    </>
  )
}
