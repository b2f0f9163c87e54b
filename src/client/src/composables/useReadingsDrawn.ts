import { computed, type Ref } from 'vue'
import type { Circuit, Job } from '@/api/client'

/** The latest reading at each terminal against the return, as the drawing shows it: with what was held meanwhile. */
export function useReadingsDrawn(job: Ref<Job | undefined>, circuit: Ref<Circuit | undefined>) {
  return computed(() => {
    const latest = new Map<string, string>()
    for (const row of job.value?.entries ?? [])
      if (!row.struck && row.entry.type === 'reading' && row.entry.to === circuit.value?.reference)
        latest.set(row.entry.from, [row.shown, ...row.entry.held.map((h) => `(${h.device})`)].join(' '))
    return [...latest].map(([terminal, text]) => ({ terminal, text }))
  })
}
