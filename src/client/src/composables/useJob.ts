import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { api, need, type Circuit, type Diagnosis, type Entry, type Job, type Schemas } from '@/api/client'
import { useField } from '@/field/field'
import { useNews } from './useNews'
import { useOutbox, type Waiting, type Wish } from './useOutbox'
import { useSettings } from './useSettings'

/** Nobody waits longer to be asked whether a reading is meant, ms. */
const longestDoubt = 1500

/** A job with its circuit and diagnosis, kept up to date with what this and other screens record. */
export function useJob(id: string) {
  const job = shallowRef<Job>()
  const circuit = shallowRef<Circuit>()
  const diagnosis = shallowRef<Diagnosis>()
  const asking = ref(0)
  const thinking = computed(() => asking.value > 0)
  const onTheWay = ref(0)
  const sending = computed(() => onTheWay.value > 0)
  const problem = ref('')
  const outbox = useOutbox(id)
  const { strategy, without, learn, school, who } = useSettings()
  const field = useField()
  let asked = 0
  let shown = 0

  const wish = (): Wish => ({
    strategy: strategy.value,
    without: without.value.join(',') || undefined,
    learn: learn.value ? undefined : false,
    words: school.value === 'ladder' ? 'american' : undefined,
  })

  /** Shows what the service answered, unless something newer is shown already. Returns whether a diagnosis came with it. */
  function show(number: number, now: Job, result: Diagnosis | null | undefined): boolean {
    const known = job.value?.sequence ?? 0
    // What knows of more entries is newer, whichever question it answers; of the same entries the later answer counts.
    if (now.sequence < known || (now.sequence === known && number < shown)) return true
    shown = Math.max(number, shown)
    job.value = now
    if (!outbox.offline.value) void field.keep(now).catch(() => undefined)
    if (result) diagnosis.value = result
    return !!result
  }

  /** Asks until the diagnosis is there: a first one may take longer than an answer waits. */
  async function load(): Promise<void> {
    asking.value++
    try {
      const number = ++asked
      const screen = need(await api.GET('/api/jobs/{id}/screen', { params: { path: { id }, query: wish() } }))
      // A panel that turned out otherwise goes on with another version of its circuit.
      if (circuit.value?.version !== screen.job.circuitVersion)
        circuit.value = need(
          await api.GET('/api/circuits/{id}', {
            params: { path: { id: screen.job.circuitId }, query: { version: screen.job.circuitVersion } },
          }),
        )
      if (!show(number, screen.job, screen.diagnosis)) await diagnose()
    } finally {
      asking.value--
    }
  }

  async function diagnose(): Promise<void> {
    asking.value++
    try {
      const number = ++asked
      const result = need(await api.GET('/api/jobs/{id}/diagnosis', { params: { path: { id }, query: wish() } }))
      if (number >= shown && result.sequence >= (diagnosis.value?.sequence ?? 0)) {
        shown = number
        diagnosis.value = result
      }
    } finally {
      asking.value--
    }
  }

  /** Records an entry and shows what follows from it. Returns why it was refused, or nothing. */
  async function record(entry: Entry, label = ''): Promise<string | undefined> {
    problem.value = ''
    asking.value++
    onTheWay.value++
    const number = ++asked
    try {
      const outcome = await outbox.record(entry, label || labelOf(entry), wish()).finally(() => onTheWay.value--)
      if ('refused' in outcome) {
        await load().catch(() => undefined)
        return outcome.refused
      }
      if ('here' in outcome && outcome.here) {
        show(number, outcome.here.job, null)
        told(diagnose())
      }
      if ('recorded' in outcome && !show(number, outcome.recorded.job, outcome.recorded.diagnosis))
        // It is on disk: whoever recorded it does not wait for what follows from it.
        told(diagnose())
      return undefined
    } finally {
      asking.value--
    }
  }

  /** The same where there is no field to show the reason at. */
  async function recordHere(entry: Entry): Promise<boolean> {
    const refused = await record(entry)
    if (refused) problem.value = refused
    return !refused
  }

  /** The panel differs: the circuit is corrected and everything weighed again on it. Returns why not, or nothing. */
  async function correct(edit: Schemas['CircuitEdit']): Promise<string | undefined> {
    try {
      need(await api.POST('/api/jobs/{id}/corrections', { params: { path: { id } }, body: { edit, who: who.value } }))
      await load()
      return undefined
    } catch (error) {
      return (error as Error).message
    }
  }

  /** What to ask before a reading is recorded that nothing explains; nothing when that cannot be found out now. */
  async function doubt(entry: Entry): Promise<string | undefined> {
    if (outbox.offline.value || outbox.mine.value.length) return undefined
    const answer = await api
      .POST('/api/jobs/{id}/doubt', {
        params: { path: { id } },
        body: entry as never,
        signal: AbortSignal.timeout(longestDoubt),
      })
      .catch(() => undefined)
    return answer?.data?.question ?? undefined
  }

  /** What the service says of the journal's length: another screen's entries are fetched, one's own come with their answers. */
  function heard(sequence: number) {
    outbox.offline.value = false
    // The first time it is on its way already.
    if (job.value && sequence !== job.value.sequence && !outbox.mine.value.some((w) => !w.refused))
      void load().catch(() => undefined)
  }

  const told = (promise: Promise<unknown>) => void promise.catch((e: Error) => (problem.value = e.message))
  watch([strategy, without, learn, school], () => told(diagnose()))
  watch(outbox.mine, (now, before) => {
    const gone = before.filter((b) => !now.some((n) => n.entry.id === b.entry.id))
    const isHere = (w: Waiting) => job.value?.entries.some((e) => e.entry.id === w.entry.id)
    // What this screen recorded comes with its own answer, which stands a moment later; only what got through otherwise is fetched. A
    // refused one is being followed by a fetch already: a second would wipe the reason from its field.
    if (gone.length) setTimeout(() => gone.every(isHere) || asking.value > 0 || void load().catch(() => undefined))
  })
  // While there is a connection nobody waits for it.
  const prepare = () => void field.prepare(id, wish()).catch(() => undefined)
  watch(outbox.offline, (gone) => gone && prepare())
  onMounted(() => {
    told(load().then(prepare))
    told(outbox.send())
  })
  useNews(`/api/jobs/${id}/events`, heard, () => (outbox.offline.value = true))

  return {
    job,
    circuit,
    diagnosis,
    thinking,
    sending,
    problem,
    record,
    doubt,
    correct,
    recordHere,
    waiting: computed(() => outbox.mine.value.filter((w) => !w.open)),
    offline: outbox.offline,
    unsaved: outbox.unsaved,
    mend: outbox.mend,
    letGo: outbox.letGo,
  }
}

/** What an entry is, for the eye, while it waits for a connection. */
export function labelOf(entry: Entry): string {
  switch (entry.type) {
    case 'readingAsTyped':
      return `${entry.from} – ${entry.to}: ${entry.typed}`
    case 'look':
      return `${entry.device} ${entry.look}: ${entry.answer}`
    case 'operation':
      return entry.steps.map((s) => `${s.device} ${s.position}`.trim() || 'waited').join(', ')
    case 'note':
      return `Note: ${entry.text}`
    case 'photo':
      return entry.caption ? `Photo: ${entry.caption}` : 'Photo'
    default:
      return entry.type ?? ''
  }
}
