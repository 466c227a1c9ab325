/** Into what days the road is cut, and where they may end. */
import { BOUNDS } from '../../api/bounds'
import type { Road } from '../../api/client'
import { Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'

type Cut = Road['cut']

export function CutDays({ cut: now, onCut }: { cut: Cut; onCut: (cut: Cut) => void }) {
  const cut = (part: Partial<Cut>) => onCut({ ...now, ...part })
  return (
    <>
      <Row $min={120}>
        <Choice
          label="Cut the road by"
          value={now.by}
          onChange={(by) => cut({ by })}
          options={[
            { id: 'hours', text: 'Riding hours' },
            { id: 'distance', text: 'Distance' },
            { id: 'days', text: 'Days in all' },
          ]}
        />
        {now.by === 'days' ? (
          <Measure
            label="Days, rests with them"
            value={now.days}
            quantity="count"
            range={BOUNDS.DayCut.days}
            onChange={(days) => cut({ days: Math.round(days) })}
          />
        ) : now.by === 'hours' ? (
          <Measure label="Riding a day" value={now.hours} quantity="hours" range={BOUNDS.DayCut.hours} onChange={(hours) => cut({ hours })} />
        ) : (
          <Measure
            label="Distance a day"
            value={now.distance_km}
            quantity="distance"
            range={BOUNDS.DayCut.distance_km}
            onChange={(distance_km) => cut({ distance_km })}
          />
        )}
      </Row>
      <Choice
        label="Nights"
        value={now.to_stops ? 'stops' : 'exact'}
        onChange={(v) => cut({ to_stops: v === 'stops' })}
        options={[
          { id: 'stops', text: 'At a good place to sleep if one is near' },
          { id: 'exact', text: 'Exactly where the day is full' },
        ]}
      />
    </>
  )
}
