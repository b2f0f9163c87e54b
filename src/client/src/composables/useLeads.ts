import { computed, ref, watch, type Ref } from 'vue'
import type { Diagnosis, Job, Proposal, Quantity, Step } from '@/api/client'

/** Whether a value is being typed, or on its way to be recorded. */
export type Typing = 'no' | 'typing' | 'sending'

interface Test {
  from: string
  to: string
  quantity: Quantity
  held: Step[]
}

const testOf = (p?: Proposal): Test | undefined =>
  p?.kind === 'reading' ? { from: p.from!, to: p.to!, quantity: p.quantity, held: p.held } : undefined

const isSame = (a: Test | undefined, b: Test) => JSON.stringify(a) === JSON.stringify(b)

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
  const own = ref<Test>()
  const moving = ref<1 | 2>(1)
  /** A value is being typed: the test that it belongs to must not change under it. */
  const typing = ref<Typing>('no')
  /** What changed meanwhile. */
  const isOvertaken = ref(false)

  const proposal = computed<Proposal | undefined>(() => diagnosis.value?.proposals[chosen.value])
  const isOwn = computed(() => own.value !== undefined)
  const test = computed(() => {
    if (own.value) return own.value
    return testOf(proposal.value)
  })

  /** The test that the circuit is being isolated or switched on for. */
  let accepted: Test | undefined

  // Isolating or switching on for a test is no evidence: the test that it is done for stays.
  watch(diagnosis, (now, before) => {
    if (now?.sequence === before?.sequence) return
    // Where nothing is proposed the leads stay where somebody has put them.
    if (own.value && now && !now.proposals.length && typing.value !== 'typing') return
    if (typing.value === 'typing') {
      own.value ??= testOf(before?.proposals[chosen.value])
      isOvertaken.value = !!own.value
      return
    }
    const isSetUp = before !== undefined && now?.observations === before.observations
    const asked = own.value ? undefined : before?.proposals[chosen.value]
    accepted = !isSetUp
      ? undefined
      : (accepted ?? (asked?.change && asked.change !== 'none' ? testOf(asked) : undefined))
    reset()
    if (accepted)
      chosen.value = Math.max(
        0,
        now!.proposals.findIndex((p) => isSame(testOf(p), accepted!)),
      )
  })

  function reset() {
    own.value = undefined
    chosen.value = 0
    moving.value = 1
    isOvertaken.value = false
  }

  /** A terminal was tapped: the lead that is moving goes there. */
  function tap(terminal: string) {
    const now = test.value ?? { from: '', to: reference.value ?? '', quantity: defaultQuantity(), held: [] }
    own.value = { ...now, [moving.value === 1 ? 'from' : 'to']: terminal, held: own.value ? now.held : [] }
    if (!own.value.to) own.value.to = reference.value ?? ''
    clampIsOnePoint()
  }

  function set(change: Partial<Test>) {
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

  // Cleared without being recorded: what is proposed by now comes up.
  watch(typing, (now, before) => {
    if (now === 'no' && before === 'typing' && isOvertaken.value) reset()
  })

  return { proposal, chosen, test, isOwn, isClamp, moving, typing, isOvertaken, tap, set, choose, reset }
}
