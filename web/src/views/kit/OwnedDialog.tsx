/** A thing of the library: changed for all open tours, with its picture. */
import type { Owned } from '../../api/client'
import { api } from '../../api/client'
import { Button, FileButton, Muted } from '../../ui/controls'
import { ThingDialog } from './ThingDialog'
import type { Library } from './useLibrary'

interface Props {
  owned: Owned
  tell: Library['tell']
  onClose: () => void
  onRemoved: (owned: Owned) => void
}

export function OwnedDialog({ owned, tell, onClose, onRemoved }: Props) {
  return (
    <ThingDialog
      thing={owned.thing}
      owned
      onClose={onClose}
      onKeep={(thing) => void tell(api.changeOwned(owned.id, owned.version, thing)).then((done) => done && onClose())}
      onRemove={() =>
        void tell(api.removeOwned(owned.id, owned.version)).then((done) => {
          if (!done) return
          onRemoved(owned)
          onClose()
        })
      }
      more={
        <div style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
          {owned.has_picture && <img src={`/api/library/${owned.id}/picture?v=${owned.version}`} alt={owned.thing.name} style={{ maxHeight: 120 }} />}
          <FileButton
            accept={['image/jpeg', 'image/png', 'image/webp']}
            onFile={(file) => void tell(api.keepPicture(owned.id, file)).then(() => onClose())}
          >
            {owned.has_picture ? 'Another picture' : 'Add a picture'}
          </FileButton>
          {owned.has_picture && (
            <Button onPress={() => void tell(api.removePicture(owned.id, owned.version)).then(() => onClose())}>Take the picture away</Button>
          )}
          {owned.tours.length > 0 && <Muted>On {owned.tours.join(', ')}: they will say the same.</Muted>}
        </div>
      }
    />
  )
}
