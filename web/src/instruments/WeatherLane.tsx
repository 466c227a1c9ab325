/** Each day's weather over the land: cold night to hot day, the mean between, rain, and light against hours on the road. */
import type { Day } from '../api/client'
import type { useUnits } from '../ui/preferences'
import type { Scale } from './ribbonScale'

export const WEATHER_KEYS = [
  'line: cold night to hot day',
  'box: the mean between',
  'grey box: frost',
  'hatched box: heat',
  'moon: ends after sunset',
  'ticks: often rain',
] as const

interface Props {
  days: Day[]
  scale: Scale
  top: number
  foot: number
  gutter: number
  units: ReturnType<typeof useUnits>
  small: boolean
  /** Nobody said what the weather is. */
  guessed: boolean
}

export function WeatherLane({ days, scale, top, foot, gutter, units, small, guessed }: Props) {
  const shown = days.slice(scale.from - 1, scale.to)
  const low = Math.min(...days.map((d) => d.night_low_c)) - 2
  const high = Math.max(...days.map((d) => d.day_high_c)) + 2
  const y = (c: number) => foot - ((c - low) / (high - low)) * (foot - top)
  const step = high - low > 35 ? 20 : 10
  const ticks = Array.from({ length: 12 }, (_, i) => (Math.ceil(low / step) + i) * step).filter((t) => t < high)
  const right = scale.edges.at(-1) ?? 0
  return (
    <g>
      {ticks.map((t) => (
        <g key={t}>
          <path
            d={`M${gutter} ${y(t).toFixed(1)}H${right}`}
            stroke={t === 0 ? 'var(--ink)' : 'var(--hair)'}
            strokeWidth={1}
            strokeDasharray={t === 0 ? '6 3' : undefined}
          />
          {!small && (
            <text
              x={gutter - 5}
              y={y(t) + 4}
              fontSize="var(--size-fine)"
              textAnchor="end"
              style={{ fontStretch: 'var(--width-narrow)', fill: 'var(--ink3)' }}
            >
              {units.figure(t, 'temperature', 0)}
            </text>
          )}
        </g>
      ))}
      {shown.map((day, i) => {
        const [a, b] = [scale.edges[i] ?? 0, scale.edges[i + 1] ?? 0]
        const [x, w] = [a + Math.min(3, (b - a) * 0.2), Math.max(2, (b - a) * 0.6)]
        const middle = x + w / 2
        return (
          <g key={day.number}>
            <title>{`Day ${day.number}${guessed ? ', a guess' : ''}: ${units.show(day.night_low_c, 'temperature')} to ${units.show(day.day_high_c, 'temperature')}, mean ${units.show(day.mean_min_c, 'temperature')} to ${units.show(day.mean_max_c, 'temperature')}${day.night_around_k > 0 ? `, nine nights in ten from ${units.show(day.mean_min_c - day.night_around_k, 'temperature')} to ${units.show(day.mean_min_c + day.night_around_k, 'temperature')}` : ''}`}</title>
            <path
              d={`M${middle.toFixed(1)} ${y(day.night_low_c).toFixed(1)}V${y(day.day_high_c).toFixed(1)}`}
              stroke="var(--ink)"
              strokeWidth={1.4}
              strokeDasharray={guessed ? '3 2' : undefined}
            />
            <rect
              x={x}
              y={y(day.mean_max_c)}
              width={w}
              height={Math.max(2, y(day.mean_min_c) - y(day.mean_max_c))}
              fill={day.hot ? 'url(#hatch)' : day.night_low_c < 0 ? 'var(--edge)' : 'var(--tag)'}
              stroke="var(--ink)"
              strokeWidth={1.2}
            />
            <path d={`M${x} ${y(day.day_high_c).toFixed(1)}h${w}M${x} ${y(day.night_low_c).toFixed(1)}h${w}`} stroke="var(--ink)" strokeWidth={1.4} />
            {day.dark && (
              <path d={`M${middle - 5} ${top - 12}a6 6 0 1 0 8 8a5 5 0 0 1 -8 -8Z`} fill="var(--ink)">
                <title>{`Day ${day.number} ends after sunset`}</title>
              </path>
            )}
            {day.rain_chance >= 0.25 && (
              <path d={`M${x} ${foot + 2}v-6m${w / 2} 6v-6m${w / 2} 6v-6`} stroke="var(--ink)" strokeWidth={1.6} strokeLinecap="round">
                <title>{`Rain on ${Math.round(day.rain_chance * 100)} % of such days`}</title>
              </path>
            )}
          </g>
        )
      })}
    </g>
  )
}
