/** The first of stem-1, stem-2, … that is not taken. */
export function freeId(stem: string, taken: Iterable<string>): string {
  const used = new Set(taken)
  let n = 1
  while (used.has(`${stem}-${n}`)) n += 1
  return `${stem}-${n}`
}
