import { computed, ref } from 'vue'
import { api, need, type Circuit, type Schemas, type Step } from '@/api/client'

export type Setup = Schemas['SetupView']
export type Edit = Schemas['CircuitEdit']

/** What is kept in the browser while a circuit is being set up: closing the window loses nothing. */
interface Draft {
  file: unknown
  family: string
  options: Record<string, unknown>
}

/**
 * A circuit being set up. The service keeps nothing: each edit sends the circuit file along and brings the next one back, so
 * undo is going back in the list.
 */
export function useSetup(draftKey: string) {
  const history = ref<Setup[]>([])
  const at = ref(-1)
  const problem = ref('')
  const busy = ref(false)
  const family = ref('')
  const options = ref<Record<string, unknown>>({})

  const current = computed(() => history.value[at.value])
  const circuit = computed<Circuit | undefined>(() => current.value?.circuit)
  const canUndo = computed(() => at.value > 0)
  const canRedo = computed(() => at.value < history.value.length - 1)
  /** Whether anything but the family's options has been changed. */
  const isEdited = computed(() => at.value > 0)

  let asked = 0
  let edits: Promise<boolean> = Promise.resolve(true)

  async function take(work: () => Promise<Setup>, replace = false): Promise<boolean> {
    problem.value = ''
    busy.value = true
    const number = ++asked
    try {
      const next = await work()
      // What was asked for meanwhile takes its place.
      if (number !== asked) return false
      history.value = [...history.value.slice(0, replace ? Math.max(0, at.value) : at.value + 1), next]
      at.value = history.value.length - 1
      keep()
      return true
    } catch (error) {
      if (number === asked) problem.value = (error as Error).message
      return false
    } finally {
      if (number === asked) busy.value = false
    }
  }

  const build = () =>
    take(
      async () =>
        need(
          await api.POST('/api/setup/families/{family}', {
            params: { path: { family: family.value } },
            body: options.value as never,
          }),
        ),
      true,
    )
  const open = (file: unknown) =>
    take(async () => need(await api.POST('/api/setup/open', { body: { file: file as never } })))
  /** One after the other: each begins with what the one before has brought. */
  const edit = (change: Edit) =>
    (edits = edits.then(() =>
      take(async () =>
        need(await api.POST('/api/setup/edit', { body: { file: current.value!.file as never, edit: change } })),
      ),
    ))
  const simulate = async (steps: Step[]) =>
    need(await api.POST('/api/setup/operate', { body: { file: current.value!.file as never, steps } }))

  function go(by: number) {
    at.value = Math.min(history.value.length - 1, Math.max(0, at.value + by))
    problem.value = ''
    keep()
  }

  function keep() {
    const draft: Draft = { file: current.value?.file, family: family.value, options: options.value }
    localStorage.setItem(draftKey, JSON.stringify(draft))
  }

  /** Takes up what was left here; false when there is nothing. */
  async function resume(): Promise<boolean> {
    try {
      const draft = JSON.parse(localStorage.getItem(draftKey) ?? 'null') as Draft | null
      if (!draft?.file) return false
      family.value = draft.family
      options.value = draft.options
      return await open(draft.file)
    } catch {
      return false
    }
  }

  function forget() {
    localStorage.removeItem(draftKey)
    history.value = []
    at.value = -1
  }

  /** @param isNew whether it must not become another version of what has its tag already */
  async function save(isNew: boolean): Promise<string | undefined> {
    problem.value = ''
    try {
      const saved = need(
        await api.POST('/api/circuits', {
          params: { query: { isNew } },
          body: JSON.stringify(current.value!.file) as never,
          bodySerializer: (b) => b as never,
          headers: { 'Content-Type': 'application/json' },
        }),
      )
      localStorage.removeItem(draftKey)
      return saved.id
    } catch (error) {
      problem.value = (error as Error).message
      return undefined
    }
  }

  return {
    current,
    circuit,
    problem,
    busy,
    family,
    options,
    canUndo,
    canRedo,
    isEdited,
    build,
    open,
    edit,
    simulate,
    go,
    resume,
    forget,
    save,
  }
}
