/** What several drawings of the questions have in common. */
import styled from 'styled-components'
import { useShown } from '../../api/tour'
import { Dot } from '../../ui/icons'
import { Button } from '../../ui/controls'
import { useUnits } from '../../ui/preferences'
import { phone, sign } from '../../ui/theme'

/** A question at the left, its days and its answer beside it. */
export const QuestionRow = styled.section`
  display: grid;
  grid-template-columns: 148px minmax(0, 1fr);
  border-bottom: 1px solid var(--edge);
  padding-left: 20px;
  break-inside: avoid;
  > div {
    padding-top: 3px;
  }
  > div > svg {
    display: block;
  }
  @media print {
    > div > svg[viewBox] {
      width: 100%;
      height: auto;
    }
  }
  > h3 {
    padding: 4px 8px 4px 0;
  }
  > button {
    padding: 4px 8px 4px 0;
    align-self: start;
    min-height: 44px;
    text-align: left;
  }
  h3 {
    font-family: ${sign};
    font-stretch: var(--width-sign);
    font-weight: 740;
    font-size: var(--size-small);
    line-height: 17px;
  }
  .state {
    display: flex;
    align-items: end;
    gap: 5px;
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
  }
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
    padding: 0 14px;
  }
`

const Riders = styled.div`
  display: flex;
  gap: 4px;
  padding-top: 6px;
`

/** Whose drawing is shown, where there are several. */
export function Whose({ ids, chosen, onChoose }: { ids: string[]; chosen: string; onChoose: (id: string) => void }) {
  const { sheet } = useShown()
  if (ids.length < 2) return null
  return (
    <Riders className="no-print">
      {ids.map((id) => (
        <Button key={id} $small aria-pressed={id === chosen} onPress={() => onChoose(id)}>
          <Dot on={id === chosen} />
          {sheet.riders.find((r) => r.id === id)?.name}
        </Button>
      ))}
    </Riders>
  )
}

/** A line at a temperature across the days, with its figure at the right. */
export function Level({ celsius, y, width }: { celsius: number; y: number; width: number }) {
  const units = useUnits()
  return (
    <g>
      <path d={`M0 ${y}H${width}`} stroke="var(--hair)" />
      <text
        x={width - 4}
        y={y - 3}
        fontSize="var(--size-fine)"
        textAnchor="end"
        stroke="var(--sky)"
        strokeWidth={3}
        style={{ fill: 'var(--ink2)', paintOrder: 'stroke' }}
      >
        {units.show(celsius, 'temperature')}
      </text>
    </g>
  )
}
