import { computed, ref } from 'vue'
import { api, need, Refused, type Entry, type Recorded, type Schemas } from '@/api/client'
import { unsent, useField } from '@/field/field'
import { pictureOf, sentPicture } from '@/field/pictures'
import { store } from '@/field/store'
import { uuid } from './uuid'

/** An entry on its way. */
export interface Waiting {
  job: string
  /** The job itself waits to be opened; the entry is its complaint. */
  open?: Schemas['OpenJob']
  entry: Entry
  /** What it is, for the eye, until the service says it in its own words. */
  label: string
  /** Why it was refused after it had waited; it stays until somebody mends it or lets it go. */
  refused?: string
}

/** What became of an entry: recorded, refused at once with the reason, or waiting for a connection. */
export type Outcome = { recorded: Recorded } | { refused: string } | { waiting: true; here?: Recorded }

/** How the diagnosis that comes with the answer is wanted. */
export type Wish = { strategy?: string; without?: string; learn?: boolean; words?: string }

const prefix = 'fehler.outbox.'
const retryAfter = [2000, 4000, 8000, 15000]

const waiting = ref<Waiting[]>([])
const offline = ref(false)
/** The browser keeps nothing any more: entries live in this window only. */
const unsaved = ref(false)
/** Entries that are being sent by this window, so that none is sent twice at a time. */
const underway = new Set<string>()
let tries = 0
let timer: ReturnType<typeof setTimeout> | undefined

const keyOf = (w: Waiting) => `${prefix}${w.entry.at}.${w.entry.id}`
const isWaiting = (x: unknown): x is Waiting =>
  typeof x === 'object' &&
  x !== null &&
  typeof (x as Waiting).job === 'string' &&
  typeof (x as Waiting).entry?.id === 'string'

/** What all windows of this browser have put down, in the order in which it was made. One key an entry: no window overwrites another's. */
function load(): Waiting[] {
  const found: Waiting[] = []
  for (const key of Object.keys(localStorage).sort()) {
    if (!key.startsWith(prefix)) continue
    try {
      const parsed: unknown = JSON.parse(localStorage.getItem(key) ?? '')
      if (isWaiting(parsed)) found.push(parsed)
    } catch {
      // Damaged: it is left where it is, and the others are sent.
    }
  }
  // What could not be put down lives on here.
  const kept = new Set(found.map((w) => w.entry.id))
  return [...found, ...waiting.value.filter((w) => memoryOnly.has(w.entry.id!) && !kept.has(w.entry.id))]
}

const memoryOnly = new Set<string>()

let latest = 0

/** Now, and later than any entry of this window before: two made within a millisecond keep their order. */
function now(): string {
  latest = Math.max(Date.now(), latest + 1)
  return new Date(latest).toISOString()
}

/** Onto the disk as well: a battery that goes flat loses nothing that is said to be kept. One that is there twice is sent once, by its id. */
async function ontoDisk(w: Waiting) {
  if (typeof indexedDB === 'undefined') return
  const disk = (await store()).transaction('outbox', 'readwrite', { durability: 'strict' })
  // A plain copy: what is shown is watched, and cannot be stored.
  await disk.store.put(JSON.parse(JSON.stringify(w)))
  await disk.done
  onDisk.add(w.entry.id!)
  unsaved.value = [...memoryOnly].some((id) => !onDisk.has(id))
}

const onDisk = new Set<string>()

/** What is on the disk and not in the browser's plain storage: it was written in the last seconds before the lights went out. */
async function fromDisk() {
  if (typeof indexedDB === 'undefined') return
  for (const kept of await (await store()).getAll('outbox')) {
    if (isWaiting(kept) && !localStorage.getItem(keyOf(kept))) keep(kept)
  }
}

function keep(w: Waiting) {
  void ontoDisk(w).catch(() => undefined)
  try {
    localStorage.setItem(keyOf(w), JSON.stringify(w))
    memoryOnly.delete(w.entry.id!)
  } catch {
    memoryOnly.add(w.entry.id!)
    unsaved.value = true
  }
  waiting.value = [...waiting.value.filter((x) => x.entry.id !== w.entry.id), w]
}

function drop(w: Waiting) {
  localStorage.removeItem(keyOf(w))
  if (onDisk.delete(w.entry.id!)) void store().then((disk) => disk.delete('outbox', w.entry.id!))
  memoryOnly.delete(w.entry.id!)
  unsaved.value = memoryOnly.size > 0
  waiting.value = waiting.value.filter((x) => x.entry.id !== w.entry.id)
}

/** Nobody wants it any more, nor the picture that it shows. */
function letGo(w: Waiting) {
  drop(w)
  if (w.entry.type === 'photo') void sentPicture(w.entry.picture).catch(() => undefined)
}

/** The service was not reached, cannot answer now, or wants to know who it is: it is asked again. */
const canWait = (error: unknown) =>
  !(error instanceof Refused) || error.status >= 500 || [401, 408, 429].includes(error.status)

/** Made by somebody else on this device: it goes under their own name, once they have signed in. */
const isSomebodyElses = (w: Waiting) => !!w.entry.who && sender.isAnother(w.entry.who)

/** Put in place by the application: whether somebody else than this is signed in here. */
export const sender: { isAnother: (who: string) => boolean } = { isAnother: () => false }

unsent.of = (job) => load().filter((w) => w.job === job && !w.refused)

async function post(w: Waiting, wish: Wish): Promise<Recorded | undefined> {
  if (w.open) {
    need(await api.POST('/api/jobs', { body: w.open }))
    return undefined
  }
  if (w.entry.type === 'photo') await sendPicture(w.job, w.entry.picture)
  return need(
    await api.POST('/api/jobs/{id}/entries', {
      // Where this device works it out the service is spared.
      params: { path: { id: w.job }, query: { ...wish, wait: useField().first.value ? false : undefined } },
      body: w.entry,
    }),
  )
}

/** The picture goes before the entry that shows it; sent twice it is kept once. */
async function sendPicture(job: string, picture: string): Promise<void> {
  const body = await pictureOf(picture)
  // Not here any more: the service has it, or says what is missing.
  if (!body) return
  const { error, response } = await api.PUT('/api/jobs/{id}/photos/{picture}', {
    params: { path: { id: job, picture } },
    body: body as never,
    bodySerializer: (b) => b as never,
    headers: { 'Content-Type': body.type },
  })
  if (!response.ok) need({ error, response })
  await sentPicture(picture)
}

/** Sends what waits, oldest first. What is refused is marked and stands in nobody's way. */
async function drain(): Promise<void> {
  clearTimeout(timer)
  waiting.value = load()
  for (const w of waiting.value.filter((x) => !x.refused && !isSomebodyElses(x) && !underway.has(x.entry.id!))) {
    underway.add(w.entry.id!)
    try {
      await post(w, {})
      drop(w)
      offline.value = false
      tries = 0
    } catch (error) {
      if (canWait(error)) {
        offline.value = true
        again()
        return
      }
      keep({ ...w, refused: (error as Error).message })
    } finally {
      underway.delete(w.entry.id!)
    }
  }
}

function again() {
  clearTimeout(timer)
  timer = setTimeout(() => void drain(), retryAfter[Math.min(tries++, retryAfter.length - 1)])
}

if (typeof window !== 'undefined') {
  void fromDisk()
    .then(drain)
    .catch(() => undefined)
  // Another window of this browser has put something down, or got something through.
  window.addEventListener('storage', (e) => {
    if (e.key === null || e.key.startsWith(prefix)) waiting.value = load()
  })
  window.addEventListener('online', () => void drain())
}

/** Puts the opening of a job down that could not be sent. */
export function keepOpening(open: Schemas['OpenJob']) {
  const entry = { type: 'complaint', text: open.complaint, id: open.id, at: open.at, who: open.who } as Entry
  keep({ job: open.id!, open, entry, label: open.complaint })
  again()
}

/**
 * Entries on their way to the journal. Each is kept in the browser until the service says that it is on disk; when the service cannot be
 * reached it waits and is sent again, with the same id, so that none is recorded twice.
 */
export function useOutbox(job: string) {
  const mine = computed(() => waiting.value.filter((w) => w.job === job))

  /** Records an entry. What is refused while somebody looks at it is not kept: it is put right where it was typed. */
  async function record(entry: Entry, label: string, wish: Wish): Promise<Outcome> {
    const w: Waiting = {
      job,
      label,
      entry: {
        ...entry,
        id: entry.id ?? uuid(),
        at: entry.at ?? now(),
        who: entry.who || localStorage.getItem('fehler.who') || '',
      },
    }
    const isQueue = mine.value.some((x) => !x.refused)
    underway.add(w.entry.id!)
    keep(w)
    try {
      // What was made before goes first.
      if (isQueue) await drain()
      if (mine.value.some((x) => !x.refused && x.entry.id !== w.entry.id)) return await onThisDevice(w)
      const recorded = (await post(w, wish))!
      drop(w)
      offline.value = false
      tries = 0
      return { recorded }
    } catch (error) {
      if (canWait(error)) {
        offline.value = true
        again()
        return await onThisDevice(w)
      }
      letGo(w)
      return { refused: (error as Error).message }
    } finally {
      underway.delete(w.entry.id!)
    }
  }

  /** Without the service this device says what follows from it, or why it is not taken; it waits to be sent all the same. */
  async function onThisDevice(w: Waiting): Promise<Outcome> {
    const here = await useField().append(w.job, w.entry)
    if (here && 'refused' in here) {
      drop(w)
      return here
    }
    return { waiting: true, here: here?.answer }
  }

  /** A refused entry is sent once more, changed. */
  async function mend(w: Waiting, entry: Entry, label: string): Promise<void> {
    drop(w)
    keep({ job: w.job, entry: { ...entry, id: uuid(), at: w.entry.at, who: w.entry.who }, label })
    await drain()
  }

  return { record, mend, letGo, send: drain, mine, offline, unsaved }
}
