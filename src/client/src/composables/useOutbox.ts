import { computed, ref } from 'vue'
import { api, need, Refused, type Entry } from '@/api/client'

interface Waiting {
  job: string
  entry: Entry
}

const key = 'fehler.outbox'
const waiting = ref<Waiting[]>(JSON.parse(localStorage.getItem(key) ?? '[]') as Waiting[])
const offline = ref(false)
let sending: Promise<void> | undefined

function keep() {
  localStorage.setItem(key, JSON.stringify(waiting.value))
}

/**
 * Entries on their way to the journal. Each is kept in the browser until the service says that it is on disk; when the
 * service cannot be reached they wait and are sent again, with the same id, so that none is recorded twice.
 */
export function useOutbox(job: string) {
  const mine = computed(() => waiting.value.filter((w) => w.job === job))

  /** Records an entry. Resolves when it is on disk, rejects when it is refused; waits when there is no connection. */
  async function record(entry: Entry): Promise<void> {
    const stamped = {
      ...entry,
      id: entry.id ?? crypto.randomUUID(),
      who: entry.who || localStorage.getItem('fehler.who') || '',
    }
    waiting.value.push({ job, entry: stamped })
    keep()
    await send()
  }

  async function send(): Promise<void> {
    sending ??= drain().finally(() => (sending = undefined))
    return sending
  }

  async function drain(): Promise<void> {
    while (waiting.value.length > 0) {
      const next = waiting.value[0]!
      try {
        need(await api.POST('/api/jobs/{id}/entries', { params: { path: { id: next.job } }, body: next.entry }))
        offline.value = false
      } catch (error) {
        if (!(error instanceof Refused) || error.status >= 500) {
          // Not reached, or not able to answer: it stays here and is sent again.
          offline.value = true
          setTimeout(() => void send(), 2000)
          return
        }
        waiting.value.shift()
        keep()
        throw error
      }
      waiting.value.shift()
      keep()
    }
  }

  return { record, send, mine, offline }
}
