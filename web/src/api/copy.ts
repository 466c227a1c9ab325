/** What a change made of a tour, kept for where there is no network: its answer told only what became otherwise. */
import type { TourAnswer } from './client'
import { ANSWERS } from './lasting'

/** Of changes that follow each other so quickly the last is kept [ms]. */
const SOON_MS = 400
const waiting = new Map<string, TourAnswer>()
let timer: number | undefined

export function keepCopy(answer: TourAnswer): void {
  if (!('serviceWorker' in navigator) || !navigator.serviceWorker.controller) return
  waiting.set(answer.tour.id, answer)
  timer ??= window.setTimeout(() => {
    timer = undefined
    // Where there is no room for it, what was kept before stays.
    write().catch(() => undefined)
  }, SOON_MS)
}

async function write(): Promise<void> {
  const copies = [...waiting]
  waiting.clear()
  const answers = await caches.open(ANSWERS)
  for (const [id, answer] of copies) {
    const body = JSON.stringify({ ...answer, remarks: [] })
    await answers.put(`/api/tours/${id}`, new Response(body, { headers: { 'Content-Type': 'application/json' } }))
  }
}
