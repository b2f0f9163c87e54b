<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import Textarea from 'primevue/textarea'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Entry, type Schemas } from '@/api/client'
import FollowUps from '@/components/FollowUps.vue'
import PageProblem from '@/components/PageProblem.vue'
import RepairGuide from '@/components/RepairGuide.vue'
import { percent } from '@/components/format'
import { useJob } from '@/composables/useJob'
import StateBand from '@/views/job/StateBand.vue'
import FunctionTestList from './FunctionTestList.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const {
  job,
  circuit,
  diagnosis,
  problem,
  record: send,
  recordHere: record,
  waiting,
  offline,
  unsaved,
} = useJob(props.id)
useTitle(computed(() => `Close out ${job.value?.circuitTag ?? ''} ${job.value?.title ?? ''} · Fehler`))
const band = ref<InstanceType<typeof StateBand>>()

const unit = ref('')
const text = ref('')
const action = ref('')
const parts = ref('')
const minutes = ref<number | null>(null)
const cause = ref('')
const notIsolated = ref('')
const closing = ref<Schemas['CloseOutcome']>('repairedAndProved')
const closingText = ref('')
const down = ref<number | null>(null)
const outcomes = [
  { label: 'Repaired and proved', value: 'repairedAndProved' },
  { label: 'Nothing found', value: 'nothingFound' },
  { label: 'Handed over', value: 'handedOver' },
]

const units = computed(() => [
  ...(circuit.value?.devices ?? [])
    .filter((d) => d.terminals.length > 0 || d.looks.length > 0)
    .map((d) => ({ label: `${d.tag} ${d.term}`, value: d.tag })),
  ...(circuit.value?.conductors ?? []).map((c) => ({
    label: `wire ${c.wire} from ${c.from} to ${c.to} (${c.id})`,
    value: c.id,
  })),
])
const rows = computed(() => job.value?.entries.filter((e) => !e.struck) ?? [])
const finding = computed(() => rows.value.filter((e) => e.entry.type === 'finding').at(-1))
const repairs = computed(() => rows.value.filter((e) => e.entry.type === 'repair'))
/** Suspects that are worth a touch, the likeliest first. */
const suspects = computed(() =>
  (diagnosis.value?.units ?? [])
    .filter((u) => u.unit)
    .flatMap((u) => u.suspects.filter((s) => s.fault && s.probability > 0.02).map((s) => ({ unit: u.unit, ...s })))
    .slice(0, 4),
)
/** The fault that the finding is of: it stays attached whatever is typed, until another unit is chosen. */
const fault = ref('')
function take(suspect: { unit: string; fault: string; title: string; remedy: string }) {
  unit.value = suspect.unit
  fault.value = suspect.fault
  text.value = suspect.title
  action.value = suspect.remedy
}

// The leading suspect is the suggestion; what is typed stays.
watch(diagnosis, (d) => {
  const top = d?.units.find((u) => u.unit)
  if (top?.suspects[0] && !unit.value && repairs.value.length === 0 && top.probability > 0.5)
    take({ unit: top.unit, ...top.suspects[0] })
})
watch(unit, (now) => {
  if (fault.value && !suspects.value.some((s) => s.unit === now && s.fault === fault.value)) fault.value = ''
})

const used = computed(() =>
  parts.value
    .split(',')
    .map((p) => p.trim())
    .filter(Boolean),
)
/** What the guide names, then what was used here before for units like this. */
const usedBefore = ref<string[]>([])
const likely = computed(() => [...new Set([...(diagnosis.value?.guide?.parts ?? []), ...usedBefore.value])].slice(0, 8))
watch(
  unit,
  async (now) => {
    // Without it parts are typed.
    const answer = await api.GET('/api/jobs/parts', { params: { query: { unit: now } } }).catch(() => undefined)
    usedBefore.value = answer?.data ?? []
  },
  { immediate: true },
)
const use = (part: string) =>
  (parts.value = (used.value.includes(part) ? used.value.filter((p) => p !== part) : [...used.value, part]).join(', '))

const recordFinding = () => record({ type: 'finding', unit: unit.value, fault: fault.value, text: text.value } as Entry)

const mayRecord = computed(
  () => !!unit.value && !!action.value.trim() && (!job.value?.repairedLive.length || !!notIsolated.value.trim()),
)
async function recordRepair() {
  await record({
    type: 'repair',
    unit: unit.value,
    action: action.value,
    parts: used.value,
    minutes: minutes.value ?? 0,
    cause: cause.value,
    notIsolated: job.value?.repairedLive.length ? notIsolated.value : '',
  } as Entry)
}

async function close() {
  if (
    await record({
      type: 'closed',
      outcome: closing.value,
      text: closingText.value,
      minutesDown: down.value ?? 0,
    } as Entry)
  )
    await router.push(`/jobs/${props.id}`)
}
</script>

<template>
  <div v-if="job && circuit">
    <StateBand
      ref="band"
      :job="job"
      :circuit="circuit"
      :waiting="waiting.length"
      :offline="offline"
      :unsaved="unsaved"
      :send="send"
      @entry="record"
    />
    <main class="page">
      <h1>
        <RouterLink :to="`/jobs/${id}`">{{ job.circuitTag }} {{ job.circuitTitle }}</RouterLink
        >: repair and close out
      </h1>
      <PageProblem :text="problem" />
      <p v-if="job.isClosed" class="sheet block">
        <strong>This job is closed.</strong>
        {{
          rows
            .filter((e) => e.entry.type === 'closed')
            .map((e) => e.text)
            .join(' ')
        }}
        <RouterLink :to="`/jobs/${id}/report`">Read or print the report</RouterLink>
      </p>
      <template v-else>
        <section class="sheet block">
          <h2>1 Found</h2>
          <p v-if="finding" class="done"><i class="pi pi-check" aria-hidden="true" /> {{ finding.text }}</p>
          <div v-if="suspects.length" class="row suspects" role="group" aria-label="Suspects">
            <button
              v-for="s in suspects"
              :key="s.unit + s.fault"
              type="button"
              class="touch"
              :aria-pressed="fault === s.fault && unit === s.unit"
              @click="take(s)"
            >
              {{ s.title }} <span class="faint figures">{{ percent(s.probability) }}</span>
            </button>
          </div>
          <div class="form">
            <label for="unit">Unit</label>
            <Select
              v-model="unit"
              input-id="unit"
              :options="units"
              option-label="label"
              option-value="value"
              filter
              placeholder="Device or conductor"
            />
            <label for="text">What was wrong</label>
            <InputText id="text" v-model="text" maxlength="300" />
            <Button label="Record the finding" :disabled="!unit || !text.trim()" @click="recordFinding" />
          </div>
        </section>
        <section class="sheet block">
          <h2>2 Repaired</h2>
          <p v-for="r in repairs" :key="r.entry.id" class="done">
            <i class="pi pi-check" aria-hidden="true" /> {{ r.text }}
          </p>
          <p v-if="diagnosis?.askWhy" class="faint">{{ diagnosis.askWhy }}</p>
          <details v-if="diagnosis?.guide && repairs.length === 0" open>
            <summary>How {{ diagnosis.units.find((u) => u.unit)?.unit }} is repaired</summary>
            <RepairGuide :guide="diagnosis.guide" @cause="cause = $event" />
          </details>
          <div class="form">
            <label for="action">What was done</label>
            <Textarea id="action" v-model="action" rows="2" maxlength="500" />
            <label for="parts">Parts used, separated by commas</label>
            <InputText id="parts" v-model="parts" placeholder="none" maxlength="300" />
            <div v-if="likely.length" class="row" role="group" aria-label="Parts that are likely">
              <button
                v-for="part in likely"
                :key="part"
                type="button"
                class="touch"
                :aria-pressed="used.includes(part)"
                @click="use(part)"
              >
                {{ part }}
              </button>
            </div>
            <div v-if="job.repairedLive.length" class="live" role="note">
              <strong><i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ job.state }}</strong>
              <p>Hands go into a panel that is isolated and proved dead.</p>
              <Button
                v-for="step in job.possible.filter((s) => s.step === 'isolate' || s.step === 'proveDead')"
                :key="step.step"
                :label="`${step.title}…`"
                @click="band?.ask(step.step)"
              />
              <label for="not-isolated">Or why this work did not need it</label>
              <InputText id="not-isolated" v-model="notIsolated" maxlength="300" />
              <div class="row" role="group" aria-label="Usual reasons">
                <button
                  v-for="reason in job.repairedLive"
                  :key="reason"
                  type="button"
                  class="touch"
                  :aria-pressed="notIsolated === reason"
                  @click="notIsolated = notIsolated === reason ? '' : reason"
                >
                  {{ reason }}
                </button>
              </div>
            </div>
            <label for="cause">Cause, if known</label>
            <InputText id="cause" v-model="cause" placeholder="vibration, water, wear…" maxlength="300" />
            <label for="minutes">Minutes of work</label>
            <InputNumber v-model="minutes" input-id="minutes" :min="0" :max="10000" suffix=" min" />
            <Button label="Record the repair" :disabled="!mayRecord" @click="recordRepair" />
          </div>
        </section>
        <section class="sheet block">
          <h2>3 Restored</h2>
          <p v-if="job.lifted.length === 0" class="done">
            <i class="pi pi-check" aria-hidden="true" /> No wire is recorded as lifted.
          </p>
          <div v-for="l in job.lifted" :key="l.conductor" class="row">
            <strong>{{ l.conductor }} is lifted at {{ l.end }}</strong>
            <Button label="Landed and tight" @click="record({ type: 'wireLanded', conductor: l.conductor } as Entry)" />
          </div>
          <div v-for="item in job.restore" :key="item.id" class="row item">
            <span :class="{ done: item.done }"
              ><i v-if="item.done" class="pi pi-check" aria-hidden="true" /> {{ item.text }}</span
            >
            <Button
              v-if="!item.done"
              label="Confirm"
              size="small"
              variant="outlined"
              :aria-label="`Confirm: ${item.text}`"
              @click="record({ type: 'restored', item: item.id } as Entry)"
            />
          </div>
        </section>
        <section class="sheet block">
          <h2>4 Function test</h2>
          <FunctionTestList :job="job" :circuit="circuit" :send="send" @entry="record" @state="band?.ask($event)" />
        </section>
        <section class="sheet block">
          <h2>5 Still to do on {{ circuit.tag }}</h2>
          <FollowUps :circuit="job.circuitId" :job="job.id" />
        </section>
        <section class="sheet block">
          <h2>6 Close</h2>
          <div class="form">
            <span id="outcome">Outcome</span>
            <SelectButton
              v-model="closing"
              :options="outcomes"
              option-label="label"
              option-value="value"
              :allow-empty="false"
              aria-labelledby="outcome"
            />
            <label for="closing-text">{{
              closing === 'repairedAndProved'
                ? 'Remark'
                : closing === 'handedOver'
                  ? 'To whom, and what is still to do'
                  : 'Why without a proved repair'
            }}</label>
            <InputText id="closing-text" v-model="closingText" maxlength="500" />
            <label for="down">Minutes down</label>
            <InputNumber v-model="down" input-id="down" :min="0" :max="100000" suffix=" min" />
            <Button label="Close the job" icon="pi pi-lock" @click="close" />
          </div>
          <div v-if="job.leftovers.length" class="left" role="status">
            <strong>Left as it stands now:</strong>
            <ul>
              <li v-for="l in job.leftovers" :key="l">{{ l }}</li>
            </ul>
            Only a hand-over closes a job like this; it is then said in red on the circuit's page.
          </div>
          <p class="faint">“Found nothing” is not “repaired”: intermittent faults come back.</p>
        </section>
      </template>
    </main>
  </div>
  <main v-else class="page">
    <PageProblem :text="problem" />
    <p v-if="!problem">Opening the job…</p>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem 3rem;
  max-width: 900px;
  margin: 0 auto;
  display: grid;
  gap: 0.8rem;
}
.block {
  padding: 0.9rem;
}
.form {
  display: grid;
  grid-template-columns: minmax(8rem, 13rem) minmax(0, 1fr);
  gap: 0.5rem 0.8rem;
  align-items: center;
}
.live {
  grid-column: 1 / -1;
  border-left: 6px solid var(--live);
  padding: 0.5rem 0.8rem;
  display: grid;
  gap: 0.5rem;
  justify-items: start;
}
.live strong {
  color: var(--live);
}
.live p {
  margin: 0;
}
.form > .row {
  grid-column: 2;
}
.form > .p-button {
  grid-column: 2;
  justify-self: start;
}
.form :deep(.p-select),
.form :deep(.p-inputtext) {
  min-height: 44px;
  min-width: 0;
  width: 100%;
}
.done {
  color: var(--petrol);
}
.item {
  justify-content: space-between;
  border-top: 1px solid var(--line);
  padding: 0.25rem 0;
  flex-wrap: nowrap;
}
.suspects {
  margin-bottom: 0.5rem;
}
.left {
  border-left: 6px solid var(--live);
  padding: 0.4rem 0.8rem;
  margin: 0.6rem 0;
}
.left ul {
  margin: 0.2rem 0;
  padding-left: 1.2rem;
}
@media (max-width: 600px) {
  .page {
    padding: 0.5rem;
  }
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
  .form > .row,
  .form > .p-button {
    grid-column: 1;
  }
}
</style>
