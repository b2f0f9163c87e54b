<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import type { Circuit, Entry, Job, Schemas, Step } from '@/api/client'
import TryPanel from './TryPanel.vue'

const props = defineProps<{
  job: Job
  circuit: Circuit
  steps: Step[]
  before?: Schemas['OperationView']
  now?: Schemas['OperationView']
  watched: string[]
  problem: string
}>()
const emit = defineEmits<{ entry: [entry: Entry]; wait: [seconds: number]; undo: [] }>()

const named = (d: Circuit['devices'][number]) => `${d.function || d.term} ${d.tag}`
const visible = computed(() => props.circuit.devices.filter((d) => d.appearances.length > 0))
const aboutIt = computed(() => props.circuit.circumstances.filter((c) => !c.atDevice))
const aboutDevice = computed(() => props.circuit.circumstances.filter((c) => c.atDevice))
const device = ref<Circuit['devices'][number]>()
const tell = (what: string, at = '') => emit('entry', { type: 'told', what, device: at } as Entry)
const looks = computed(() => props.circuit.devices.flatMap((d) => d.looks.map((l) => ({ device: d.tag, ...l }))))

/** On a simulated panel: what was seen last, and what each look showed. */
const seenLast = computed(() => {
  const last = props.job.entries.at(-1)
  return props.job.exercise && last?.entry.type === 'operation' ? last.text : ''
})
const answers = computed(() =>
  Object.fromEntries(
    props.job.entries.flatMap(({ entry }) =>
      entry.type === 'look' ? [[`${entry.device}/${entry.look}`, entry.answer]] : [],
    ),
  ),
)

const trying = ref<InstanceType<typeof TryPanel>>()
defineExpose({ look: (tag: string) => trying.value?.look(tag) })
</script>

<template>
  <section class="sheet panel" aria-label="Tried and seen">
    <h2>Tried and seen</h2>
    <TryPanel
      ref="trying"
      :circuit="circuit"
      :steps="steps"
      :before="before"
      :now="now"
      :watched="watched"
      :problem="problem"
      :disabled="job.isClosed"
      :is-simulated="!!job.exercise"
      :seen-last="seenLast"
      @entry="emit('entry', $event)"
      @wait="emit('wait', $event)"
      @undo="emit('undo')"
    />
    <template v-if="!job.exercise">
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
    </template>
    <h3>Look first, hands out</h3>
    <div v-for="look in looks" :key="look.device + look.id" class="seen">
      <span>{{ look.question }}<span v-if="look.deadOnly" class="faint"> (isolated and proved dead)</span></span>
      <div class="row">
        <template v-if="job.exercise">
          <strong v-if="answers[`${look.device}/${look.id}`]">{{ answers[`${look.device}/${look.id}`] }}</strong>
          <Button
            label="Look"
            size="small"
            severity="secondary"
            variant="outlined"
            :aria-label="`Look: ${look.question}`"
            :disabled="job.isClosed || (look.deadOnly && !job.mayTouch)"
            @click="emit('entry', { type: 'look', device: look.device, look: look.id, answer: 'not sure' } as Entry)"
          />
        </template>
        <Button
          v-for="a in job.exercise ? [] : look.answers"
          :key="a"
          :label="a"
          size="small"
          severity="secondary"
          variant="outlined"
          :disabled="job.isClosed || (look.deadOnly && !job.mayTouch)"
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
.seen {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0.3rem 0.8rem;
  border-top: 1px solid var(--line);
  padding: 0.25rem 0;
}
</style>
