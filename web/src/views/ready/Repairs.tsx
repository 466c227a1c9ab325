/** Every fault, and whether its tool, its part, their fit and a hand for it are there: read in a minute. */
import styled from 'styled-components'
import type { Assessment } from '../../api/client'
import { useShown } from '../../api/tour'
import { useUnits } from '../../ui/preferences'

type Fault = Assessment['faults'][number]
type Cell = Fault['tool']
const ROWS: [keyof Pick<Fault, 'tool' | 'part' | 'fits' | 'skill'>, string][] = [
  ['tool', 'tool'],
  ['part', 'part'],
  ['fits', 'fits'],
  ['skill', 'can do'],
]
const WORDS: Record<Cell, string> = { at_hand: 'at hand', makeshift: 'makeshift', missing: 'missing', not_asked: 'not asked' }
const SHAPES: Cell[] = ['at_hand', 'makeshift', 'missing', 'not_asked']

const Scroll = styled.div`
  overflow-x: auto;
  padding-right: 20px;
  table {
    border-collapse: collapse;
    font-size: var(--size-fine);
    font-stretch: var(--width-narrow);
  }
  th {
    font-weight: 560;
    vertical-align: bottom;
    padding: 2px 3px;
    line-height: 13px;
    text-align: center;
    min-width: 42px;
    max-width: 64px;
  }
  tbody th {
    text-align: right;
    padding-right: 8px;
    white-space: nowrap;
    max-width: none;
  }
  td {
    text-align: center;
    height: 16px;
    padding: 0 3px;
  }
  th.lacks {
    font-weight: 760;
  }
  td.lacks {
    background: var(--tag);
  }
  caption {
    text-align: left;
    font-size: var(--size-note);
    font-weight: 650;
    padding-top: 6px;
  }
`
const Legend = styled.p`
  display: flex;
  gap: 4px 14px;
  flex-wrap: wrap;
  font-size: var(--size-note);
  font-stretch: var(--width-narrow);
  color: var(--ink2);
  padding: 2px 20px 4px 0;
  span {
    display: inline-flex;
    align-items: center;
    gap: 4px;
  }
`

const Note = styled.p`
  margin: 2px 0;
  font-size: var(--size-note);
  color: var(--ink2);
`

function Shape({ cell }: { cell: Cell }) {
  return (
    <svg width={13} height={13} aria-hidden="true">
      {cell === 'not_asked' ? (
        <path d="M2 6.5H11" stroke="var(--ink2)" strokeWidth={1.4} />
      ) : (
        <>
          <rect
            x={1.5}
            y={1.5}
            width={10}
            height={10}
            fill={cell === 'at_hand' ? 'var(--ink)' : 'var(--tag)'}
            stroke="var(--ink)"
            strokeWidth={1.6}
          />
          {cell === 'makeshift' && <path d="M1.5 11.5L11.5 1.5V11.5Z" fill="var(--ink)" />}
        </>
      )}
    </svg>
  )
}

export function Repairs({ width, open }: { width: number; open: boolean }) {
  const { assessment, sheet } = useShown()
  const units = useUnits()
  const { faults } = assessment
  if (!faults.length) return <svg width={width} height={20} aria-hidden="true" />
  const bikes: { id: string | null; name: string }[] = [...sheet.rig.bikes.map((b) => ({ id: b.id, name: b.name })), { id: null, name: 'In camp' }]
  if (!open) {
    const lacking = faults.filter((f) => f.lacks.length)
    return (
      <Scroll>
        <svg width={width} height={22} role="img" aria-label={`${lacking.length} of ${faults.length} faults cannot be mended`}>
          {faults.map((f, i) => (
            <rect
              key={f.id}
              x={i * 16 + 2}
              y={4}
              width={11}
              height={11}
              fill={f.lacks.length ? 'var(--tag)' : 'var(--ink)'}
              stroke="var(--ink)"
              strokeWidth={1.6}
            >
              <title>
                {f.words}
                {f.lacks.length ? `: ${f.lacks.join('; ')}` : ': can be mended'}
              </title>
            </rect>
          ))}
        </svg>
      </Scroll>
    )
  }
  const gap = faults[0]?.gap_km ?? 0
  return (
    <>
      {bikes.map((bike) => {
        const own = faults.filter((f) => f.bike_id === bike.id)
        if (!own.length) return null
        return (
          <Scroll key={bike.id ?? '-'} tabIndex={0} role="region" aria-label={`Repairs: ${bike.name}`}>
            <table>
              <caption>{bike.name}</caption>
              <thead>
                <tr>
                  <td />
                  {own.map((f) => (
                    <th key={f.id} scope="col" className={f.lacks.length ? 'lacks' : undefined}>
                      {f.words}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {ROWS.map(([row, words]) => (
                  <tr key={row}>
                    <th scope="row">{words}</th>
                    {own.map((f) => (
                      <td key={f.id} className={f.lacks.length ? 'lacks' : undefined} title={`${f.words}, ${words}: ${WORDS[f[row]]}`}>
                        <Shape cell={f[row]} />
                        <span className="unseen">{WORDS[f[row]]}</span>
                      </td>
                    ))}
                  </tr>
                ))}
                <tr>
                  <th scope="row">there / wanted</th>
                  {own.map((f) => (
                    <td key={f.id} className={f.lacks.length ? 'lacks' : undefined}>
                      {f.part === 'not_asked' ? '' : `${f.owned} / ${f.wanted}`}
                    </td>
                  ))}
                </tr>
              </tbody>
            </table>
            {own.map((f) => f.note && <Note key={f.id}>{units.say(f.note)}</Note>)}
          </Scroll>
        )
      })}
      <Legend>
        {SHAPES.map((cell) => (
          <span key={cell}>
            <Shape cell={cell} /> {WORDS[cell]}
          </span>
        ))}
        <span>the longest way without a bike shop: {units.show(gap, 'distance')}</span>
      </Legend>
    </>
  )
}
