<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import type { Circuit, Entry, Schemas } from '@/api/client'

/** A safety step: what to know, what to measure, what to confirm. What it needs the service says; it is refused here, beside the button. */
const props = defineProps<{
  procedure?: Schemas['SafetyProcedure']
  circuit: Circuit
  send: (entry: Entry) => Promise<string | undefined>
  /** The panel is simulated: the tester shows nothing at every point once it is isolated. */
  isSimulated?: boolean
}>()
const emit = defineEmits<{ close: [] }>()

const ticks = ref<string[]>([])
const typed = ref<Record<string, string>>({})
const refused = ref('')
const sending = ref(false)
const keyOf = (p: Schemas['ProvingPoint']) => `${p.from}|${p.to}`
watch(
  () => props.procedure?.step,
  () => {
    ticks.value = []
    typed.value = {}
    refused.value = ''
  },
)
const table = computed(() => (props.isSimulated ? [] : (props.procedure?.table ?? [])))
const open = computed(() => [
  ...table.value.filter((p) => !typed.value[keyOf(p)]?.trim()).map((p) => p.text),
  ...(props.procedure?.checklist ?? []).filter((c) => !ticks.value.includes(c)),
])

async function confirm() {
  const readings = table.value.map((p) => ({ from: p.from, to: p.to, typed: typed.value[keyOf(p)]!.trim() }))
  const entries = {
    liveTests: { type: 'liveWorkAcknowledged' },
    isolate: { type: 'isolated', points: props.circuit.isolationPoints },
    proveDead: { type: 'provedDead', detectorCheckedBefore: true, detectorCheckedAfter: true, readings },
    switchOn: { type: 'energised' },
  }
  sending.value = true
  try {
    const step = props.procedure!.step!
    const answer = (await props.send(entries[step] as Entry)) ?? ''
    // Somebody quick has asked for the next step meanwhile: that one stays.
    if (props.procedure?.step !== step) return
    refused.value = answer
    if (!answer) emit('close')
  } finally {
    sending.value = false
  }
}
</script>

<template>
  <Dialog
    :visible="!!procedure"
    modal
    :header="procedure?.title"
    :style="{ width: '38rem', maxWidth: '96vw' }"
    @update:visible="emit('close')"
  >
    <form v-if="procedure" class="procedure" @submit.prevent="confirm">
      <p v-for="note in procedure.notes" :key="note">{{ note }}</p>
      <label v-for="item in procedure.checklist.slice(0, table.length ? 1 : undefined)" :key="item" class="tick">
        <Checkbox v-model="ticks" :value="item" size="large" /> <span>{{ item }}</span>
      </label>
      <ol v-if="table.length" class="table">
        <li v-for="point in table" :key="keyOf(point)">
          <div class="point">
            <span class="what">
              {{ point.text }} <span class="faint">(good: {{ point.good }})</span>
            </span>
            <Button
              v-if="point.quantity === 'volts'"
              label="0 V"
              type="button"
              severity="secondary"
              variant="outlined"
              :aria-label="`0 V: ${point.text}`"
              @click="typed[keyOf(point)] = '0'"
            />
            <InputText
              v-model="typed[keyOf(point)]"
              class="figures"
              inputmode="text"
              autocomplete="off"
              maxlength="40"
              :data-dead="point.quantity"
              :placeholder="point.quantity === 'volts' ? 'V' : 'Ω'"
              :aria-label="`Measured: ${point.text}`"
            />
          </div>
        </li>
      </ol>
      <label v-for="item in table.length ? procedure.checklist.slice(1) : []" :key="item" class="tick">
        <Checkbox v-model="ticks" :value="item" size="large" /> <span>{{ item }}</span>
      </label>
      <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
      <p v-else-if="table.length && open.length && open.length < 4" class="faint">Still open: {{ open.join('; ') }}.</p>
      <Button type="submit" :label="procedure.confirm" :disabled="open.length > 0" :loading="sending" />
    </form>
  </Dialog>
</template>

<style scoped>
.procedure {
  display: grid;
  gap: 0.4rem;
}
.tick {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  min-height: 48px;
}
.table {
  margin: 0;
  padding-left: 1.5rem;
}
.table li {
  border-top: 1px solid var(--line);
  padding: 0.15rem 0;
}
.table li::marker {
  color: var(--faint);
}
.point {
  display: grid;
  grid-template-columns: 1fr auto 6rem;
  gap: 0.4rem;
  align-items: center;
}
.point .p-inputtext {
  width: 6rem;
  grid-column: 3;
}
.refused {
  color: var(--live);
  font-weight: 600;
}
@media (max-width: 500px) {
  .point {
    grid-template-columns: auto 6rem 1fr;
  }
  .what {
    grid-column: 1 / -1;
  }
  .point .p-inputtext {
    grid-column: 2;
  }
}
</style>
