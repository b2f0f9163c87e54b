import { computed, onUnmounted, ref } from 'vue'
import type { Circuit, Schemas, Step } from '@/api/client'

type Operation = Schemas['OperationView']

/** Operates a healthy circuit: everything done so far goes to the service, which answers with what the circuit does. */
export function useOperation(circuit: () => Circuit | undefined, simulate: (steps: Step[]) => Promise<Operation>) {
  const steps = ref<Step[]>([])
  const operation = ref<Operation>()
  /** As it stood before anything was operated. */
  const standing = ref<Operation>()
  const happened = ref<string[]>([])
  const problem = ref('')
  const playing = ref(false)
  let timer: ReturnType<typeof setInterval> | undefined
  let turn: Promise<void> = Promise.resolve()
  let waiting = 0

  /** What is done comes after what was done before: a tap while the answer is on its way is neither lost nor overtakes it. */
  function inTurn(work: () => Promise<void>) {
    waiting++
    turn = turn.then(work).finally(() => waiting--)
    return turn
  }

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

  /** Begins anew; what `goOn` names is done again from there. It is asked in its turn: a tap on its way then counts among it. */
  function start(goOn: () => Step[] = () => []) {
    pause()
    return inTurn(async () => {
      const begun = goOn()
      happened.value = []
      await run([])
      standing.value = operation.value
      if (begun.length) await run(begun)
    })
  }

  /** A tap on a device: buttons are held until the next tap, everything else goes to its next position. */
  const tap = (tag: string) => inTurn(() => operate(tag))

  async function operate(tag: string) {
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
    await run([...steps.value, { device: tag, position, seconds: 0 }])
  }

  const wait = (s: number) => inTurn(() => run(merged([...steps.value, seconds(s)])))

  function pause() {
    playing.value = false
    clearInterval(timer)
  }

  /** Lets time pass as it does. */
  function play() {
    if (playing.value) return pause()
    playing.value = true
    timer = setInterval(() => {
      if (!waiting) void wait(1)
    }, 1000)
  }

  onUnmounted(pause)
  return { steps, operation, standing, happened, problem, playing, clock, start, tap, wait, play }
}

/** One wait after another is one wait: the list stays short while time passes. */
function merged(steps: Step[]): Step[] {
  const [last, before] = [steps.at(-1)!, steps.at(-2)]
  return before && before.device === '' && last.device === ''
    ? [...steps.slice(0, -2), { ...last, seconds: Number(before.seconds) + Number(last.seconds) }]
    : steps
}
