/** How the kit is laid out: in groups, and the groups in columns of about the same height. */
import Fuse from 'fuse.js'
import type { Assessment, Ranking, Reach, Thing } from '../../api/client'
import { REACH_WORDS } from '../../ui/icons'
import { VERDICT_WORDS, VERDICTS } from './verdicts'

export type Arrangement = 'moment' | 'price' | 'serves' | 'kit' | 'rider' | 'table'
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

export interface Known {
  ranking: Ranking | undefined
  riders: { id: string; name: string }[]
  assessment: Assessment
}

export function groupsOf(things: Thing[], arrangement: Arrangement, known: Known): Group[] {
  if (arrangement === 'price') return byVerdict(things, known.ranking)
  if (arrangement === 'serves') return byQuestion(things, known.assessment)
  if (arrangement === 'moment')
    return REACHES.map((reach) => ({ id: reach, reach, title: REACH_WORDS[reach], things: things.filter((t) => t.reach === reach) }))
  if (arrangement === 'rider')
    return [...known.riders, { id: null, name: 'Shared' }].map((r) => ({
      id: r.id ?? '-',
      title: r.name,
      things: things.filter((t) => t.rider_id === r.id),
    }))
  const kits = [...new Set(things.map((t) => t.group))].sort((a, b) => Number(a === '') - Number(b === '') || a.localeCompare(b))
  return kits.map((kit) => ({ id: kit || '-', title: kit || 'In no kit', things: things.filter((t) => t.group === kit) }))
}

/** What is worth leaving first, the dearest of each first. */
function byVerdict(things: Thing[], ranking: Ranking | undefined): Group[] {
  const rows = new Map(ranking?.things.map((r) => [r.thing_id, r]))
  const dear = (t: Thing) => (rows.get(t.id)?.minutes_a_day ?? 0) * 1000 + (rows.get(t.id)?.kj_a_day ?? 0)
  return VERDICTS.map((verdict) => ({
    id: verdict,
    title: VERDICT_WORDS[verdict].replace(/^./, (c) => c.toUpperCase()),
    things: things.filter((t) => rows.get(t.id)?.verdict === verdict).sort((a, b) => dear(b) - dear(a)),
  })).filter((g) => g.things.length > 0)
}

/** By the question of this tour that a thing answers first. */
function byQuestion(things: Thing[], { asks, faults, questions, sleepers, wardrobes }: Assessment): Group[] {
  const of = new Map<string, string>()
  const say = (question: string, ids: string[]) => ids.forEach((id) => !of.has(id) && of.set(id, question))
  sleepers.forEach((s) => say('warm', s.thing_ids))
  wardrobes.forEach((w) => say('clean', w.thing_ids))
  asks.forEach((a) => say(a.question, a.thing_ids))
  faults.forEach((f) => say('mended', f.thing_ids))
  things.filter((t) => t.role !== null || t.food || t.holds_water_l > 0).forEach((t) => say('supplied', [t.id]))
  const titles = [...questions.map((q) => ({ id: q.id, title: q.words })), { id: '-', title: 'Asked for by nothing' }]
  return titles.map(({ id, title }) => ({ id, title, things: things.filter((t) => (of.get(t.id) ?? '-') === id) })).filter((g) => g.things.length > 0)
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
