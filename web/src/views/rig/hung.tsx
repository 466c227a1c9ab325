/** What things that hang on a bike have in common: where they hang, what holds them, whose figures they are. */
import styled from 'styled-components'
import type { Bike, BikeTrace, Carrier, Catalogue } from '../../api/client'
import { Choice } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { phone } from '../../ui/theme'

export const Item = styled(Fold)`
  border-bottom: 1px solid var(--hair);
  padding: 4px 0;
  summary {
    cursor: pointer;
    min-height: 32px;
    ${phone} {
      min-height: 44px;
    }
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: center;
    gap: 8px;
    list-style: none;
  }
  summary b {
    font-weight: 620;
  }
  summary span {
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
    text-align: right;
  }
  summary span.over {
    color: var(--ink);
    font-weight: 720;
  }
  &[open] {
    padding-bottom: 10px;
  }
`

export interface Hung {
  bike: Bike
  bikes: Bike[]
  trace: BikeTrace
  catalogue: Catalogue | undefined
  onChange: (what: string, bike: Bike) => void
}

/** What a carrier is a part of, or itself. */
export const wholeOf = (bike: Bike, carrier: Carrier) => bike.carriers.find((c) => c.id === carrier.hangs_on) ?? carrier

export function Held({ value, onChange }: { value: boolean; onChange: (improvised: boolean) => void }) {
  return (
    <Choice
      label="Held by"
      value={value ? 'ties' : 'bolts'}
      onChange={(v) => onChange(v === 'ties')}
      options={[
        { id: 'bolts', text: 'What it is made for' },
        { id: 'ties', text: 'Ties or tape, improvised' },
      ]}
    />
  )
}

export function From({ value, onChange }: { value: Carrier['source']; onChange: (source: Carrier['source']) => void }) {
  return (
    <Choice
      label="Figures are"
      value={value}
      onChange={onChange}
      options={[
        { id: 'maker', text: 'The maker’s' },
        { id: 'measured', text: 'Measured' },
        { id: 'default', text: 'Common practice' },
      ]}
    />
  )
}
