import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { api, type Circuit, type Diagnosis } from '@/api/client'

/** What is suspected less than this is not worth a place in the drawing. */
const leastShare = 0.02
/** From here on a drawing no longer stands in its window as a whole. */
const manyColumns = 9

/**
 * The path in question: the drawing with every branch folded that neither a living suspect nor the test touches. Off for small drawings, until
 * somebody asks for it; the whole drawing stands until the folded one is there.
 */
export function useInQuestion(
  circuit: Ref<Circuit | undefined>,
  diagnosis: Ref<Diagnosis | undefined>,
  asked: () => string[],
  isAllNeeded: () => boolean,
) {
  const wished = ref<boolean>()
  const isLarge = computed(() =>
    circuit.value?.sheets.some((s) => Math.max(0, ...s.parts.map((p) => p.column)) > manyColumns),
  )
  const units = computed(
    () => diagnosis.value?.units.filter((u) => u.unit && u.probability > leastShare).map((u) => u.unit) ?? [],
  )
  const isPossible = computed(() => !isAllNeeded() && units.value.length > 0)
  const isFolded = computed(() => isPossible.value && (wished.value ?? isLarge.value ?? false))
  const sheets = shallowRef<{ of: Circuit; sheets: Circuit['sheets'] }>()

  const fetch = useDebounceFn(async () => {
    const of = circuit.value
    if (!of || !isFolded.value) return
    const answer = await api
      .GET('/api/circuits/{id}/in-question', {
        params: { path: { id: of.id }, query: { unit: units.value, at: asked(), version: of.version } },
      })
      .catch(() => undefined)
    if (answer?.data && of === circuit.value) sheets.value = { of, sheets: answer.data }
  }, 120)
  watch([circuit, isFolded, units, asked], fetch, { immediate: true })

  /** The circuit as it is drawn now. */
  const shown = computed(() =>
    circuit.value && isFolded.value && sheets.value?.of === circuit.value
      ? { ...circuit.value, sheets: sheets.value.sheets }
      : circuit.value,
  )
  const state = computed(() => (!isPossible.value ? undefined : isFolded.value ? 'folded' : 'open'))
  return { shown, state, toggle: () => (wished.value = !isFolded.value) }
}
