/** Where one is: typed, or by a recorded ride. */
import { TRACK_FILES } from '../../api/bounds'
import { FileButton, Section } from '../../ui/controls'
import { Measure } from '../../ui/fields'

/** So near a place one is there [km]. */
export const HERE_KM = 3

export function Where({ km, onKm, onTrack }: { km: number; onKm: (km: number) => void; onTrack: (file: File) => void }) {
  return (
    <div style={{ marginTop: 12 }}>
      <Section as="h3">Where am I</Section>
      <Measure label="Kilometre of the road" value={km} quantity="distance" decimals={1} onChange={onKm} />
      <p style={{ marginTop: 8 }}>
        <FileButton accept={TRACK_FILES} onFile={onTrack}>
          Lay a recorded ride on the road
        </FileButton>
      </p>
    </div>
  )
}
