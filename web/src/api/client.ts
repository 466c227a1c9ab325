/** The only place that talks to the network. */
import { EventSourceParserStream } from 'eventsource-parser/stream'
import { replaceEqualDeep } from '@tanstack/react-query'
import createClient from 'openapi-fetch'
import { answered } from './fromMemory'
import { otherwise } from './since'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Assessment = Schemas['Assessment']
export type OfferedStop = Schemas['OfferedStop']
export type Ridden = Schemas['Ridden']
export type MappedRoad = Schemas['MappedRoad']
export type MappedStop = Schemas['MappedStop']
export type SeasonStart = Schemas['SeasonStart']
export type NamedPlace = Schemas['NamedPlace']
export type Assumption = Schemas['Assumption']
export type Bike = Schemas['Bike-Output']
export type BikeTrace = Schemas['BikeTrace']
export type Box = Schemas['Box']
export type OtherBike = Schemas['OtherBike']
export type Carrier = Schemas['Carrier-Output']
export type CarrierTemplate = Schemas['CarrierTemplate']
export type CarrierTrace = Schemas['CarrierTrace']
export type CarrierState = CarrierTrace['states'][number]
export type Catalogue = Schemas['Catalogue']
export type Change = Schemas['Change']
export type Day = Schemas['Day']
export type Finding = Schemas['Finding']
export type Gap = Schemas['Gap']
export type HangingPlace = Schemas['HangingPlace']
export type LoadFigures = Schemas['LoadFigures']
export type RigFigures = Schemas['RigFigures']
export type SchoolRig = Schemas['SchoolRig']
export type Stance = Schemas['Stance']
export type KitPreview = Schemas['KitPreview']
export type Glance = Schemas['Glance']
export type Camp = Schemas['Camp']
export type Debrief = Schemas['Debrief']
export type DiaryAnswer = Schemas['DiaryAnswer']
export type Entry = Schemas['Entry-Output']
export type LearnedRate = Schemas['LearnedRate']
export type LoadHistory = Schemas['LoadHistory']
export type RiddenCourse = Schemas['RiddenCourse']
export type Missing = Schemas['Missing']
export type Now = Schemas['Now']
export type PackPage = Schemas['PackPage']
export type Received = Schemas['Received']
export type ThingStory = Schemas['ThingStory']
export type Travel = Schemas['Travel']
export type WeighIn = Schemas['WeighIn']
export type WeighLine = Schemas['WeighLine']
export type KitText = Schemas['KitText']
export type SheetText = Schemas['SheetText']
export type Load = Schemas['Load-Output']
export type Moments = Schemas['Moments']
export type SupplyColumn = Schemas['SupplyColumn']
export type LimitTrace = Schemas['LimitTrace']
export type Shape = Schemas['Shape']
export type NewTour = Schemas['NewTour']
export type Aims = Schemas['Aims-Output']
export type AimsAnswer = Schemas['AimsAnswer']
export type ProposalAnswer = Schemas['ProposalAnswer']
export type Why = Schemas['Why']
export type LearnedPace = Schemas['LearnedPace']
export type Passing = Schemas['Passing']
export type Owned = Schemas['Owned']
export type Ranking = Schemas['Ranking']
export type Paid = Schemas['Paid']
export type PlaceFor = Schemas['PlaceFor']
export type Packed = Schemas['Packed']
export type PackCard = Schemas['PackCard']
export type Placement = Schemas['Placement-Output']
export type Question = Schemas['Question']
export type Proposal = Schemas['Proposal']
export type Reach = Schemas['Thing-Output']['reach']
export type Rider = Schemas['Rider-Output']
export type Road = Schemas['Road-Output']
export type Stop = Schemas['Stop-Output']
export type StopsPreview = Schemas['StopsPreview']
export type Support = Schemas['Support-Output']
export type SupportTemplate = Schemas['SupportTemplate']
export type Text = Schemas['Text-Output']
export type Tried = Schemas['Tried']
export type Mend = Schemas['Mend-Output']
export type AtStop = Schemas['AtStop']
export type Deed = Schemas['Deed']
export type Lane = Schemas['Lane']
export type Schedule = Schemas['Schedule']
export type Stores = Schemas['Stores-Output']
export type StoreStep = Schemas['StoreStep-Output']
export type StoresTold = Schemas['StoresTold']
export type Food = Schemas['Food-Output']
export type Role = NonNullable<Schemas['Thing-Output']['role']>
export type Whereabouts = Schemas['Whereabouts-Output']
export type Thing = Schemas['Thing-Output']
export type TourAnswer = Schemas['TourAnswer']
export type TourOtherwise = Schemas['TourOtherwise']
export type TourEntry = Schemas['TourEntry']
export type TourSheet = Schemas['TourSheet']
export type TourView = Schemas['TourView']
export type Quantity = Schemas['Figure-Output']['quantity']
type ProblemBody = Schemas['Problem']

/** Whether something that failed is asked again by itself, and after how long [ms]. */
export const askAgain = (_: number, trouble: unknown) => trouble instanceof Problem && trouble.away
export const askAgainAfter = (tries: number) => Math.min(300 * 2 ** tries, 3000)

/** A refusal of the server, in words. */
export class Problem extends Error {
  constructor(readonly body: Partial<ProblemBody> & { detail: string }) {
    super(body.detail)
  }
  get stale(): boolean {
    return this.body.status === 409
  }
  /** Nobody answers, or the database is away for a moment: the same may be asked again. */
  get away(): boolean {
    return this.body.again === true
  }
}

export const client = createClient<paths>()
let token: Promise<string> | undefined

/** Another session has another token. */
export const forgetToken = () => (token = undefined)

async function csrf(): Promise<string> {
  token ??= client.GET('/api/session').then(({ data }) => {
    if (!data) throw new Problem(SILENT)
    return data.csrf_token
  })
  // A token that did not come is asked for again with the next change.
  token.catch(() => (token = undefined))
  return token
}

/** The last states of each tour that were told: an answer to a change tells only what is otherwise than one of them. */
const held = new Map<string, TourAnswer[]>()
const HELD = 3

/** What of it is equal to what was there stays the very same object: who draws that need not draw it again. */
function hold(told: TourAnswer): TourAnswer {
  const before = held.get(told.tour.id)?.[0]
  return keep(before ? replaceEqualDeep(before, told) : told)
}

function keep(answer: TourAnswer): TourAnswer {
  const before = held.get(answer.tour.id) ?? []
  held.set(answer.tour.id, [answer, ...before.filter((one) => one.state !== answer.state)].slice(0, HELD))
  return answer
}

/** Any answer as it is, but a tour whole, put together with what was held of it. */
async function whole<T>(told: T, tour_id: string): Promise<T> {
  if (typeof told !== 'object' || told === null) return told
  if ('assessment' in told && 'state' in told) return hold(told as never) as never
  if (!('changes' in told && 'since' in told)) return told
  const news = told as unknown as TourOtherwise
  const had = held.get(tour_id)?.find((one) => one.state === news.since)
  const now = had ? keep({ ...otherwise(had, news.changes), state: news.state }) : await api.tour(tour_id)
  return { ...now, remarks: news.remarks } as never
}

const tourIn = (url: string) => /\/api\/tours\/([^/]+)/.exec(url)?.[1] ?? ''

client.use({
  async onRequest({ request }) {
    if (request.method === 'GET') return request
    request.headers.set('X-CSRFToken', await csrf())
    const has = held.get(tourIn(request.url))?.[0]
    if (has) request.headers.set('Omnifer-Holds', has.state)
    return request
  },
  onResponse({ response }) {
    answered(response.headers.has('X-Omnifer-Kept'))
    // The token may be one of a session that is over: with the next change a new one is asked for.
    if (response.status === 400) token = undefined
  },
})

const SIGN_IN = '/sign-in'
const SILENT = {
  again: true,
  detail: 'Omnifer does not answer just now. What was kept before is safe.',
  mend: 'It is asked again by itself. Where it was stopped, start it with bin/start.',
}

/** An answer without the way in which a tour may be told. */
type Whole<T> = Exclude<T, TourOtherwise>

/** What a call gave. Throws a Problem in words. */
export async function taken<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<Whole<T>> {
  let result: { data?: T; error?: unknown; response: Response }
  try {
    result = await call
  } catch {
    throw new Problem(SILENT)
  }
  if (result.error !== undefined) {
    const body = result.error as Partial<ProblemBody>
    // Of those who are asked to sign in only a hosted Omnifer tells.
    if (body.status === 401 && window.location.pathname !== SIGN_IN) window.location.assign(SIGN_IN)
    throw new Problem({ detail: 'Something unforeseen went wrong.', ...body })
  }
  return (await whole(result.data, tourIn(result.response.url))) as Whole<T>
}

export type Progress = Schemas['Progress']
export type Rehearsal = Schemas['Rehearsal']
export type RehearsedOutcome = Schemas['Outcome']
export type PlayTold = Schemas['PlayTold']
export type RiskPlan = Schemas['RiskPlan']
export type Counted = Schemas['Counted']
/** What long work tells, by the name of the event; as the document of the interface has it. */
type Streams = {
  [P in keyof paths]: paths[P] extends { post: { responses: { 200: { content: { 'text/event-stream': infer E } } } } } ? E : never
}
type Event<P extends keyof paths> = Exclude<keyof Streams[P], 'answer' | 'problem'>
type Told<P extends keyof paths> = NonNullable<Streams[P][Event<P>]>
type Answer<P extends keyof paths> = Streams[P] extends { answer?: infer A } ? NonNullable<A> : never

/** Asks for something that takes long and tells of it meanwhile; null where the rider called it off. */
async function streamed<P extends keyof paths>(
  path: P,
  tour_id: string,
  body: FormData | string,
  tell: (news: Told<P>) => void,
  signal: AbortSignal,
): Promise<Answer<P> | null> {
  try {
    const headers: Record<string, string> = { Accept: 'text/event-stream', 'X-CSRFToken': await csrf() }
    if (typeof body === 'string') headers['Content-Type'] = 'application/json'
    const response = await fetch(path.replace('{tour_id}', tour_id), { method: 'POST', headers, body, signal })
    if (!response.ok || !response.body) throw new Problem({ detail: 'Something unforeseen went wrong.', ...((await response.json()) as object) })
    const events = response.body.pipeThrough(new TextDecoderStream()).pipeThrough(new EventSourceParserStream()).getReader()
    for (let next = await events.read(); !next.done; next = await events.read()) {
      const news: unknown = JSON.parse(next.value.data)
      if (next.value.event === 'answer') return news as Answer<P>
      if (next.value.event === 'problem') throw new Problem({ detail: 'Something unforeseen went wrong.', ...(news as object) })
      tell(news as Told<P>)
    }
  } catch (trouble) {
    if (signal.aborted) return null
    if (trouble instanceof Problem) throw trouble
  }
  throw new Problem({
    again: true,
    detail: 'The answer broke off. What was kept before is safe.',
    mend: 'Reload the page to see how it stands.',
  })
}

const at = (tour_id: string, signal?: AbortSignal) => ({ params: { path: { tour_id } }, signal })

function file(content: File | File[], revision?: number, more: Record<string, string> = {}) {
  const form = new FormData()
  for (const one of Array.isArray(content) ? content : [content]) form.append('file', one)
  for (const [name, value] of Object.entries(more)) form.set(name, value)
  if (revision !== undefined) form.set('revision', String(revision))
  return { body: form as FormData & never, bodySerializer: (body: unknown) => body as FormData }
}

export const api = {
  catalogue: () => taken(client.GET('/api/catalogue')),
  tours: () => taken(client.GET('/api/tours')),
  start: (body: NewTour) => taken(client.POST('/api/tours', { body })),
  bringBundle: (content: File) => taken(client.POST('/api/tours/bundle', file(content))),
  tour: (id: string) => taken(client.GET('/api/tours/{tour_id}', at(id))),
  change: (id: string, body: Change) => taken(client.PATCH('/api/tours/{tour_id}', { ...at(id), body })),
  step: (id: string, revision: number, step: 'undo' | 'redo') =>
    taken(client.POST('/api/tours/{tour_id}/step', { ...at(id), body: { revision, step } })),
  glance: (id: string) => taken(client.GET('/api/tours/{tour_id}/glance', at(id))),
  sample: () => taken(client.POST('/api/tours/sample')),
  copy: (id: string) => taken(client.POST('/api/tours/{tour_id}/copy', at(id))),
  restore: (id: string) => taken(client.POST('/api/tours/{tour_id}/restore', at(id))),
  remove: (tour_id: string, revision: number) =>
    taken(client.DELETE('/api/tours/{tour_id}/{revision}', { params: { path: { tour_id, revision: revision as never } } })),
  bringTrack: (content: File[], after: boolean, id: string, revision: number, tell: (progress: Progress) => void, signal: AbortSignal) =>
    streamed('/api/tours/{tour_id}/track', id, file(content, revision, after ? { after: 'yes' } : {}).body, tell, signal),
  shapeTrack: (id: string, revision: number, shape: 'reverse' | 'trim', from_km = 0, to_km: number | null = null, start_date: string | null = null) =>
    taken(client.POST('/api/tours/{tour_id}/track/shape', { ...at(id), body: { revision, shape, from_km, to_km, start_date } })),
  previewStops: (id: string, text: string) => taken(client.POST('/api/tours/{tour_id}/stops/preview', { ...at(id), body: { text } })),
  importStops: (id: string, revision: number, text: string, replace: boolean) =>
    taken(client.POST('/api/tours/{tour_id}/stops/import', { ...at(id), body: { revision, text, replace } })),
  season: (id: string, signal: AbortSignal) => taken(client.GET('/api/tours/{tour_id}/season', at(id, signal))),
  lookAtMap: (id: string, content: File | null, tell: (progress: Progress) => void, signal: AbortSignal) =>
    content
      ? streamed('/api/tours/{tour_id}/map', id, file(content).body, tell, signal)
      : streamed('/api/tours/{tour_id}/map/asked', id, '', tell, signal),
  bringHeights: (content: File[], anew: boolean, id: string, revision: number, tell: (progress: Progress) => void, signal: AbortSignal) =>
    content.length
      ? streamed('/api/tours/{tour_id}/track/heights', id, file(content, revision, anew ? { anew: 'yes' } : {}).body, tell, signal)
      : streamed('/api/tours/{tour_id}/track/heights/asked', id, JSON.stringify({ revision, anew }), tell, signal),
  manner: (id: string, signal: AbortSignal) => taken(client.GET('/api/tours/{tour_id}/manner', at(id, signal))),
  offeredStops: (tour_id: string, called: string, signal: AbortSignal) =>
    taken(client.GET('/api/tours/{tour_id}/stops/offered', { params: { path: { tour_id }, query: { called } }, signal })),
  namedPlaces: (called: string, signal: AbortSignal) => taken(client.GET('/api/places', { params: { query: { called } }, signal })),
  climateOf: (place: NamedPlace) =>
    taken(
      client.GET('/api/climate', {
        params: { query: { lat: String(place.lat_deg), lon: String(place.lon_deg), elevation: String(place.elevation_m ?? ''), name: place.name } },
      }),
    ),
  bringStation: (id: string, revision: number, content: File, more: { name: string; at_km: string; elevation_m: string }) =>
    taken(client.POST('/api/tours/{tour_id}/stations', { ...at(id), ...file(content, revision, more) })),
  outlook: (tour_id: string, number: number) => taken(client.GET('/api/tours/{tour_id}/outlook/{number}', { params: { path: { tour_id, number } } })),
  learnPace: (id: string, content: File, rider: string) =>
    taken(client.POST('/api/tours/{tour_id}/pace', { ...at(id), ...file(content, undefined, { rider }) })),
  sheetText: (content: File) => taken(client.POST('/api/sheets/text', file(content))),
  previewKit: (id: string, body: KitText) => taken(client.POST('/api/tours/{tour_id}/kit/preview', { ...at(id), body })),
  importKit: (id: string, body: Schemas['KitImport']) => taken(client.POST('/api/tours/{tour_id}/kit/import', { ...at(id), body })),
  kinds: () => taken(client.GET('/api/kinds')),
  thingTold: (body: Schemas['ThingAsked']) => taken(client.POST('/api/things/told', { body })),
  unknownThings: (id: string) => taken(client.GET('/api/tours/{tour_id}/kit/unknown', at(id))),
  makeKnown: (id: string, revision: number, answers: NonNullable<KitText['answers']>) =>
    taken(client.POST('/api/tours/{tour_id}/kit/known', { ...at(id), body: { revision, answers } })),
  propose: (id: string, revision: number, rounds: number, tell: (news: Proposal | Progress) => void, signal: AbortSignal) =>
    streamed('/api/tours/{tour_id}/proposal', id, JSON.stringify({ revision, rounds }), tell, signal),
  repair: (id: string, revision: number, what: string, load: Load, held: string[]) =>
    taken(client.POST('/api/tours/{tour_id}/repair', { ...at(id), body: { revision, what, load, held } })),
  aims: (id: string) => taken(client.GET('/api/tours/{tour_id}/aims', at(id))),
  choices: (id: string, bike: string, signal: AbortSignal) =>
    taken(client.GET('/api/tours/{tour_id}/bikes/{bike_id}/choices', { params: { path: { tour_id: id, bike_id: bike } }, signal })),
  rigs: (id: string, signal: AbortSignal) => taken(client.GET('/api/tours/{tour_id}/rigs', at(id, signal))),
  rigSchools: (id: string, signal: AbortSignal) => taken(client.GET('/api/tours/{tour_id}/rigs/schools', at(id, signal))),
  loads: (id: string, signal: AbortSignal) => taken(client.GET('/api/tours/{tour_id}/loads', at(id, signal))),
  ride: (tour_id: string, variant_id: string, revision: number) =>
    taken(
      client.POST('/api/tours/{tour_id}/rigs/{variant_id}/ride', {
        params: { path: { tour_id, variant_id } },
        body: { revision },
      }),
    ),
  effect: (tour_id: string, key: string, signal: AbortSignal) =>
    taken(client.GET('/api/tours/{tour_id}/assumptions/{key}', { params: { path: { tour_id, key } }, signal })),
  price: (tour_id: string, thing_id: string, signal: AbortSignal) =>
    taken(client.GET('/api/tours/{tour_id}/things/{thing_id}/price', { params: { path: { tour_id, thing_id } }, signal })),
  why: (tour_id: string, thing_id: string, carrier: string | null) =>
    taken(
      client.GET('/api/tours/{tour_id}/things/{thing_id}/why', {
        params: { path: { tour_id, thing_id }, query: carrier === null ? {} : { carrier } },
      }),
    ),
  places: (tour_id: string, things: string) => taken(client.GET('/api/tours/{tour_id}/places', { params: { path: { tour_id }, query: { things } } })),
  trial: (id: string, parts: Schemas['Trial']) => taken(client.POST('/api/tours/{tour_id}/trial', { ...at(id), body: parts })),
  packed: (id: string) => taken(client.GET('/api/tours/{tour_id}/packed', at(id))),
  tick: (id: string, body: Schemas['Tick']) => taken(client.PUT('/api/tours/{tour_id}/packed', { ...at(id), body })),
  packAnew: (id: string) => taken(client.DELETE('/api/tours/{tour_id}/packed', at(id))),
  mends: (tour_id: string, finding: string, signal: AbortSignal) =>
    taken(client.GET('/api/tours/{tour_id}/mends', { params: { path: { tour_id }, query: { finding } }, signal })),
  ranking: (id: string, signal: AbortSignal) => taken(client.GET('/api/tours/{tour_id}/ranking', at(id, signal))),
  ladder: (id: string) => taken(client.GET('/api/tours/{tour_id}/ladder', at(id))),
  library: (find: string, kit: string, first: number, tour: string) =>
    taken(client.GET('/api/library', { params: { query: { find, kit, first: String(first), tour } } })),
  libraryKits: () => taken(client.GET('/api/library/kits')),
  keepOwned: (things: Thing[]) => taken(client.POST('/api/library', { body: { things } })),
  changeOwned: (owned_id: string, version: number, thing: Thing) =>
    taken(client.PUT('/api/library/{owned_id}', { params: { path: { owned_id } }, body: { version, thing } })),
  removeOwned: (owned_id: string, version: number) =>
    taken(client.DELETE('/api/library/{owned_id}/{version}', { params: { path: { owned_id, version: version as never } } })),
  restoreOwned: (owned_id: string) => taken(client.POST('/api/library/{owned_id}/restore', { params: { path: { owned_id } } })),
  keepPicture: (owned_id: string, content: File) =>
    taken(client.POST('/api/library/{owned_id}/picture', { params: { path: { owned_id } }, ...file(content) })),
  removePicture: (owned_id: string, version: number) =>
    taken(client.DELETE('/api/library/{owned_id}/picture/{version}', { params: { path: { owned_id, version: version as never } } })),
  putInLibrary: (id: string, revision: number, ids: string[], carriers: string[] = []) =>
    taken(client.POST('/api/tours/{tour_id}/library', { ...at(id), body: { revision, ids, carriers } })),
  choose: (id: string, revision: number, ids: string[]) => taken(client.POST('/api/tours/{tour_id}/choose', { ...at(id), body: { revision, ids } })),
  diary: (id: string) => taken(client.GET('/api/tours/{tour_id}/diary', at(id))),
  addEntries: (id: string, entries: Entry[]) => taken(client.POST('/api/tours/{tour_id}/diary', { ...at(id), body: { entries } })),
  keepEntryPicture: (tour_id: string, entry_id: string, content: Blob) =>
    taken(
      client.POST('/api/tours/{tour_id}/diary/{entry_id}/picture', {
        params: { path: { tour_id, entry_id } },
        ...file(new File([content], 'picture.jpg', { type: content.type })),
      }),
    ),
  riddenCourse: (id: string) => taken(client.GET('/api/tours/{tour_id}/diary/course', at(id))),
  layTrack: (id: string, content: File) => taken(client.POST('/api/tours/{tour_id}/diary/track', { ...at(id), ...file(content) })),
  packPage: (id: string) => taken(client.GET('/api/tours/{tour_id}/pack', at(id))),
  weighings: (id: string) => taken(client.GET('/api/tours/{tour_id}/weigh', at(id))),
  takeMeasured: (id: string, revision: number, key: string) =>
    taken(client.POST('/api/tours/{tour_id}/weigh/take', { ...at(id), body: { revision, key } })),
  askScale: (id: string, body: Schemas['PutOn']) => taken(client.POST('/api/tours/{tour_id}/scale', { ...at(id), body })),
  debrief: (tour_id: string, into: string) =>
    taken(client.GET('/api/tours/{tour_id}/debrief', { params: { path: { tour_id }, query: into ? { into } : {} } })),
  takeRate: (id: string, into: string, revision: number, key: string) =>
    taken(client.POST('/api/tours/{tour_id}/debrief/take', { ...at(id), body: { into, revision, key } })),
  handOn: (id: string) => taken(client.POST('/api/tours/{tour_id}/debrief/hand', at(id))),
  keptRehearsal: (id: string, signal: AbortSignal) => taken(client.GET('/api/tours/{tour_id}/rehearsal', at(id, signal))),
  rehearse: (id: string, plays: number, tell: (news: Rehearsal) => void, signal: AbortSignal) =>
    streamed('/api/tours/{tour_id}/rehearsal', id, JSON.stringify({ plays }), tell, signal),
  onePlay: (id: string, number: number, signal: AbortSignal) =>
    taken(client.POST('/api/tours/{tour_id}/rehearsal/play', { ...at(id, signal), body: { number } })),
  riskPlan: (id: string, body: Schemas['RiskAsked'], tell: (news: Progress) => void, signal: AbortSignal) =>
    streamed('/api/tours/{tour_id}/rehearsal/risk', id, JSON.stringify(body), tell, signal),
  sparesAtRisk: (id: string, risk: number, signal: AbortSignal) =>
    taken(client.POST('/api/tours/{tour_id}/rehearsal/spares', { ...at(id, signal), body: { risk } })),
  twoPlans: (id: string, body: Partial<Schemas['TwoPlansAsked']>, signal: AbortSignal) =>
    taken(client.POST('/api/tours/{tour_id}/rehearsal/compare', { ...at(id, signal), body })),
  schedule: (id: string, signal: AbortSignal) => taken(client.GET('/api/tours/{tour_id}/stores/schedule', at(id, signal))),
  files: (id: string) => ({
    bundle: `/api/tours/${id}/bundle.json`,
    gpx: `/api/tours/${id}/road.gpx`,
    geojson: `/api/tours/${id}/road.geojson`,
    calendar: `/api/tours/${id}/days.ics`,
    stops: `/api/tours/${id}/stops.csv`,
    kit: `/api/tours/${id}/kit.csv`,
    shopping: `/api/tours/${id}/shopping.csv`,
    diary: `/api/tours/${id}/diary.csv`,
  }),
}

/** One supply of the moments, by name. */
export const supplyOf = (moments: Moments, supply: SupplyColumn['supply']): SupplyColumn => {
  const found = moments.supplies.find((column) => column.supply === supply)
  if (!found) throw new Error(`the moments have no ${supply}`)
  return found
}

/** The value of a column at a moment; a column that never changes has one value only. */
export const pick = (column: number[], moment: number): number => column[moment] ?? column[0] ?? 0
