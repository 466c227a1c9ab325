/** Where the figures of the world come from, and under which terms: the page that credits what ships. */
import { Dialog } from '../ui/Dialog'
import { Actions, Button, Muted } from '../ui/controls'
import { Sheet } from '../ui/sheet'

const SOURCES = [
  [
    'Climate where no station is yours',
    'ERA5 monthly means 2000 to 2025 on a grid of 0.25°, ECMWF for the Copernicus Climate Change Service',
    'Contains modified Copernicus Climate Change Service information; neither the European Commission nor ECMWF answers for its use here',
  ],
  ['Height of the land under it', 'Recommendation ITU-R P.1511-2', 'as published with the recommendation'],
  ['Places, their size and names', 'GeoNames, geonames.org: places of 500 people and more', 'CC BY 4.0; positions and sizes are rounded'],
  ['What a place so large mostly has', 'common practice of riders', 'a guess, until you say it'],
  ['Time zones by place', 'OpenStreetMap contributors', 'ODbL 1.0'],
  [
    'Water, shops, beds, ground and tunnels of a map',
    'OpenStreetMap contributors, by the file or service that you ask',
    'ODbL 1.0; each stop says which of it is the map\u2019s',
  ],
  ['Shapes of the land', 'Natural Earth, naturalearthdata.com', 'public domain'],
] as const

export function SourcesDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Where this comes from" open onClose={onClose} wide>
      <Muted>All but maps ships with Omnifer and is looked up without a network. What you say goes before all of it.</Muted>
      <Sheet>
        <thead>
          <tr>
            <th>What</th>
            <th className="wide">From</th>
            <th className="wide">Terms</th>
          </tr>
        </thead>
        <tbody>
          {SOURCES.map(([what, from, terms]) => (
            <tr key={what}>
              <td>{what}</td>
              <td>{from}</td>
              <td>{terms}</td>
            </tr>
          ))}
        </tbody>
      </Sheet>
      <Actions>
        <Button $wanted onPress={onClose}>
          Close
        </Button>
      </Actions>
    </Dialog>
  )
}
