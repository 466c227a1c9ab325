/** How the party eats: cooking, boiling or neither, in or out, and what the menu is made of. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type Stores } from '../../api/client'
import { useDesk } from '../../api/tour'
import { Dialog } from '../../ui/Dialog'
import { Actions, Button, Muted } from '../../ui/controls'
import { OwnFoods } from './OwnFoods'
import { OwnMenu } from './OwnMenu'
import { WaysOfEating } from './WaysOfEating'

export function EatingDialog({ onClose }: { onClose: () => void }) {
  const { sheet, change, assessment } = useDesk()
  const [draft, setDraft] = useState<Stores>(sheet.stores)
  const set = (part: Partial<Stores>) => setDraft({ ...draft, ...part })
  const { data: catalogue } = useQuery({ queryKey: ['catalogue'], queryFn: api.catalogue, staleTime: Infinity })
  const known = [...(catalogue?.foods ?? []).filter((f) => !draft.own_foods.some((own) => own.id === f.id)), ...draft.own_foods]
  const saves = assessment.stores?.cooking_saves
  return (
    <Dialog draft title="How you eat" open onClose={onClose} wide>
      <WaysOfEating stores={draft} money={sheet.money} set={set} />
      {saves !== null && saves !== undefined && (
        <Muted>
          Cooking every evening keeps {Math.round(saves)} {sheet.money} against eating out, fuel counted.
        </Muted>
      )}
      <OwnFoods own={draft.own_foods} known={known} money={sheet.money} onChange={(own_foods) => set({ own_foods })} />
      {known.length > 0 && <OwnMenu menu={draft.menu} known={known} onChange={(menu) => set({ menu })} />}
      <Actions>
        <Button onPress={onClose}>Not now</Button>
        <Button
          $wanted
          onPress={() => {
            void change('Change how you eat', { stores: draft })
            onClose()
          }}
        >
          Keep
        </Button>
      </Actions>
    </Dialog>
  )
}
