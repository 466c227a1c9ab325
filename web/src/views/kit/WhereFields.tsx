/** Where a thing is along the road: packed, worn, fixed to the bike, posted, waiting, at home; each from a place on. */
import { BOUNDS } from '../../api/bounds'
import type { Whereabouts } from '../../api/client'
import { useDesk } from '../../api/tour'
import { carrierEntries } from '../../instruments/loadEdits'
import { Actions, Button, Muted, Row } from '../../ui/controls'
import { Choice, Measure } from '../../ui/fields'

export const HOW_WORDS: Record<Whereabouts['how'], string> = {
  packed: 'packed in a bag',
  worn: 'worn',
  pocket: 'in a pocket',
  fixed: 'fixed',
  posted: 'posted',
  waiting: 'waiting at a stop',
  home: 'at home',
}
export const SPOT_WORDS: Record<NonNullable<Whereabouts['spot']>, string> = {
  bar_left: 'bar, left',
  bar_middle: 'bar, middle',
  bar_right: 'bar, right',
  stem: 'stem',
  fork_crown: 'fork crown',
  seat_post: 'seat post',
  saddle_rails: 'saddle rails',
  rack_tail: 'end of the rack',
  frame: 'frame',
  outside: 'outside of a bag',
}
const OFF = new Set<Whereabouts['how']>(['posted', 'waiting'])
/** Packed all the way. */
export const START: Whereabouts = { from_km: 0, how: 'packed', spot: null, bag_id: null, stop_id: null, width_mm: 0, height_mm: 0 }

/** The same in one line, for lists. */
export function whereWords(where: Whereabouts[], km: (at: number) => string): string {
  return where
    .map((w) => `${w.how === 'fixed' && w.spot ? `fixed, ${SPOT_WORDS[w.spot]}` : HOW_WORDS[w.how]}${w.from_km > 0 ? ` from ${km(w.from_km)}` : ''}`)
    .join(', then ')
}

export function WhereFields({ where, onChange }: { where: Whereabouts[]; onChange: (where: Whereabouts[]) => void }) {
  const { sheet, assessment } = useDesk()
  const bags = carrierEntries(sheet)
  const stops = [...sheet.road.stops].sort((a, b) => a.at_km - b.at_km)
  const rows = where.length ? where : [START]
  const put = (i: number, part: Partial<Whereabouts>) => {
    const next = rows.map((row, k) => (k === i ? { ...row, ...part } : row)).sort((a, b) => a.from_km - b.from_km)
    onChange(next.length === 1 && next[0]?.how === 'packed' && next[0].from_km === 0 ? [] : next)
  }
  const end = assessment.road?.length_km ?? 0
  return (
    <section aria-label="Where it is along the road">
      {rows.map((row, i) => (
        <Row key={`${i}-${row.from_km}`} $min={130}>
          <Measure
            label={i === 0 ? 'From' : 'Then from'}
            value={row.from_km}
            quantity="distance"
            decimals={1}
            range={BOUNDS.Whereabouts.from_km}
            onChange={(from_km) => put(i, { from_km })}
          />
          <Choice
            label="Where it is"
            value={row.how}
            onChange={(how) => put(i, { how, spot: how === 'fixed' ? (row.spot ?? 'bar_middle') : null, bag_id: null })}
            options={(Object.keys(HOW_WORDS) as Whereabouts['how'][]).map((id) => ({ id, text: HOW_WORDS[id] }))}
          />
          {row.how === 'fixed' && (
            <>
              <Choice
                label="Where"
                value={row.spot ?? 'bar_middle'}
                onChange={(spot) => put(i, { spot, bag_id: spot === 'outside' ? (bags[0]?.id ?? null) : null })}
                options={(Object.keys(SPOT_WORDS) as NonNullable<Whereabouts['spot']>[])
                  .filter((id) => id !== 'outside' || bags.length > 0)
                  .map((id) => ({ id, text: SPOT_WORDS[id] }))}
              />
              {row.spot === 'outside' && (
                <Choice
                  label="Of"
                  value={row.bag_id ?? ''}
                  onChange={(bag_id) => put(i, { bag_id })}
                  options={bags.map((b) => ({ id: b.id, text: b.label }))}
                />
              )}
              <Measure
                label="Clamp, wide"
                value={row.width_mm}
                quantity="length"
                range={BOUNDS.Whereabouts.width_mm}
                onChange={(width_mm) => put(i, { width_mm })}
              />
              <Measure
                label="Stands above by"
                value={row.height_mm}
                quantity="length"
                range={BOUNDS.Whereabouts.height_mm}
                onChange={(height_mm) => put(i, { height_mm })}
              />
            </>
          )}
          {OFF.has(row.how) && (
            <Choice
              label="Stop"
              value={row.stop_id ?? '-'}
              onChange={(v) => {
                const stop = stops.find((s) => s.id === v)
                put(i, { stop_id: stop?.id ?? null, ...(stop && row.how === 'posted' && { from_km: stop.at_km }) })
              }}
              options={[{ id: '-', text: 'not said' }, ...stops.map((s) => ({ id: s.id, text: s.name }))]}
            />
          )}
          {rows.length > 1 && (
            <Button $small onPress={() => onChange(rows.filter((_, k) => k !== i))}>
              Remove
            </Button>
          )}
        </Row>
      ))}
      <Actions>
        <Button
          $small
          isDisabled={(rows.at(-1)?.from_km ?? 0) >= end}
          onPress={() => onChange([...rows, { ...START, from_km: Math.round((((rows.at(-1)?.from_km ?? 0) + end) / 2) * 10) / 10, how: 'home' }])}
        >
          Somewhere else later
        </Button>
      </Actions>
      <Muted>Where it is handed over, what was and what comes are both on board, and every limit holds with both.</Muted>
    </section>
  )
}
