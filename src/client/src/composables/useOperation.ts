import { computed, onUnmounted, ref } from 'vue'
import type { Circuit, Schemas, Step } from '@/api/client'

type Operation = Schemas['OperationView']

/** Operates a healthy circuit: everything done so far goes to the service, which answers with what the circuit does. */
export function useOperation(circuit: () => Circuit | undefined, simulate: (steps: Step[]) => Promise<Operation>) {
  const steps = ref<Step[]>([])
  const operation = ref<Operation>()
  const happened = ref<string[]>([])
  const problem = ref('')
  const playing = ref(false)
  let timer: ReturnType<typeof setInterval> | undefined

  async function run(next: Step[]) {
    problem.value = ''
    try {
      operation.value = await simulate(next)
      steps.value = next
      happened.value = [...operation.value.events.map((e) => `${clock.value} ${e}`), ...happened.value].slice(0, 30)
    } catch (error) {
      problem.value = (error as Error).message
      pause()
    }
  }

  const clock = computed(() => `${(operation.value?.seconds ?? 0).toFixed(1)} s`)
  const seconds = (s: number): Step => ({ device: '', position: '', seconds: s })

  function start() {
    happened.value = []
    pause()
    return run([])
  }

  /** A tap on a device: buttons are held until the next tap, everything else goes to its next position. */
  function tap(tag: string) {
    const device = circuit()?.devices.find((d) => d.tag === tag)
    const now = operation.value?.positions[tag]
    if (!device || now === undefined) return
    const ways = device.actuations.filter((a) => !a.deadOnly)
    const returning = ways.find((a) => a.returns)
    const order = [...new Set([...ways.map((a) => a.position), device.rest])].sort(
      (a, b) => device.positions.indexOf(a) - device.positions.indexOf(b),
    )
    const position = returning
      ? now === returning.position
        ? device.rest
        : returning.position
      : order[(order.indexOf(now) + 1) % order.length]!
    happened.value = [`${clock.value} ${tag} ${position}`, ...happened.value].slice(0, 30)
    return run([...steps.value, { device: tag, position, seconds: 0 }])
  }

  const wait = (s: number) => run(merged([...steps.value, seconds(s)]))

  function pause() {
    playing.value = false
    clearInterval(timer)
  }

  /** Lets time pass as it does. */
  function play() {
    if (playing.value) return pause()
    playing.value = true
    timer = setInterval(() => void wait(1), 1000)
  }

  onUnmounted(pause)
  return { steps, operation, happened, problem, playing, clock, start, run, tap, wait, play }
}

/** One wait after another is one wait: the list stays short while time passes. */
function merged(steps: Step[]): Step[] {
  const [last, before] = [steps.at(-1)!, steps.at(-2)]
  return before && before.device === '' && last.device === ''
    ? [...steps.slice(0, -2), { ...last, seconds: Number(before.seconds) + Number(last.seconds) }]
    : steps
}
