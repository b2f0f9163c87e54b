<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, ref, watch } from 'vue'
import type { Circuit, Entry, Job } from '@/api/client'

const props = defineProps<{
  job: Job
  circuit: Circuit
  /** A trial that is proposed: it is offered first and taken as what was done. */
  proposed?: Trial
}>()
const emit = defineEmits<{ entry: [entry: Entry] }>()

type Trial = Circuit['trials'][number]

const named = (d: Circuit['devices'][number]) => `${d.function || d.term} ${d.tag}`

const trials = computed<Trial[]>(() => [...(props.proposed ? [props.proposed] : []), ...props.circuit.trials])
const trial = ref<Trial>()
watch(
  () => props.proposed,
  (proposed) => (trial.value = proposed),
  { immediate: true },
)
const seen = ref<Record<string, string>>({})
const visible = computed(() => props.circuit.devices.filter((d) => d.appearances.length > 0))
const aboutIt = computed(() => props.circuit.circumstances.filter((c) => !c.atDevice))
const aboutDevice = computed(() => props.circuit.circumstances.filter((c) => c.atDevice))
const device = ref<Circuit['devices'][number]>()
const tell = (what: string, at = '') => emit('entry', { type: 'told', what, device: at } as Entry)
const looks = computed(() => props.circuit.devices.flatMap((d) => d.looks.map((l) => ({ device: d.tag, ...l }))))

function record() {
  emit('entry', {
    type: 'operation',
    steps: trial.value!.steps,
    seen: Object.fromEntries(Object.entries(seen.value).filter(([, v]) => v)),
  } as Entry)
  trial.value = undefined
  seen.value = {}
}
</script>

<template>
  <section class="sheet panel" aria-label="Tried and seen">
    <h2>Tried and seen</h2>
    <label for="trial">What was done</label>
    <Select
      id="trial"
      v-model="trial"
      input-id="trial"
      :options="trials"
      option-label="label"
      placeholder="Press, let go, wait…"
      class="wide"
      :disabled="job.isClosed"
    />
    <template v-if="trial">
      <div v-for="d in visible" :key="d.tag" class="seen">
        <span :id="`seen-${d.tag}`">{{ named(d) }}</span>
        <SelectButton v-model="seen[d.tag]" :options="d.appearances" :aria-labelledby="`seen-${d.tag}`" size="small" />
      </div>
      <p class="faint">Leave out what nobody looked at.</p>
      <Button label="Record what happened" :disabled="Object.values(seen).every((v) => !v)" @click="record" />
    </template>
    <h3>What people say</h3>
    <div class="row">
      <Button
        v-for="c in aboutIt"
        :key="c.what"
        :label="c.text"
        size="small"
        severity="secondary"
        variant="outlined"
        :disabled="job.isClosed"
        @click="tell(c.what)"
      />
    </div>
    <div class="row">
      <Select
        v-model="device"
        :options="visible"
        :option-label="named"
        placeholder="One of the devices…"
        aria-label="Device that something is said about"
        :disabled="job.isClosed"
      />
      <Button
        v-for="c in aboutDevice"
        :key="c.what"
        :label="c.text"
        size="small"
        severity="secondary"
        variant="outlined"
        :disabled="job.isClosed || !device"
        @click="tell(c.what, device!.tag)"
      />
    </div>
    <h3>Look first, hands out</h3>
    <div v-for="look in looks" :key="look.device + look.id" class="seen">
      <span>{{ look.question }}<span v-if="look.deadOnly" class="faint"> (isolated)</span></span>
      <div class="row">
        <Button
          v-for="a in look.answers"
          :key="a"
          :label="a"
          size="small"
          severity="secondary"
          variant="outlined"
          :disabled="job.isClosed"
          @click="emit('entry', { type: 'look', device: look.device, look: look.id, answer: a } as Entry)"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.panel {
  padding: 0.8rem;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.5rem;
}
.wide {
  width: 100%;
}
.seen {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0.3rem 0.8rem;
  border-top: 1px solid var(--line);
  padding: 0.25rem 0;
}
/* A motor may be seen in seven ways: they wrap. */
.seen :deep(.p-selectbutton) {
  flex-wrap: wrap;
}
</style>
