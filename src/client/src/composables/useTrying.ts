import { computed, ref, watch, type Ref } from 'vue'
import type { Circuit, Diagnosis, Proposal, Schemas, Step } from '@/api/client'
import { useOperation } from './useOperation'

/**
 * What is tried on the parts in the drawing while that region is open: how the circuit was seen to stand, what has been operated since
 * the last entry, and what a good circuit would do now.
 */
export function useTrying(
  operate: (steps: Step[]) => Promise<Schemas['OperationView']>,
  circuit: Ref<Circuit | undefined>,
  diagnosis: Ref<Diagnosis | undefined>,
  isOn: () => boolean,
) {
  const { steps, operation, standing, problem, start, tap, wait } = useOperation(() => circuit.value, operate)
  /** What the card asks to be done; none when somebody tries something by himself. */
  const asked = ref<Step[]>([])
  /** What the card asks to be looked at. */
  const watched = ref<string[]>([])

  /** As it stands, with nothing operated. */
  const stand = () => start()

  /** Takes over what a proposed test operates. */
  function ask(proposal?: Proposal) {
    asked.value = proposal?.kind === 'operation' ? proposal.steps : []
    watched.value = proposal?.kind === 'operation' ? proposal.watched : []
  }

  watch([isOn, () => diagnosis.value?.sequence], ([on], [was]) => {
    if (!on) {
      ask()
      return
    }
    // What another screen recorded meanwhile, or a diagnosis that comes late, does not take back what is being tried here.
    void start(() => (was ? steps.value : asked.value))
  })

  /** Hands over what was tried with an entry: it is begun anew, or goes on when the entry is refused. */
  async function hand(record: () => Promise<boolean>): Promise<boolean> {
    const begun = steps.value
    steps.value = []
    ask()
    const isRecorded = await record()
    if (!isRecorded && begun.length) await start(() => begun)
    return isRecorded
  }

  /** Terminals of the buttons that are asked for, or of the first of them: what is touched is in the window. */
  const buttons = computed(() => {
    const parts = circuit.value?.sheets.flatMap((s) => s.parts) ?? []
    const tags = asked.value.map((s) => s.device).filter(Boolean)
    const held = circuit.value?.devices.filter((d) => d.actuations.some((a) => a.returns && !a.deadOnly)) ?? []
    const first = [...new Set(tags.length ? tags : held.map((d) => d.tag))].slice(0, 3)
    return parts.filter((p) => first.includes(p.device)).flatMap((p) => p.terminals.map((t) => t.terminal))
  })

  /** A part was touched: it is operated, or asked what it does. Returns whether it is asked. */
  function touch(tag: string): boolean {
    const device = circuit.value?.devices.find((d) => d.tag === tag)
    if (!device) return false
    if (circuit.value!.isolationPoints.includes(tag)) {
      problem.value = `${tag} isolates the circuit: that is a step of its own, in the band above.`
      return false
    }
    if (!device.actuations.some((a) => !a.deadOnly)) return true
    void tap(tag)
    return false
  }

  return { steps, before: standing, now: operation, problem, watched, buttons, ask, touch, wait, stand, hand }
}
