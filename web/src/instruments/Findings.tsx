/** What goes wrong, ranked, each with place, reason, evidence to scale, and what would help. */
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import type { Finding } from '../api/client'
import { useDesk } from '../api/tour'
import { Button, Muted, Section } from '../ui/controls'
import { Fold } from '../ui/Fold'
import { GRADES_COUNTED, GRADE_WORDS, Wedge } from '../ui/icons'
import { useUnits } from '../ui/preferences'
import { InPlays } from './InPlays'
import { Mends } from './Mends'
import { SetAside } from './SetAside'
import { useFocus, useGoToKm } from './moment'

const Column = styled.section`
  min-height: 0;
  overflow-y: auto;
  padding: 9px 20px 12px 18px;
  scrollbar-width: thin;
`
const Sum = styled.p`
  display: flex;
  gap: 4px 10px;
  flex-wrap: wrap;
  font-size: var(--size-note);
  font-stretch: var(--width-narrow);
  margin: 3px 0 8px;
  color: var(--ink2);
  span {
    display: inline-flex;
    align-items: flex-end;
    gap: 4px;
    white-space: nowrap;
  }
`
const Item = styled.article<{ $open: boolean }>`
  border-top: ${(p) => (p.$open ? '3px solid var(--ink)' : '1px solid var(--edge)')};
  padding: 6px 0 6px 30px;
  position: relative;
  > .wedge {
    position: absolute;
    left: 0;
    top: 8px;
  }
  > button {
    display: block;
    width: 100%;
  }
  h3 {
    font-size: ${(p) => (p.$open ? '16px' : '14px')};
    line-height: ${(p) => (p.$open ? '20px' : '18px')};
    font-weight: ${(p) => (p.$open ? 680 : 600)};
    font-stretch: var(--width-text);
  }
  .at {
    font-size: var(--size-note);
    font-stretch: var(--width-narrow);
    color: var(--ink2);
    line-height: 17px;
  }
  p {
    font-size: var(--size-small);
    line-height: 17px;
    font-stretch: var(--width-text);
    color: var(--ink2);
    margin: 3px 0;
  }
`
/** Findings shown at first; the rest on asking. */
const AT_FIRST = 4

export function Findings() {
  const { assessment, sheet } = useDesk()
  const goToKm = useGoToKm()
  const { setBike } = useFocus()
  const units = useUnits()
  const [chosen, setOpen] = useState<string | null>(null)
  const [all, setAll] = useState(false)
  const live = assessment.findings.filter((f) => f.aside === null)
  const findings = live.filter((f) => !f.of_kit && !f.small)
  const small = live.filter((f) => f.small)
  const aside = assessment.findings.filter((f) => f.aside !== null)
  const open = assessment.findings.some((f) => f.id === chosen) ? chosen : (findings[0]?.id ?? null)
  const openAt = findings.findIndex((f) => f.id === open)
  const shown = all ? findings : findings.filter((f, i) => i < AT_FIRST || f.id === open)
  const counts = (['stops_you', 'slows_you', 'worth_knowing'] as const).map((g) => [g, findings.filter((f) => f.grade === g).length] as const)
  const show = (finding: Finding) => {
    setOpen(finding.id)
    if (finding.bike_id) setBike(finding.bike_id)
    if (finding.at_km !== null) goToKm(finding.at_km)
  }
  const walk = (step: number) => {
    const next = findings[openAt + step]
    if (next) show(next)
  }
  const item = (finding: Finding) => (
    <Item key={finding.id} $open={finding.id === open}>
      <span className="wedge">
        <Wedge grade={finding.grade} size={finding.id === open ? 24 : 22} />
      </span>
      <button type="button" aria-expanded={finding.id === open} onClick={() => show(finding)}>
        <h3>{units.say(finding.sentence)}</h3>
        <span className="at">
          No. {finding.rank}: {GRADE_WORDS[finding.grade]}, {units.say(finding.place)}
        </span>
      </button>
      {finding.id === open && (
        <>
          <p>{units.say(finding.reason)}</p>
          {finding.need !== null && finding.holds !== null && finding.quantity && <Evidence finding={finding} />}
          <InPlays finding={finding} />
          <Mends key={finding.id} finding={finding} asked={finding.id === chosen} />
          <SetAside finding={finding} />
        </>
      )}
    </Item>
  )
  return (
    <Column
      aria-label="Findings"
      id="findings"
      data-walk="findings"
      tabIndex={-1}
      onKeyDown={(e) => {
        if ((e.target as Element).matches('input')) return
        if (e.key === 'n') walk(1)
        if (e.key === 'p') walk(-1)
      }}
    >
      <Section>Findings</Section>
      {findings.length === 0 && !sheet.load.placements.length ? (
        <Muted>Nothing is loaded yet. Once road, bike and things are there, what goes wrong is told here, the worst first.</Muted>
      ) : findings.length === 0 ? (
        <Muted>
          Nothing found for this load. {assessment.checked.length} kinds of trouble were checked:{' '}
          {assessment.checked.map((k) => k.replaceAll('_', ' ')).join(', ')}.
        </Muted>
      ) : (
        <Sum>
          {counts.map(
            ([grade, count]) =>
              count > 0 && (
                <span key={grade}>
                  <Wedge grade={grade} size={15} />
                  {count} {GRADES_COUNTED[grade][count === 1 ? 0 : 1]}
                </span>
              ),
          )}
        </Sum>
      )}
      {shown.map(item)}
      {!all && findings.length > shown.length && (
        <Item as="div" $open={false}>
          <button type="button" onClick={() => setAll(true)}>
            <h3>{findings.length - shown.length} more</h3>
          </button>
        </Item>
      )}
      {all && findings.length > AT_FIRST && (
        <Button $small onPress={() => setAll(false)}>
          Show fewer
        </Button>
      )}
      {live.length > findings.length + small.length && (
        <Muted>
          <Link to="../ready">{live.length - findings.length - small.length} more about the kit itself, under Ready</Link>
        </Muted>
      )}
      {small.length > 0 && (
        <Fold summary={`Lesser things: ${small.length}`} open={small.some((f) => f.id === open)}>
          {small.map(item)}
        </Fold>
      )}
      {aside.length > 0 && (
        <Fold summary={`Set aside: ${aside.length}`} open={aside.some((f) => f.id === open)}>
          {aside.map(item)}
        </Fold>
      )}
      <Muted as="footer" style={{ marginTop: 10 }}>
        Limits are the makers’, the lowest in a chain counts. Check bolts and ride the loaded bike before you leave.
      </Muted>
    </Column>
  )
}

/** Need against what the rig holds, drawn to scale. */
function Evidence({ finding }: { finding: Finding }) {
  const units = useUnits()
  const need = finding.need ?? 0
  const holds = finding.holds ?? 0
  const quantity = finding.quantity ?? 'mass'
  const wide = 236
  const per = wide / Math.max(need, holds)
  const parts = Object.entries(finding.parts).filter(([, v]) => v > 0)
  let at = 0
  const fill = finding.kind === 'water_gap' ? 'url(#water)' : 'url(#kit)'
  const marked = parts.length > 1 ? parts : ([['in it', need]] as [string, number][])
  return (
    <svg
      width={wide + 2}
      height={46}
      viewBox={`-1 0 ${wide + 2} 46`}
      role="img"
      aria-label={`Needed ${units.show(need, quantity)}, holds ${units.show(holds, quantity)}`}
    >
      {marked.map(([name, value], i) => {
        const x = at * per
        at += value
        const w = value * per
        return (
          <g key={name}>
            <rect x={x} y={14} width={w} height={14} fill={name === 'reserve' ? 'var(--tag)' : fill} stroke="var(--ink)" strokeWidth={1.2} />
            {w > 40 && (
              <text
                x={i > 0 && i === marked.length - 1 ? x + w - 1 : x + 1}
                y={41}
                fontSize="var(--size-fine)"
                textAnchor={i > 0 && i === marked.length - 1 ? 'end' : 'start'}
                style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink2)' }}
              >
                {name}{' '}
                <tspan fontWeight={700} fill="var(--ink)">
                  {units.figure(value, quantity)}
                </tspan>
              </text>
            )}
          </g>
        )
      })}
      <path d={`M${holds * per} 31V4h-7`} stroke="var(--ink)" strokeWidth={2.4} fill="none" />
      <text x={holds * per - 11} y={10} fontSize="var(--size-fine)" fontWeight={600} textAnchor="end" style={{ fontStretch: 'var(--width-narrow)' }}>
        holds {units.show(holds, quantity)}
      </text>
    </svg>
  )
}
