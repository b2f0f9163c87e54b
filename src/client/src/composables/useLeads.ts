import { computed, ref, watch, type Ref } from 'vue'
import type { Diagnosis, Job, Proposal, Quantity, Step } from '@/api/client'

/**
 * Where the two leads are and what is held: the proposed test's until a terminal is tapped, then the person's own. One lead
 * stays on the control return by default; tapping moves the other.
 */
export function useLeads(
  job: Ref<Job | undefined>,
  diagnosis: Ref<Diagnosis | undefined>,
  reference: Ref<string | undefined>,
) {
  const chosen = ref(0)
  const own = ref<{ from: string; to: string; quantity: Quantity; held: Step[] }>()
  const moving = ref<1 | 2>(1)

  const proposal = computed<Proposal | undefined>(() => diagnosis.value?.proposals[chosen.value])
  const isOwn = computed(() => own.value !== undefined)
  const test = computed(() => {
    if (own.value) return own.value
    const p = proposal.value
    return p?.kind === 'reading' ? { from: p.from!, to: p.to!, quantity: p.quantity, held: p.held } : undefined
  })

  watch(diagnosis, (now, before) => {
    if (now?.sequence !== before?.sequence) reset()
  })

  function reset() {
    own.value = undefined
    chosen.value = 0
    moving.value = 1
  }

  /** A terminal was tapped: the lead that is moving goes there. */
  function tap(terminal: string) {
    const now = test.value ?? { from: '', to: reference.value ?? '', quantity: defaultQuantity(), held: [] }
    own.value = { ...now, [moving.value === 1 ? 'from' : 'to']: terminal, held: own.value ? now.held : [] }
    if (!own.value.to) own.value.to = reference.value ?? ''
    clampIsOnePoint()
  }

  function set(change: Partial<{ from: string; to: string; quantity: Quantity; held: Step[] }>) {
    const now = test.value ?? { from: '', to: reference.value ?? '', quantity: defaultQuantity(), held: [] }
    own.value = { ...now, ...change }
    if (isClamp(now.quantity) && change.quantity && !isClamp(change.quantity)) own.value.to = reference.value ?? ''
    clampIsOnePoint()
  }

  function clampIsOnePoint() {
    if (!own.value || !isClamp(own.value.quantity)) return
    own.value.to = own.value.from
    moving.value = 1
  }

  function choose(index: number) {
    own.value = undefined
    chosen.value = index
  }

  /** A clamp goes around what is landed on one terminal. */
  const isClamp = (quantity: Quantity) => job.value?.meter.find((m) => m.quantity === quantity)?.isClamp ?? false

  function defaultQuantity(): Quantity {
    return job.value?.mayTouch ? 'ohms' : 'volts'
  }

  return { proposal, chosen, test, isOwn, isClamp, moving, tap, set, choose, reset }
}
