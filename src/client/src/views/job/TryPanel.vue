<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed, ref, watch } from 'vue'
import type { Circuit, Entry, Schemas, Step } from '@/api/client'

/**
 * What was tried on the parts in the drawing, what a good circuit would do now, and what it did: one touch when it did so. What nobody
 * looked at stays unsaid.
 */
const props = defineProps<{
  circuit: Circuit
  /** What has been operated since the last entry. */
  steps: Step[]
  /** The good circuit before and after that. */
  before?: Schemas['OperationView']
  now?: Schemas['OperationView']
  /** What the next test asks to be looked at: it tells the suspects apart. */
  watched: string[]
  problem: string
  disabled: boolean
  /** The panel is simulated: it is operated, and what it does is seen. */
  isSimulated?: boolean
  /** What was seen of it last; empty for nothing. */
  seenLast?: string
}>()
const emit = defineEmits<{ entry: [entry: Entry]; wait: [seconds: number]; undo: [] }>()

/** What was seen otherwise than a good circuit shows, what was looked at beside what changes; empty for what nobody looked at. */
const instead = ref<Record<string, string>>({})
const choosing = ref('')
// Not when a diagnosis comes late and says anew how it stands: what was chosen meanwhile was seen.
watch(
  () => JSON.stringify(props.steps),
  () => (instead.value = {}),
)

const deviceOf = (tag: string) => props.circuit.devices.find((d) => d.tag === tag)
const named = (tag: string) => [deviceOf(tag)?.function || deviceOf(tag)?.term, tag].filter(Boolean).join(' ')
const changed = computed(() =>
  Object.keys(props.now?.seen ?? {}).filter((t) => props.now!.seen[t] !== props.before?.seen[t]),
)
/** What everybody sees, whether it does something new or not. */
const motors = computed(() => props.circuit.devices.filter((d) => d.appearances.includes('runs')).map((d) => d.tag))
const shown = computed(() => [
  ...new Set([...changed.value, ...props.watched, ...motors.value, ...Object.keys(instead.value)]),
])
const good = (tag: string) => props.now?.seen[tag] ?? ''
const said = (tag: string) => instead.value[tag] ?? good(tag)
const differs = (tag: string) => !!said(tag) && said(tag) !== good(tag)
const isOtherwise = computed(() => shown.value.some(differs))
const doing = computed(() =>
  props.steps
    .map((s) => (s.device ? `${named(s.device)} ${s.position}` : `waited ${Number(s.seconds)} s`))
    .join(', then '),
)

function record(seen: Record<string, string>, allAlong = false) {
  emit('entry', { type: 'operation', steps: props.steps, seen, allAlong } as Entry)
}

const looked = computed(() => shown.value.filter((t) => said(t)))
const soItDid = () => record(Object.fromEntries(looked.value.map((t) => [t, said(t)])))
const nothing = () => record(Object.fromEntries(looked.value.map((t) => [t, props.before!.seen[t]!])), true)

/** A part that was touched to say what it does. */
function look(tag: string) {
  if (!props.isSimulated && deviceOf(tag)?.appearances.length) choosing.value = tag
}

function choose(appearance: string) {
  instead.value = { ...instead.value, [choosing.value]: appearance }
  choosing.value = ''
}

defineExpose({ look })
</script>

<template>
  <div class="try">
    <p v-if="!steps.length" class="faint">
      Touch a part in the drawing: a button is held until it is touched again, a lamp or a motor is asked what it does.
    </p>
    <p v-else>
      <strong>{{ doing }}</strong>
    </p>
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <p v-if="seenLast && !steps.length" class="figures seen-last" role="status">{{ seenLast }}</p>
    <div v-if="!isSimulated && now && (shown.length || steps.length)" class="answer" aria-live="polite">
      <span>{{
        steps.length ? (changed.length ? 'A good circuit now:' : 'A good circuit does nothing new:') : 'As it stands:'
      }}</span>
      <button
        v-for="tag in shown"
        :key="tag"
        type="button"
        class="chip"
        :class="{ differs: differs(tag), unsaid: !said(tag) }"
        :data-seen="tag"
        :disabled="disabled"
        @click="choosing = tag"
      >
        {{ tag }} {{ said(tag) || 'not looked at' }}<small v-if="differs(tag)"> (good: {{ good(tag) }})</small>
      </button>
    </div>
    <div class="row">
      <Button
        v-if="isSimulated"
        :label="steps.length ? 'Do it' : 'See how it stands'"
        icon="pi pi-play"
        :disabled="disabled"
        @click="record({})"
      />
      <Button
        v-if="!isSimulated && looked.length"
        :label="isOtherwise ? 'Record what it did' : steps.length ? 'So it did' : 'So it stands'"
        icon="pi pi-check"
        :disabled="disabled"
        @click="soItDid"
      />
      <Button
        v-if="!isSimulated && steps.length && changed.length && !isOtherwise"
        label="Nothing happened"
        severity="secondary"
        variant="outlined"
        :disabled="disabled"
        @click="nothing"
      />
      <Button v-if="steps.length" label="Take back" icon="pi pi-undo" text :disabled="disabled" @click="emit('undo')" />
      <span class="waits">
        Wait
        <Button
          v-for="[label, seconds] in [
            ['10 s', 10],
            ['1 min', 60],
            ['5 min', 300],
          ] as const"
          :key="seconds"
          :label="label"
          :aria-label="`Wait ${label}`"
          severity="secondary"
          variant="outlined"
          size="small"
          :disabled="disabled"
          @click="emit('wait', seconds)"
        />
      </span>
    </div>
    <Dialog
      :visible="!!choosing"
      modal
      :header="`${named(choosing)}: what does it do?`"
      :style="{ width: '24rem', maxWidth: '95vw' }"
      @update:visible="choosing = ''"
    >
      <div class="choices">
        <Button
          v-for="a in deviceOf(choosing)?.appearances ?? []"
          :key="a"
          :label="a === good(choosing) ? `${a} (good)` : a"
          :data-appearance="a"
          severity="secondary"
          :variant="a === said(choosing) ? undefined : 'outlined'"
          @click="choose(a)"
        />
        <Button label="Nobody looked at it" data-appearance="" text @click="choose('')" />
      </div>
    </Dialog>
  </div>
</template>

<style scoped>
.try {
  display: grid;
  gap: 0.4rem;
}
.seen-last {
  font-weight: 600;
}
.answer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.chip {
  border: 2px solid var(--petrol);
  border-radius: 3px;
  padding: 0 0.7rem;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
.chip.differs {
  border-color: var(--doubt);
  border-style: dashed;
  font-weight: 600;
}
.chip.unsaid {
  border-color: var(--line);
  color: var(--faint);
}
.waits {
  display: flex;
  gap: 0.3rem;
  align-items: center;
  margin-left: auto;
}
.choices {
  display: grid;
  gap: 0.4rem;
}
.problem {
  color: var(--live);
}
</style>
