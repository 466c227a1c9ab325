/**
 * A change made on what its maker saw, moved on to what is there when it is sent: what was changed is changed, everything else is
 * as it is now. Lists of things that have a name of their own are put together thing by thing.
 */
type Plain = Record<string, unknown>

const plain = (value: unknown): value is Plain => typeof value === 'object' && value !== null && !Array.isArray(value)

/** What tells the members of a list apart: the first of these that all of them have. */
const NAMES: readonly (readonly string[])[] = [['id'], ['thing_id', 'carrier_id'], ['supply', 'stop_id'], ['carrier_id'], ['food_id']]

export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((value, i) => same(value, b[i]))
  if (!plain(a) || !plain(b)) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((key) => same(a[key], b[key]))
}

/** `now` with what leads from `seen` to `wanted`; where both changed the same figure, what was wanted. */
export function rebased<T>(seen: unknown, wanted: T, now: unknown): T {
  if (same(seen, now) || same(wanted, now)) return wanted
  if (same(seen, wanted)) return now as T
  if (plain(seen) && plain(wanted) && plain(now)) return fields(seen, wanted, now) as T
  if (Array.isArray(seen) && Array.isArray(wanted) && Array.isArray(now)) return list(seen, wanted, now) as T
  return wanted
}

/**
 * Whether somebody else changed the very figure that is changed here: it was one thing when the change was made, is another now, and
 * is wanted to be a third. Figures that this window changed before, and whose answer is on its way (`seen` is not as it was kept),
 * are its own.
 */
export function clash(kept: unknown, seen: unknown, wanted: unknown, now: unknown): boolean {
  if (same(kept, now) || same(seen, wanted) || same(wanted, now)) return false
  const all = [kept, seen, wanted, now]
  if (all.every(plain)) return Object.keys(wanted as Plain).some((key) => clash(...(all.map((one) => (one as Plain)[key]) as Four)))
  if (all.every(Array.isArray)) {
    const named = NAMES.find((names) => all.every((one) => distinct(one as unknown[], names)))
    if (named) {
      const by = all.map((one) => byName(one as unknown[], named)) as [Named, Named, Named, Named]
      const inAll = [...by[0].keys()].filter((name) => by.every((one) => one.has(name)))
      return inAll.some((name) => clash(...(by.map((one) => one.get(name)) as Four)))
    }
  }
  return same(kept, seen)
}
type Four = [unknown, unknown, unknown, unknown]
type Named = Map<string, unknown>

/** Parts of a sheet, each moved on to the sheet that is there now; what is no part of it, as a mend, goes along as it is. */
export function rebasedParts<P extends object>(seen: object, parts: P, now: object): P {
  const [was, is] = [seen as Plain, now as Plain]
  return Object.fromEntries(Object.entries(parts).map(([name, value]) => [name, rebased(was[name], value, is[name])])) as P
}

/** What a change makes of a sheet. Asked again of the same, it gives the very same: what waits behind it need not be moved anew. */
export function moving<S extends object>(seen: S, parts: Partial<S>): (now: S) => S {
  let [on, made] = [seen, { ...seen, ...parts }]
  return (now) => {
    if (!same(on, now)) [on, made] = [now, { ...now, ...rebasedParts(seen, parts, now) }]
    return made
  }
}

function fields(seen: Plain, wanted: Plain, now: Plain): Plain {
  const made: Plain = {}
  for (const key of new Set([...Object.keys(now), ...Object.keys(wanted)])) {
    const value = rebased(seen[key], wanted[key], now[key])
    if (value !== undefined) made[key] = value
  }
  return made
}

function list(seen: unknown[], wanted: unknown[], now: unknown[]): unknown[] {
  const named = NAMES.find((names) => [seen, wanted, now].every((one) => distinct(one, names)))
  if (!named) {
    const even = seen.length === wanted.length && seen.length === now.length
    return even ? wanted.map((value, i) => rebased(seen[i], value, now[i])) : wanted
  }
  const [was, is] = [byName(seen, named), byName(now, named)]
  const made: unknown[] = []
  for (const [name, value] of byName(wanted, named)) {
    // What somebody else took away meanwhile stays away, but where it was changed here.
    if (is.has(name)) made.push(rebased(was.get(name), value, is.get(name)))
    else if (!was.has(name) || !same(was.get(name), value)) made.push(value)
  }
  const [mine, before] = [byName(wanted, named), was]
  return [...made, ...[...is].filter(([name]) => !mine.has(name) && !before.has(name)).map(([, value]) => value)]
}

const nameOf = (value: unknown, names: readonly string[]): string => names.map((name) => String((value as Plain)[name] ?? '')).join('\n')

function distinct(values: unknown[], names: readonly string[]): boolean {
  if (!values.every((value) => plain(value) && names.every((name) => name in value))) return false
  return new Set(values.map((value) => nameOf(value, names))).size === values.length
}

const byName = (values: unknown[], names: readonly string[]) => new Map(values.map((value) => [nameOf(value, names), value]))
