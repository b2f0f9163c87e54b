import { computed, ref, shallowRef } from 'vue'
import type { Schemas } from '@/api/client'
import { fetchPictures, leavePictures } from './pictures'
import { Side } from './side'
import { persist, store, type Along } from './store'

/** An entry or an opening that the service does not have yet, as the outbox keeps it. */
export interface Unsent {
  job: string
  open?: Schemas['OpenJob']
  entry: Schemas['JournalEntry']
}

const here = shallowRef<Along[]>([])
/** What is being done that takes a while, in words; empty: nothing. */
const busy = ref('')
/** This device works out what it can, though the service is there. */
const first = ref(false)
/** The last answer came from this device. */
const answered = ref(false)

let ready: Promise<void> | undefined
/**
 * What is asked of this device at a touch is answered at once; what a first diagnosis takes, half a minute on a slow tablet, is worked out
 * beside it. Each has the core and the journals for itself.
 */
const hand = new Side()
const head = new Side()
const sides = [hand, head]
const thinks = /\/(diagnosis|doubt)$/
const operates = /\/jobs\/[^/]+\/operate$/

/** What is tried begins where the diagnosis has it: that side answers quicker, unless it is at work. */
const sideOf = (path: string, job?: string) =>
  thinks.test(path) || (operates.test(path) && job && head.brought.has(job) && !head.isBusy) ? head : hand

/** Whatever was known of a circuit or a job, it is brought anew. */
const renew = (id: string) => sides.forEach((side) => side.brought.delete(id))

/** Put in place by the outbox: what of a job the service does not have yet, in order. */
export const unsent: { of: (job: string) => Unsent[] } = { of: () => [] }

const canStore = typeof indexedDB !== 'undefined'

/** What was taken along before, once. */
const known = () =>
  (ready ??= (async () => {
    if (!canStore) return
    const db = await store()
    here.value = await db.getAll('circuits')
    first.value = (await db.get('about', 'first')) === true
  })().catch(() => undefined))

/** The circuit of an address, or of its job, if it was taken along. */
async function circuitOf(path: string): Promise<string | undefined> {
  const [, , kind, id] = path.split('/')
  if (kind === 'circuits') return here.value.some((a) => a.id === id) ? id : undefined
  if (kind !== 'jobs' || !id) return undefined
  const db = await store()
  return (
    (await db.get('jobs', id))?.circuitId ??
    here.value.find((a) => a.package.jobs.some((j) => j.id === id))?.id ??
    unsent.of(id).find((u) => u.open)?.open?.circuitId
  )
}

/** Brings one side up to date with a circuit, and with a job and what of it waits to be sent. */
async function bring(side: Side, circuit: string, job?: string) {
  await side.start()
  const db = await store()
  if (!side.brought.has(circuit)) {
    const along = await db.get('circuits', circuit)
    if (!along) throw new Error('This circuit was not taken along.')
    await side.ask({ what: 'circuit', json: JSON.stringify(along.package) })
    side.brought.add(circuit)
  }
  if (!job || side.brought.has(job)) return
  const kept = await db.get('jobs', job)
  if (kept) await side.ask({ what: 'job', json: JSON.stringify(kept) })
  side.brought.add(job)
  for (const u of unsent.of(job))
    await (u.open ? side.answer('POST', '/api/jobs', u.open) : side.answer('POST', `/api/jobs/${job}/entries`, u.entry))
}

async function asked(method: string, target: string, body: string): Promise<Response | undefined> {
  await known()
  if (!canStore) return undefined
  const path = target.split('?')[0]!
  const circuit = await circuitOf(path)
  if (!circuit) return undefined
  const parts = path.split('/')
  const job = parts[2] === 'jobs' ? parts[3] : undefined
  const side = sideOf(path, job)
  await bring(side, circuit, job)
  const answer = side.answer(method, target, body)
  // An entry is told to the other side too, before it is asked what follows from it.
  if (path.endsWith('/entries') && job && head.brought.has(job)) void head.answer(method, target, body)
  const text = await answer
  answered.value = true
  return new Response(text.slice(3), {
    status: Number(text.slice(0, 3)),
    headers: { 'Content-Type': 'application/json' },
  })
}

/** Nothing is known without a connection, and that is no error. */
const empty: Record<string, unknown> = {
  '/api/jobs/parts': [],
  '/api/follow-ups': { total: 0, items: [] },
}

async function kept(path: string): Promise<Response | undefined> {
  await known()
  if (!canStore) return undefined
  const answer = async (): Promise<unknown> => {
    if (path === '/api/circuits') {
      const items = await Promise.all(
        here.value.map(async (a) => (await (await store()).get('answers', `/api/circuits#${a.id}`))?.body),
      )
      return { total: items.length, items: items.filter(Boolean) }
    }
    return (await (await store()).get('answers', path))?.body ?? (here.value.length ? empty[path] : undefined)
  }
  const body = await answer()
  return body === undefined
    ? undefined
    : new Response(JSON.stringify(body), { headers: { 'Content-Type': 'application/json' } })
}

const computes = /^\/api\/(jobs\/[^/]+\/(screen|diagnosis|doubt|operate)|circuits\/[^/]+\/(operate|in-question))$/

/** Whether this device is asked before the service. */
export const isFirst = (request: Request) =>
  first.value && computes.test(new URL(request.url).pathname) && !request.url.includes('/screen')

/** What this device answers in the place of the service; nothing when it cannot. What writes is not answered here. */
export async function inPlace(request: Request): Promise<Response | undefined> {
  try {
    const url = new URL(request.url)
    if (request.method !== 'GET' && !/\/(doubt|operate|judged)$/.test(url.pathname)) return undefined
    const body = request.method === 'GET' ? '' : await request.text()
    const answer = await asked(request.method, url.pathname + url.search, body)
    if (answer && answer.status !== 404) return answer
    return request.method === 'GET' ? await kept(url.pathname) : undefined
  } catch {
    return undefined
  }
}

/** What the service now shows of a job is kept, in the place of what was known of it. */
async function keep(job: Schemas['JobView']) {
  await known()
  answered.value = false
  if (!here.value.some((a) => a.id === job.circuitId) || job.exercise) return
  const history = here.value.flatMap((a) => a.package.jobs).find((j) => j.id === job.id)?.history ?? null
  await (
    await store()
  ).put('jobs', {
    id: job.id,
    circuitId: job.circuitId,
    version: job.circuitVersion,
    title: job.title,
    openedAt: job.openedAt,
    entries: job.entries.map((e) => e.entry),
    history,
  })
  renew(job.id)
  await fetchPictures(job.circuitId, shownIn(job.entries.map((e) => e.entry)))
}

/** Pictures that entries show. */
const shownIn = (entries: { type?: string }[]) =>
  entries.flatMap((e) => (e.type === 'photo' ? [(e as Schemas['JournalEntryPhoto']).picture] : []))

/**
 * Has this device know a job before it is asked about it: the first diagnosis after a start takes many times as long as the next. In the
 * background; what was not taken along is left alone.
 */
async function prepare(job: string, wish: Record<string, string | boolean | undefined>): Promise<void> {
  await known()
  const circuit = here.value.length ? await circuitOf(`/api/jobs/${job}`) : undefined
  if (!circuit) return
  await Promise.all(sides.map((side) => bring(side, circuit, job)))
  const query = new URLSearchParams(
    Object.entries(wish).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
  )
  await head.answer('GET', `/api/jobs/${job}/diagnosis?${query}`)
}

async function written<T>(target: string, body: unknown): Promise<{ answer: T } | { refused: string } | undefined> {
  const answer = await asked('POST', target, JSON.stringify(body)).catch(() => undefined)
  if (!answer || answer.status === 404 || answer.status >= 500) return undefined
  const json = (await answer.json()) as T & { detail?: string }
  return answer.ok ? { answer: json } : { refused: json.detail ?? 'Not recorded.' }
}

/** Records an entry on this device; the outbox keeps it until the service has it. */
const append = (job: string, entry: Schemas['JournalEntry']) =>
  written<Schemas['Recorded']>(`/api/jobs/${job}/entries`, entry)

/** Opens a job on this device; the outbox keeps the opening until the service has it. */
async function open(opening: Schemas['OpenJob']) {
  await known()
  if (!here.value.some((a) => a.id === opening.circuitId)) return undefined
  await bring(hand, opening.circuitId)
  const text = await hand.answer('POST', '/api/jobs', opening)
  const json = JSON.parse(text.slice(3)) as Schemas['JobView'] & { detail?: string }
  if (text.startsWith('201')) {
    hand.brought.add(json.id)
    return { answer: json as Schemas['JobView'] }
  }
  return { refused: json.detail ?? 'Not opened.' }
}

async function fetched(address: string): Promise<unknown> {
  const answer = await globalThis.fetch(address)
  if (!answer.ok) throw new Error('The service did not answer; take it along again.')
  return answer.json()
}

/** Fetches the core, file by file, into the browser's cache. */
async function fetchCore(): Promise<void> {
  const core = (await fetched('/field/core.json').catch(() => undefined)) as
    { path: string; files: string[] } | undefined
  if (!core) throw new Error('This service has no core for devices.')
  if (typeof caches === 'undefined')
    throw new Error('Browsers keep pages only from an encrypted address: ask for this service under https.')
  // The service worker answers from it.
  const cache = await caches.open('field')
  let done = 0
  for (const file of core.files) {
    busy.value = `Fetching the core: ${++done} of ${core.files.length}`
    if (!(await cache.match(core.path + file)))
      await cache.add(core.path + file).catch(() => {
        throw new Error('The core was not fetched whole; try again.')
      })
  }
  await (await store()).put('about', core.path, 'path')
  for (const old of await cache.keys()) if (!new URL(old.url).pathname.startsWith(core.path)) await cache.delete(old)
}

/** Takes a circuit along: its file, its open jobs, and what its page shows. */
async function takeAlong(circuit: { id: string; tag: string; title: string }): Promise<void> {
  await known()
  if (!canStore) throw new Error('This browser keeps nothing.')
  busy.value = 'Taking it along'
  try {
    await persist()
    await fetchCore()
    busy.value = `Fetching ${circuit.tag}`
    const found = (await fetched(`/api/field/circuits/${circuit.id}`)) as Schemas['FieldPackage']
    const list = (await fetched(`/api/circuits?search=${encodeURIComponent(circuit.tag)}&take=200`)) as {
      items: { id: string }[]
    }
    const under = `/api/circuits/${circuit.id}`
    const pages = [
      'handed-over',
      'jobs',
      'three-lines',
      'plate-check',
      'upkeep',
      'trends',
      'bench-check',
      'bench-checks',
    ]
    const answers = await Promise.all(
      pages.map(async (page) => [`${under}/${page}`, await fetched(`${under}/${page}`)]),
    )
    const rest = await Promise.all(
      ['/api/circuits/choices', '/api/sums'].map(async (address) => [address, await fetched(address)]),
    )
    const db = await store()
    const all = db.transaction(['circuits', 'jobs', 'answers'], 'readwrite', { durability: 'strict' })
    for (const [address, body] of [...answers, ...rest])
      void all.objectStore('answers').put({ circuit: circuit.id, body }, address as string)
    const item = list.items.find((i) => i.id === circuit.id)
    void all.objectStore('answers').put({ circuit: circuit.id, body: item }, `/api/circuits#${circuit.id}`)
    for (const job of found.jobs) void all.objectStore('jobs').delete(job.id)
    void all
      .objectStore('circuits')
      .put({ id: circuit.id, tag: circuit.tag, title: circuit.title, at: new Date().toISOString(), package: found })
    await all.done
    found.jobs.forEach((job) => renew(job.id))
    renew(circuit.id)
    here.value = await db.getAll('circuits')
    busy.value = `Fetching the photos of ${circuit.tag}`
    await fetchPictures(circuit.id, shownIn(found.jobs.flatMap((job) => job.entries)))
    // What cannot be worked with here is found out here, and not where there is no connection.
    busy.value = `Trying ${circuit.tag} on this device`
    await bring(hand, circuit.id)
  } catch (error) {
    if ((error as Error).name === 'QuotaExceededError')
      throw new Error('There is no room left on this device; leave another circuit here first.', { cause: error })
    throw error
  } finally {
    busy.value = ''
  }
}

/** Leaves a circuit; entries that wait to be sent are kept. */
async function leave(circuit: string): Promise<void> {
  const db = await store()
  await db.delete('circuits', circuit)
  for (const key of await db.getAllKeys('answers'))
    if ((await db.get('answers', key))?.circuit === circuit && key.includes(circuit)) await db.delete('answers', key)
  for (const job of await db.getAll('jobs')) if (job.circuitId === circuit) await db.delete('jobs', job.id)
  await leavePictures(circuit)
  for (const side of sides.filter((s) => s.isHere)) await side.ask({ what: 'forget', json: circuit })
  renew(circuit)
  here.value = await db.getAll('circuits')
}

async function choose(device: boolean): Promise<void> {
  first.value = device
  await (await store()).put('about', device, 'first')
}

/** The core on this device: circuits that were taken along, and what it answers where there is no service. */
export function useField() {
  void known()
  const isHere = (circuit: string) => computed(() => here.value.find((a) => a.id === circuit))
  return { here, isHere, busy, first, answered, takeAlong, leave, choose, keep, prepare, append, open }
}
