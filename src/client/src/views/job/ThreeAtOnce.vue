<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, need, type Entry, type Schemas } from '@/api/client'
import { amps } from '@/components/format'
import { useSettings } from '@/composables/useSettings'
import LowImpedanceTick from './LowImpedanceTick.vue'

/** Three voltages between lines, or three currents, as one set: what they say together, then three readings of the journal. */
const props = defineProps<{
  visible: boolean
  circuitId: string
  jobId: string
  /** Currents of a run that is being proved: where, and what a good circuit draws there. */
  expected?: Schemas['LineCurrent'][]
  send: (entry: Entry) => Promise<string | undefined>
}>()
const emit = defineEmits<{ close: [] }>()

const places = ref<Schemas['ThreeLinesPlaceView'][]>([])
const place = ref('')
const quantity = ref<'volts' | 'amps'>('volts')
const typed = ref(['', '', ''])
const said = ref<string[]>([])
const problem = ref('')
const sending = ref(false)
const chosen = computed(() => places.value.find((p) => p.id === place.value))
const leads = computed(() => chosen.value?.[quantity.value] ?? [])
const isFull = computed(() => typed.value.every((t) => t.trim()))
/** Some are in the journal already: what is left can follow once it is put right. */
const isBegun = ref(false)
const { lowImpedance } = useSettings()

watch(
  () => props.visible,
  async (visible) => {
    if (visible) atExpected()
    if (!visible || places.value.length) return
    try {
      places.value = need(
        await api.GET('/api/circuits/{id}/three-lines', { params: { path: { id: props.circuitId } } }),
      )
      place.value = places.value.at(-1)?.id ?? ''
      atExpected()
    } catch (error) {
      problem.value = (error as Error).message
    }
  },
  { immediate: true },
)

function atExpected() {
  const lines = props.expected
  if (!lines?.length) return
  quantity.value = 'amps'
  place.value = lines[0]!.terminal.split(':')[0]!
}

const judge = useDebounceFn(async () => {
  said.value = []
  problem.value = ''
  if (!isFull.value) return
  const answer = await api.POST('/api/circuits/{id}/three-lines/judged', {
    params: { path: { id: props.circuitId } },
    body: { quantity: quantity.value, typed: typed.value, job: props.jobId, place: place.value },
  })
  if (answer.data) said.value = answer.data
  else problem.value = (answer.error as { detail?: string }).detail ?? ''
}, 250)
watch([typed, quantity, place], judge, { deep: true })

/** One after the other; what was refused stays in its field with the reason, what is recorded leaves it. */
async function record() {
  sending.value = true
  problem.value = ''
  try {
    for (const [i, lead] of leads.value.entries()) {
      if (!typed.value[i]!.trim()) continue
      const refused = await props.send({
        type: 'readingAsTyped',
        quantity: quantity.value,
        from: lead.from,
        to: lead.to,
        held: [],
        typed: typed.value[i]!,
        meter: '',
        lowImpedance: quantity.value === 'volts' && lowImpedance.value,
      } as unknown as Entry)
      if (refused) return void (problem.value = refused)
      typed.value[i] = ''
      isBegun.value = true
    }
    isBegun.value = false
    emit('close')
  } finally {
    sending.value = false
  }
}
</script>

<template>
  <Dialog
    :visible="visible"
    modal
    header="Three lines at once"
    :style="{ width: '30rem', maxWidth: '96vw' }"
    @update:visible="emit('close')"
  >
    <form class="three" @submit.prevent="record">
      <p v-if="expected?.length" class="faint">
        With everything in order, at the usual load: {{ amps(expected) }}. An unloaded motor draws less.
      </p>
      <SelectButton
        v-else
        v-model="quantity"
        :options="[
          { label: 'V between lines', value: 'volts' },
          { label: 'A, clamp', value: 'amps' },
        ]"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        aria-label="What is measured"
      />
      <Select
        v-model="place"
        :options="places"
        option-label="label"
        option-value="id"
        aria-label="Where"
        :disabled="!!expected?.length"
        fluid
      />
      <label v-for="(lead, i) in leads" :key="i" class="line">
        <span class="figures">{{ quantity === 'amps' ? `around ${lead.from}` : `${lead.from} – ${lead.to}` }}</span>
        <InputText
          v-model="typed[i]"
          class="figures"
          inputmode="text"
          autocomplete="off"
          maxlength="20"
          :autofocus="i === 0"
          :aria-label="`Line ${i + 1}`"
        />
      </label>
      <ul v-if="said.length" class="said" aria-live="polite">
        <li v-for="sentence in said" :key="sentence">{{ sentence }}</li>
      </ul>
      <p v-if="problem" class="error" role="alert">{{ problem }}</p>
      <LowImpedanceTick v-if="quantity === 'volts'" />
      <Button
        type="submit"
        :label="isBegun ? 'Record the rest' : 'Record all three'"
        :loading="sending"
        :disabled="isBegun ? typed.every((t) => !t.trim()) : !isFull"
      />
    </form>
  </Dialog>
</template>

<style scoped>
.three {
  display: grid;
  gap: 0.7rem;
}
.line {
  display: grid;
  grid-template-columns: 1fr 9rem;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
}
.said {
  margin: 0;
  padding: 0.2rem 0 0.2rem 1.4rem;
  border-left: 6px solid var(--petrol);
}
.error {
  color: var(--live);
  font-weight: 600;
}
</style>
