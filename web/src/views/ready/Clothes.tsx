/** Clean pieces each morning, a lane a kind; empty where none is left; a stroke where clothes are washed. */
import { useShown } from '../../api/tour'
import type { Scale } from '../../instruments/ribbonScale'

const OPEN_LANE = 20
const CLOSED_LANE = 14
const CLOSED_LANES = 2
const PIECES = { shirt: 'shirts', shorts: 'shorts', underwear: 'underwear', socks: 'socks' }

export function Clothes({ scale, width, open }: { scale: Scale; width: number; open: boolean }) {
  const { assessment, sheet } = useShown()
  const { wardrobes } = assessment
  if (!wardrobes.length) return <svg width={width} height={36} aria-hidden="true" />
  const lacking = wardrobes.filter((w) => w.days.some((d) => d.clean === 0))
  const missing = lacking.length
  // Closed, only what runs out is worth its lines.
  const LANE = open ? OPEN_LANE : CLOSED_LANE
  const shown = open ? wardrobes : missing > 0 ? lacking.slice(0, CLOSED_LANES) : wardrobes.slice(0, 1)
  return (
    <svg
      width={width}
      height={shown.length * LANE + 3}
      role="img"
      aria-label={missing ? `${missing} of ${wardrobes.length} kinds of clothes run out between washes` : 'Enough clothes on every day'}
    >
      {shown.map((wardrobe, k) => {
        const foot = (k + 1) * LANE
        const most = Math.max(...wardrobe.days.map((d) => d.clean), 1)
        const name = sheet.riders.find((r) => r.id === wardrobe.rider_id)?.name ?? ''
        return (
          <g key={`${wardrobe.rider_id} ${wardrobe.piece}`}>
            {wardrobe.days.map((day) => {
              const [x0, x1] = [scale.edges[day.day - 1] ?? 0, scale.edges[day.day] ?? 0]
              const tall = (day.clean / most) * (LANE - 4)
              return (
                <g key={day.day}>
                  {day.clean > 0 ? (
                    <rect x={x0 + 1} y={foot - tall} width={Math.max(x1 - x0 - 2, 1)} height={tall} fill="var(--kit-t)" />
                  ) : (
                    <rect
                      x={x0 + 1}
                      y={foot - LANE + 4}
                      width={Math.max(x1 - x0 - 2, 1)}
                      height={LANE - 4}
                      fill="var(--tag)"
                      stroke="var(--ink)"
                      strokeDasharray="3 2"
                    >
                      <title>
                        Day {day.day}: no clean {PIECES[wardrobe.piece]}
                      </title>
                    </rect>
                  )}
                  {day.washed && <path d={`M${x1.toFixed(1)} ${foot - LANE + 5}V${foot}`} stroke="var(--ink)" strokeWidth={1.4} />}
                </g>
              )
            })}
            <text x={3} y={foot - 2} fontSize="var(--size-fine)" stroke="var(--sky)" strokeWidth={3} style={{ paintOrder: 'stroke' }}>
              {name}: {PIECES[wardrobe.piece]} {wardrobe.owned}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
