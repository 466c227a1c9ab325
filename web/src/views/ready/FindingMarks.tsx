/** Findings as marks at their days; those of no day stand at the beginning. */
import type { Finding } from '../../api/client'
import type { Scale } from '../../instruments/ribbonScale'
import { useUnits } from '../../ui/preferences'

const HEIGHT = 26
const SIZE = 15
const RISE = { stops_you: 0.95, slows_you: 0.65, worth_knowing: 0.36 }
const FILL = { stops_you: 'var(--ink)', slows_you: 'url(#hatch)', worth_knowing: 'none' }

export function FindingMarks({ findings, scale, width }: { findings: Finding[]; scale: Scale; width: number }) {
  const units = useUnits()
  const taken: number[] = []
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={`${findings.length} found`}>
      <path d={`M0 ${HEIGHT - 5}H${width}`} stroke="var(--hair)" />
      {findings.map((finding) => {
        let x = finding.day === null ? 2 : ((scale.edges[finding.day - 1] ?? 0) + (scale.edges[finding.day] ?? 0)) / 2 - SIZE / 2
        while (taken.some((other) => Math.abs(other - x) < SIZE + 2)) x += SIZE + 2
        taken.push(x)
        const rise = RISE[finding.grade] * SIZE
        return (
          <path
            key={finding.id}
            d={`M${x.toFixed(1)} ${HEIGHT - 5}h${SIZE}v${(-rise).toFixed(1)}Z`}
            fill={FILL[finding.grade]}
            stroke="var(--ink)"
            strokeWidth={1.4}
          >
            <title>{units.say(finding.sentence)}</title>
          </path>
        )
      })}
    </svg>
  )
}
