<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import type { Circuit, Entry, Job, SafetyStep, Schemas } from '@/api/client'
import { amps } from '@/components/format'
import ThreeAtOnce from '@/views/job/ThreeAtOnce.vue'
import FailedStep from './FailedStep.vue'
import TripTime from './TripTime.vue'

/** The function test, step by step: what to do, what a good circuit shows, one touch for each; the currents of each run beside it. */
const props = defineProps<{ job: Job; circuit: Circuit; send: (entry: Entry) => Promise<string | undefined> }>()
const emit = defineEmits<{ entry: [entry: Entry]; state: [step: SafetyStep] }>()

const next = computed(() => props.job.functionTest.find((s) => s.passed !== true))
const failed = computed(() => props.job.functionTest.find((s) => s.passed === false))
const failing = ref<Schemas['FunctionTestStep']>()
const expected = (step: Schemas['FunctionTestStep']) =>
  Object.entries(step.expected)
    .map(([tag, what]) => `${tag} ${what}`)
    .join(', ')
const doing = (steps: Schemas['Step'][]) =>
  steps.map((s) => (s.device ? `${s.device} ${s.position}` : `wait ${s.seconds} s`)).join(', then ')
const passed = (step: string) => emit('entry', { type: 'functionTested', step, passed: true, seen: {} } as Entry)

/** The last step passed left it running so: now its currents can be taken. */
const runsNow = computed(() => {
  const steps = props.job.functionTest
  const last = steps[(next.value ? steps.indexOf(next.value) : steps.length) - 1]
  return last?.passed && last.step.currents?.length ? last : undefined
})
/** What has to come before a clamp; the set of three opens by itself once that is done. */
const before = computed(() => props.job.before.amps as SafetyStep | undefined)
const isWished = ref(false)
const isThree = computed(() => isWished.value && !before.value && !!runsNow.value)
function takeCurrents() {
  isWished.value = true
  if (before.value) emit('state', before.value)
}
watch(
  () => runsNow.value?.step.id,
  () => (isWished.value = false),
)
</script>

<template>
  <p class="faint">
    Control first with the motor isolated where that can be done, then the motor. Stand clear; agree with the operator.
  </p>
  <div v-if="job.isIsolated" class="row">
    <span>The circuit is isolated.</span>
    <Button label="Switch on…" @click="emit('state', 'switchOn')" />
  </div>
  <ol v-else>
    <li v-for="s in job.functionTest" :key="s.step.id" :class="{ current: s === next }">
      <div>
        <strong>{{ s.step.title }}</strong>
        <div class="faint">
          <template v-if="s.step.before.length">First {{ doing(s.step.before) }}. </template>Do:
          {{ doing(s.step.steps) }}. Expect: {{ expected(s.step)
          }}<template v-if="s.step.currents?.length">; {{ amps(s.step.currents) }} at its usual load</template>
        </div>
        <div v-if="s.step.caution" class="caution">
          <i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ s.step.caution }}
        </div>
      </div>
      <TripTime
        v-if="s.step.tripOf && !job.isIsolated && !job.exercise"
        :job="job"
        :device="s.step.tripOf"
        :send="send"
      />
      <div class="row verdict">
        <span v-if="s.passed === true" class="done"><i class="pi pi-check" aria-hidden="true" /> as expected</span>
        <span v-if="s.passed === false" class="failed"
          ><i class="pi pi-times" aria-hidden="true" /> not as expected</span
        >
        <Button
          v-if="s === runsNow && !job.exercise"
          label="Currents of the three lines…"
          severity="secondary"
          variant="outlined"
          @click="takeCurrents"
        />
        <template v-if="s === next">
          <Button label="As expected" @click="passed(s.step.id)" />
          <Button label="Not" severity="secondary" variant="outlined" @click="failing = s.step" />
        </template>
      </div>
    </li>
  </ol>
  <p v-if="failed" class="left" role="status">
    It does not work yet: what was seen counts as evidence, with everything known so far.
    <RouterLink :to="`/jobs/${job.id}`">Go on searching</RouterLink>
  </p>
  <p v-if="!next" class="done"><i class="pi pi-check" aria-hidden="true" /> Function test complete.</p>
  <ThreeAtOnce
    :visible="isThree"
    :circuit-id="job.circuitId"
    :job-id="job.id"
    :expected="runsNow?.step.currents"
    :send="send"
    @close="isWished = false"
  />
  <FailedStep :step="failing" :circuit="circuit" @entry="emit('entry', $event)" @close="failing = undefined" />
</template>

<style scoped>
ol {
  padding-left: 1.6rem;
  margin: 0;
}
li {
  border-top: 1px solid var(--line);
  padding: 0.4rem 0;
}
li.current {
  background: color-mix(in srgb, var(--petrol) 9%, transparent);
}
.verdict {
  margin-top: 0.3rem;
}
.done {
  color: var(--petrol);
}
.failed {
  color: var(--live);
  font-weight: 600;
}
.left {
  border-left: 6px solid var(--live);
  padding: 0.4rem 0.8rem;
  margin: 0.6rem 0;
}
.caution {
  color: var(--doubt);
}
</style>
