/** What spares and tools must fit on a bike, and in what state it sets out. */
import { BOUNDS } from '../../api/bounds'
import type { Bike } from '../../api/client'
import { Muted, Row } from '../../ui/controls'
import { Choice, Measure, SettledField } from '../../ui/fields'
import { Picks } from '../../ui/Picks'

const TYRES = { light: 'light', usual: 'usual', armoured: 'armoured against thorns' } as const
const TREADS = { slick: 'slick', mixed: 'mixed', knobbly: 'knobbly' } as const
const STATES = { serviced: 'serviced just before', usual: 'as usual', worn: 'worn' } as const
const PEDALS = { flat: 'flat', clip_in: 'clip in' } as const
const entries = <T extends string>(words: Record<T, string>) => (Object.keys(words) as T[]).map((id) => ({ id, text: words[id] }))
const listed = (text: string) =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)

export function BikeSpares({ bike, say }: { bike: Bike; say: (what: string, part: Partial<Bike>) => void }) {
  const flags = [...(bike.tubeless ? ['tubeless'] : []), ...(bike.mudguards ? ['mudguards'] : []), ...(bike.hoses ? ['hoses'] : [])]
  return (
    <>
      <Row $min={130}>
        <Choice label="Tyres are" value={bike.tyre_kind} onChange={(tyre_kind) => say('Tyres', { tyre_kind })} options={entries(TYRES)} />
        <Choice label="Their tread is" value={bike.tread} onChange={(tread) => say('Tread', { tread })} options={entries(TREADS)} />
        <Measure
          label="Rim, depth"
          value={bike.rim_depth_mm}
          quantity="length"
          range={BOUNDS.Bike.rim_depth_mm}
          onChange={(rim_depth_mm) => say('Rims', { rim_depth_mm })}
        />
        <Measure
          label="Sprockets, or gears of a hub"
          value={bike.speeds}
          quantity="count"
          range={BOUNDS.Bike.speeds}
          onChange={(n) => say('Gears', { speeds: Math.round(n) })}
        />
        <Choice label="Pedals" value={bike.pedals} onChange={(pedals) => say('Pedals', { pedals })} options={entries(PEDALS)} />
        <Choice label="It sets out" value={bike.state} onChange={(state) => say('State', { state })} options={entries(STATES)} />
        <SettledField label="Hanger’s shape, as you call it" value={bike.hanger} optional onChange={(hanger) => say('Hanger', { hanger })} />
        <SettledField label="Pads’ shape, as you call it" value={bike.pads} optional onChange={(pads) => say('Pads', { pads })} />
        <SettledField
          label="Spokes in mm, commas between"
          value={bike.spokes_mm.join(', ')}
          optional
          onChange={(v) =>
            say('Spokes', {
              spokes_mm: listed(v)
                .map(Number)
                .filter((n) => n > 0),
            })
          }
        />
        <SettledField
          label="Heads of its bolts (hex 5, T25)"
          value={bike.heads.join(', ')}
          optional
          onChange={(v) => say('Bolts', { heads: listed(v) })}
        />
      </Row>
      <Picks
        label="It has"
        options={[
          { id: 'tubeless', text: 'tyres without tubes' },
          { id: 'mudguards', text: 'mudguards' },
          { id: 'hoses', text: 'brakes with fluid in hoses' },
        ]}
        chosen={flags}
        onChange={(v) => say('Fittings', { tubeless: v.includes('tubeless'), mudguards: v.includes('mudguards'), hoses: v.includes('hoses') })}
      />
      <Muted>Tubes, spokes, pads, hangers and keys of the kit are held against these under Ready.</Muted>
    </>
  )
}
