/** Learned rates: the figure with its unit, the bar of nine in ten, the mean as a stroke, the old assumption as a ring, and Take. */
import styled from 'styled-components'
import type { LearnedRate } from '../../api/client'
import { Button, Muted } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { isQuantity } from '../../ui/units'
import { phone } from '../../ui/theme'

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(110px, 1fr) 148px 150px 62px 76px;
  gap: 8px;
  align-items: center;
  border-bottom: 1px solid var(--hair);
  min-height: 46px;
  padding: 4px 0;
  b {
    font-weight: 620;
  }
  > p:last-child {
    grid-column: 1 / -1;
  }
  ${phone} {
    grid-template-columns: 1fr auto;
    padding: 6px 0;
    svg {
      grid-column: 1 / 3;
    }
  }
`
const SURE = { sure: 'sure', fair: 'fair', a_hint: 'a hint' } as const
const [WIDE, HIGH] = [150, 22]

export function Rates({ rates, target, onTake }: { rates: LearnedRate[]; target?: string; onTake: (key: string) => void }) {
  const units = useUnits()
  if (!rates.length) return <Muted>Nothing was noted that a rate could be learned from: water drunk, food eaten, fuel and small things used.</Muted>
  const figure = (rate: LearnedRate, value: number) => {
    const decimals = Math.abs(value) < 1 ? 2 : Math.abs(value) < 20 ? 1 : 0
    if (rate.unit && isQuantity(rate.unit)) return units.show(value, rate.unit, decimals)
    return `${value.toFixed(decimals)}${rate.unit ? `\u00a0${rate.unit}` : ''}`
  }
  return (
    <ul>
      {rates.map((rate) => {
        const low = Math.min(rate.low, rate.assumed)
        const high = Math.max(rate.high, rate.assumed)
        const pad = (high - low) * 0.15 || 1
        const x = (value: number) => 4 + ((value - low + pad) / (high - low + 2 * pad)) * (WIDE - 8)
        return (
          <Row key={rate.key} aria-label={rate.name}>
            <b>{rate.name}</b>
            <span>
              <b>{figure(rate, rate.mean)}</b> <Muted as="span">{rate.per}</Muted>
            </span>
            <svg
              width={WIDE}
              height={HIGH}
              role="img"
              aria-label={`Nine in ten between ${figure(rate, rate.low)} and ${figure(rate, rate.high)}; assumed was ${figure(rate, rate.assumed)}`}
            >
              <path d={`M0 ${HIGH / 2}H${WIDE}`} stroke="var(--hair)" />
              <rect x={x(rate.low)} y={4} width={Math.max(x(rate.high) - x(rate.low), 2)} height={HIGH - 8} fill="var(--kit-t)" stroke="var(--ink)" />
              <path d={`M${x(rate.mean)} 1V${HIGH - 1}`} stroke="var(--ink)" strokeWidth={2.5} />
              <circle cx={x(rate.assumed)} cy={HIGH / 2} r={5} fill="var(--sky)" stroke="var(--ink)" strokeWidth={1.8} />
            </svg>
            <span>{SURE[rate.sure]}</span>
            {rate.takes === 'nothing' ? (
              <Muted>to know</Muted>
            ) : rate.taken ? (
              <b>taken</b>
            ) : (
              <Button $small isDisabled={!target} aria-label={`Take ${rate.name}`} onPress={() => onTake(rate.key)}>
                Take
              </Button>
            )}
            <Muted>{units.say(rate.noted)}</Muted>
          </Row>
        )
      })}
    </ul>
  )
}
