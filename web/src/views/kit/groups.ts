/** How the kit is laid out: in groups, and the groups in columns of about the same height. */
import Fuse from 'fuse.js'
import type { Reach, Thing } from '../../api/client'
import { REACH_WORDS } from '../../ui/icons'

export type Arrangement = 'moment' | 'kit' | 'table'
export interface Group {
  id: string
  title: string
  things: Thing[]
  reach?: Reach
}

export const REACHES = Object.keys(REACH_WORDS) as Reach[]
const HEAD_LINES = 2

/** Things whose words are near what is sought, the nearest first; all of them where nothing is. */
export function found(kit: Thing[], query: string): Thing[] {
  const sought = query.trim()
  if (!sought) return kit
  const index = new Fuse(kit, {
    keys: [{ name: 'name', weight: 3 }, 'group', 'because'],
    threshold: 0.34,
    ignoreLocation: true,
    ignoreDiacritics: true,
  })
  return index.search(sought).map((hit) => hit.item)
}

export function groupsOf(things: Thing[], arrangement: Arrangement): Group[] {
  if (arrangement === 'moment')
    return REACHES.map((reach) => ({ id: reach, reach, title: REACH_WORDS[reach], things: things.filter((t) => t.reach === reach) }))
  const kits = [...new Set(things.map((t) => t.group))].sort((a, b) => Number(a === '') - Number(b === '') || a.localeCompare(b))
  return kits.map((kit) => ({ id: kit || '-', title: kit || 'In no kit', things: things.filter((t) => t.group === kit) }))
}

/** Groups in their order, cut into columns so that the longest is as short as it can be. */
export function inColumns(groups: Group[], columns: number): Group[][] {
  const high = groups.map((g) => g.things.length + HEAD_LINES)
  const fits = (most: number) => {
    const cut: Group[][] = [[]]
    let used = 0
    groups.forEach((group, i) => {
      const h = high[i] ?? 0
      if (used > 0 && used + h > most) {
        cut.push([])
        used = 0
      }
      cut.at(-1)?.push(group)
      used += h
    })
    return cut
  }
  let most = Math.max(0, ...high)
  while (fits(most).length > columns) most += 1
  return fits(most)
}

export const massOf = (things: Thing[]) => things.reduce((sum, t) => sum + t.mass_kg * t.count, 0)
export const litresOf = (things: Thing[]) => things.reduce((sum, t) => sum + t.volume_l * t.count, 0)
