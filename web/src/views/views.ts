/** The views of a tour, in the order of the job. */
import type { IconName } from '../ui/icons'

export const VIEWS: { path: string; name: string; icon: IconName }[] = [
  { path: 'road', name: 'Road', icon: 'road' },
  { path: 'rig', name: 'Rig', icon: 'load' },
  { path: 'kit', name: 'Kit', icon: 'kit' },
  { path: 'load', name: 'Load', icon: 'camp' },
  { path: 'stores', name: 'Stores', icon: 'stores' },
  { path: 'ready', name: 'Ready', icon: 'tick' },
  { path: 'pack', name: 'Pack', icon: 'pack' },
  { path: 'diary', name: 'Diary', icon: 'diary' },
  { path: 'debrief', name: 'Debrief', icon: 'debrief' },
]
