/** What is done with the things of the kit from its lines: kept, removed, dropped under another heading. */
import type { Thing } from '../../api/client'
import { useDesk } from '../../api/tour'
import type { Arrangement, Group } from './groups'

export function useKitActs(arranged: Arrangement, groups: Group[]) {
  const { sheet, change } = useDesk()
  const set = (what: string, ids: string[], part: (t: Thing) => Partial<Thing>) =>
    void change(what.slice(0, 200), { kit: sheet.kit.map((t) => (ids.includes(t.id) ? { ...t, ...part(t) } : t)) })
  const keep = (thing: Thing) => {
    const at = sheet.kit.findIndex((t) => t.id === thing.id)
    const kit = at < 0 ? [...sheet.kit, thing] : sheet.kit.map((t) => (t.id === thing.id ? thing : t))
    void change(`${at < 0 ? 'Add' : 'Change'} ${thing.name}`.slice(0, 200), { kit })
  }
  const dropped = (title: string, ids: string[]) => {
    const group = groups.find((g) => g.title === title)
    const names = ids.length === 1 ? (sheet.kit.find((t) => t.id === ids[0])?.name ?? '') : `${ids.length} things`
    if (!ids.length || !group) return
    const { reach } = group
    if (reach) set(`Want ${names}: ${title}`, ids, (t) => ({ reach, guessed: t.guessed.filter((g) => g !== 'reach') }))
    else if (arranged === 'rider') set(`${title}: ${names}`, ids, () => ({ rider_id: group.id === '-' ? null : group.id }))
    else if (arranged === 'kit') set(`Put ${names} in ${title}`, ids, () => ({ group: group.id === '-' ? '' : title }))
  }
  const remove = (thing: Thing) => void change(`Remove ${thing.name}`.slice(0, 200), { kit: sheet.kit.filter((t) => t.id !== thing.id) })
  return { keep, remove, dropped }
}
