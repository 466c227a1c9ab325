/** The bike's own parts on this tour: where each is worn out, what they ask for on the way, and what could be otherwise. */
import { useState } from 'react'
import { BOUNDS } from '../../api/bounds'
import type { Bike } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Actions, Button, Muted, Row, Section } from '../../ui/controls'
import { Dialog } from '../../ui/Dialog'
import { Choice, Measure, SettledField } from '../../ui/fields'
import { useUnits } from '../../ui/preferences'
import { unitOf } from '../../ui/units'
import { BikeCare } from './BikeCare'
import { OtherBikes } from './OtherBikes'
import { PartRow, type Told, type Worn } from './PartRow'
import { Lines, Scroll } from './partsLook'

interface Props {
  bike: Bike
  onChange: (what: string, bike: Bike) => void
  onClose: () => void
}

export function PartsDialog({ bike, onChange, onClose }: Props) {
  const { assessment } = useDesk()
  const units = useUnits()
  const parts = assessment.parts.filter((p) => p.bike_id === bike.id)
  const say = (kind: Told['kind'], words: string, told: Partial<Told>) =>
    onChange(`The ${words} of ${bike.name}`, { ...bike, parts: [...bike.parts.filter((p) => p.kind !== kind), { ...saidOf(bike, kind), ...told }] })
  const tell = (worn: Worn, told: Partial<Told>) => say(worn.kind, worn.words, told)
  return (
    <Dialog title={`Parts and care of ${bike.name}`} open onClose={onClose} wide>
      <Section>What wears</Section>
      {parts.length ? (
        <Scroll tabIndex={0} role="region" aria-label="What wears">
          <Lines className="parts">
            <thead>
              <tr>
                <th scope="col">Part</th>
                <th scope="col">Behind it, {unitOf('distance', units.system)}</th>
                <th scope="col">Lasts, {unitOf('distance', units.system)}</th>
                <th scope="col">On this tour</th>
                <th scope="col">New one at</th>
              </tr>
            </thead>
            <tbody>
              {parts.map((worn) => (
                <PartRow key={worn.kind} worn={worn} said={saidOf(bike, worn.kind)} onTell={tell} />
              ))}
            </tbody>
          </Lines>
        </Scroll>
      ) : (
        <Muted>Once the tour has a road it is told here what of the bike wears out on it.</Muted>
      )}
      <Muted>
        By distance, mass, height ridden down, rain, gravel and sand; lives are common practice and wide. What is said of a part counts before the
        state of the bike. A worn chain takes the sprockets with it: measure it.
      </Muted>
      <Said bike={bike} parts={parts} onTell={say} />
      <BikeCare bike={bike} onChange={onChange} />
      <OtherBikes bike={bike} onChange={onChange} />
      <Actions>
        <Button onPress={onClose}>Close</Button>
      </Actions>
    </Dialog>
  )
}

/** What is said of a part; nothing said, nothing known. */
const saidOf = (bike: Bike, kind: Told['kind']): Told =>
  bike.parts.find((p) => p.kind === kind) ?? { kind, behind_km: null, lasts_km: null, renewed_km: null, verdict: '' }

/** How far the saddle is ridden in, and what its rider thinks of a part. */
function Said({ bike, parts, onTell }: { bike: Bike; parts: Worn[]; onTell: (kind: Told['kind'], words: string, told: Partial<Told>) => void }) {
  const [kind, setKind] = useState<Told['kind']>('rear_tyre')
  const about: { id: Told['kind']; text: string }[] = [...parts.map((p) => ({ id: p.kind, text: p.words })), { id: 'saddle', text: 'saddle' }]
  const words = about.find((a) => a.id === kind)?.text ?? kind
  return (
    <Row $min={170}>
      <Measure
        label="The saddle has behind it"
        value={saidOf(bike, 'saddle').behind_km}
        quantity="distance"
        decimals={0}
        range={BOUNDS.BikePart.behind_km}
        onChange={(behind_km) => onTell('saddle', 'saddle', { behind_km })}
        onClear={() => onTell('saddle', 'saddle', { behind_km: null })}
      />
      <Choice label="Your verdict on the" value={kind} options={about} onChange={setKind} />
      <SettledField
        optional
        label={`What you think of the ${words}`}
        value={saidOf(bike, kind).verdict}
        onChange={(verdict) => onTell(kind, words, { verdict })}
      />
    </Row>
  )
}
