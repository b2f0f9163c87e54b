import { computed, ref } from 'vue'
import { api, need, Refused, type Entry, type Recorded } from '@/api/client'
import { uuid } from './uuid'

/** An entry on its way. */
export interface Waiting {
  job: string
  entry: Entry
  /** What it is, for the eye, until the service says it in its own words. */
  label: string
  /** Why it was refused after it had waited; it stays until somebody mends it or lets it go. */
  refused?: string
}

/** What became of an entry: recorded, refused at once with the reason, or waiting for a connection. */
export type Outcome = { recorded: Recorded } | { refused: string } | { waiting: true }

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

function keep(w: Waiting) {
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
  memoryOnly.delete(w.entry.id!)
  unsaved.value = memoryOnly.size > 0
  waiting.value = waiting.value.filter((x) => x.entry.id !== w.entry.id)
}

/** The service was not reached, or cannot answer now: it is asked again. */
const canWait = (error: unknown) =>
  !(error instanceof Refused) || error.status >= 500 || error.status === 408 || error.status === 429

async function post(w: Waiting, wish: Wish): Promise<Recorded> {
  return need(
    await api.POST('/api/jobs/{id}/entries', {
      params: { path: { id: w.job }, query: wish },
      body: w.entry,
    }),
  )
}

/** Sends what waits, oldest first. What is refused is marked and stands in nobody's way. */
async function drain(): Promise<void> {
  clearTimeout(timer)
  waiting.value = load()
  for (const w of waiting.value.filter((x) => !x.refused && !underway.has(x.entry.id!))) {
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
  // Another window of this browser has put something down, or got something through.
  window.addEventListener('storage', (e) => {
    if (e.key === null || e.key.startsWith(prefix)) waiting.value = load()
  })
  window.addEventListener('online', () => void drain())
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
      if (mine.value.some((x) => !x.refused && x.entry.id !== w.entry.id)) return { waiting: true }
      const recorded = await post(w, wish)
      drop(w)
      offline.value = false
      tries = 0
      return { recorded }
    } catch (error) {
      if (canWait(error)) {
        offline.value = true
        again()
        return { waiting: true }
      }
      drop(w)
      return { refused: (error as Error).message }
    } finally {
      underway.delete(w.entry.id!)
    }
  }

  /** A refused entry is sent once more, changed. */
  async function mend(w: Waiting, entry: Entry, label: string): Promise<void> {
    drop(w)
    keep({ job: w.job, entry: { ...entry, id: uuid(), at: w.entry.at, who: w.entry.who }, label })
    await drain()
  }

  return { record, mend, drop, send: drain, mine, offline, unsaved }
}
