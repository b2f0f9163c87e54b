import { onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { api, need, type Circuit, type Diagnosis, type Entry, type Job } from '@/api/client'
import { useOutbox } from './useOutbox'
import { useSettings } from './useSettings'

/** A job with its circuit and diagnosis, kept up to date with what this and other screens record. */
export function useJob(id: string) {
  const job = shallowRef<Job>()
  const circuit = shallowRef<Circuit>()
  const diagnosis = shallowRef<Diagnosis>()
  const thinking = ref(false)
  const problem = ref('')
  const outbox = useOutbox(id)
  const { strategy, without, learn, school } = useSettings()
  let timer: ReturnType<typeof setInterval> | undefined

  async function load() {
    job.value = need(await api.GET('/api/jobs/{id}', { params: { path: { id } } }))
    circuit.value ??= need(await api.GET('/api/circuits/{id}', { params: { path: { id: job.value.circuitId } } }))
    await diagnose()
  }

  async function diagnose() {
    thinking.value = true
    try {
      diagnosis.value = need(
        await api.GET('/api/jobs/{id}/diagnosis', {
          params: {
            path: { id },
            query: {
              strategy: strategy.value,
              without: without.value.join(',') || undefined,
              learn: learn.value ? undefined : false,
              words: school.value === 'ladder' ? 'american' : undefined,
            },
          },
        }),
      )
    } finally {
      thinking.value = false
    }
  }

  /** Records an entry and shows what follows from it; false when it was refused, with the reason in `problem`. */
  async function record(entry: Entry): Promise<boolean> {
    problem.value = ''
    try {
      await outbox.record(entry)
      if (!outbox.offline.value) await load()
      return true
    } catch (error) {
      problem.value = (error as Error).message
      await load().catch(() => undefined)
      return false
    }
  }

  async function lookForNews() {
    if (document.hidden || outbox.mine.value.length > 0) return
    try {
      const sequence = need(await api.GET('/api/jobs/{id}/sequence', { params: { path: { id } } }))
      outbox.offline.value = false
      if (sequence !== job.value?.sequence) await load()
    } catch {
      outbox.offline.value = true
    }
  }

  watch([strategy, without, learn, school], () => void diagnose().catch((e: Error) => (problem.value = e.message)))
  watch(outbox.mine, (now, before) => {
    if (before.length > 0 && now.length === 0) void load().catch(() => undefined)
  })
  onMounted(() => {
    load().catch((error: Error) => (problem.value = error.message))
    void outbox.send().catch((error: Error) => (problem.value = error.message))
    timer = setInterval(() => void lookForNews(), 3000)
  })
  onBeforeUnmount(() => clearInterval(timer))

  return {
    job,
    circuit,
    diagnosis,
    thinking,
    problem,
    record,
    reload: load,
    waiting: outbox.mine,
    offline: outbox.offline,
  }
}
