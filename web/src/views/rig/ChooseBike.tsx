/** Bikes to choose from, by the size of the frame. */
import { useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import { api, type Bike, type Rider } from '../../api/client'
import { useDesk } from '../../api/tour'
import { useFocus } from '../../instruments/moment'
import { Dialog } from '../../ui/Dialog'
import { Button, Muted } from '../../ui/controls'
import { Choice } from '../../ui/fields'
import { freeId } from '../../ui/freeId'
import { useUnits } from '../../ui/preferences'
import { MOUNT_WORDS } from './mounting'

export function ChooseBike({ rider, onClose }: { rider: Rider | undefined; onClose: () => void }) {
  const { sheet, change } = useDesk()
  const { setBike } = useFocus()
  const units = useUnits()
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue })
  const [wantedSize, setSize] = useState<string | null>(null)
  const size = wantedSize ?? catalogue?.bikes[1]?.size ?? ''
  const bikes = sheet.rig.bikes
  return (
    <Dialog title="Choose a bike" open onClose={onClose}>
      <Choice
        label="Frame size"
        value={size}
        onChange={setSize}
        options={[...new Set(catalogue?.bikes.map((b) => b.size))].map((id) => ({ id, text: id }))}
      />
      {(catalogue?.bikes ?? [])
        .filter((b) => b.size === size)
        .map(({ bike: preset }) => (
          <Button
            key={preset.id}
            onPress={() => {
              const of = rider ?? sheet.riders[0]
              if (!of) return
              const added: Bike = {
                ...preset,
                id: freeId(
                  'bike',
                  bikes.map((b) => b.id),
                ),
                rider_id: of.id,
                name: `${of.name}: ${preset.name.toLowerCase()}`,
              }
              void change(`Choose ${preset.name} for ${of.name}`, { rig: { bikes: [...bikes, added] } }).then(() => setBike(added.id))
              onClose()
            }}
          >
            {preset.name}: {units.show(preset.mass_kg, 'mass')}, limit {units.show(preset.maximum_system_kg, 'mass', 0)}
          </Button>
        ))}
      <Muted>
        Mounts: {MOUNT_WORDS.rear_eyelets}, {MOUNT_WORDS.fork_eyelets} and so on come with the type; every figure can be changed.
      </Muted>
    </Dialog>
  )
}
