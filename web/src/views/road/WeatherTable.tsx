/** Design weather by stretch: a hot day and a cold night of the season. */
import { BOUNDS } from '../../api/bounds'
import type { Road } from '../../api/client'
import { Button, IconButton, Muted, Row } from '../../ui/controls'
import { Measure } from '../../ui/fields'
import { Fold } from '../../ui/Fold'
import { useUnits } from '../../ui/preferences'

type Weather = Road['weather'][number]

export function WeatherTable({ weather, onChange }: { weather: Weather[]; onChange: (weather: Weather[]) => void }) {
  const units = useUnits()
  const put = (i: number, part: Partial<Weather>) => onChange(weather.map((w, j) => (j === i ? { ...w, ...part } : w)))
  const last = weather.at(-1)
  return (
    <>
      {!weather.length && (
        <Muted>No weather known: a mild season is assumed everywhere. Say a hot day and a cold night to expect, not the mean ones.</Muted>
      )}
      {weather.map((w, i) => (
        <Fold
          key={i}
          summary={
            <>
              from {units.show(w.from_km, 'distance')}: {units.figure(w.night_low_c, 'temperature')} to {units.show(w.day_high_c, 'temperature')} at{' '}
              {units.show(w.at_elevation_m, 'elevation')}
            </>
          }
        >
          <Row $min={84} style={{ padding: '6px 0' }}>
            <Measure label="From" value={w.from_km} quantity="distance" range={BOUNDS.Weather.from_km} onChange={(from_km) => put(i, { from_km })} />
            <Measure
              label="Hot day"
              value={w.day_high_c}
              quantity="temperature"
              range={BOUNDS.Weather.day_high_c}
              onChange={(day_high_c) => put(i, { day_high_c })}
            />
            <Measure
              label="Cold night"
              value={w.night_low_c}
              quantity="temperature"
              range={BOUNDS.Weather.night_low_c}
              onChange={(night_low_c) => put(i, { night_low_c })}
            />
            <Measure
              label="Measured at"
              value={w.at_elevation_m}
              quantity="elevation"
              range={BOUNDS.Weather.at_elevation_m}
              onChange={(at_elevation_m) => put(i, { at_elevation_m })}
            />
            <Measure
              label="Humidity in %"
              value={w.humidity_pct}
              quantity="count"
              range={BOUNDS.Weather.humidity_pct}
              onChange={(humidity_pct) => put(i, { humidity_pct })}
            />
            <IconButton aria-label="Remove this stretch" onPress={() => onChange(weather.filter((_, j) => j !== i))}>
              ×
            </IconButton>
          </Row>
        </Fold>
      ))}
      <Button
        $small
        onPress={() =>
          onChange([
            ...weather,
            last ? { ...last, from_km: last.from_km + 100 } : { from_km: 0, day_high_c: 26, night_low_c: 10, humidity_pct: 50, at_elevation_m: 0 },
          ])
        }
      >
        Add weather {last ? 'further on' : ''}
      </Button>
    </>
  )
}
