<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { computed, nextTick, ref, watch } from 'vue'
import type { Circuit, Entry, Job, Proposal, Quantity, Step } from '@/api/client'
import { isAmps, isLive, parseReading } from '@/composables/reading'
import { useSettings } from '@/composables/useSettings'

const props = defineProps<{
  job: Job
  circuit: Circuit
  proposal?: Proposal
  others: Proposal[]
  chosen: number
  test?: { from: string; to: string; quantity: Quantity; held: Step[] }
  isOwn: boolean
  moving: 1 | 2
  thinking: boolean
  /** What was found and proved; empty while searching. */
  found: string
}>()
const emit = defineEmits<{
  entry: [entry: Entry]
  state: [what: 'isolate' | 'prove' | 'energise' | 'live']
  moving: [lead: 1 | 2]
  set: [change: Partial<{ from: string; to: string; quantity: Quantity; held: Step[] }>]
  choose: [index: number]
  reset: []
  closeOut: []
  tried: []
  lift: [wires: Proposal['lift']]
  preview: [outcome?: Proposal['outcomes'][number]]
}>()

const { without } = useSettings()
const kinds = [
  { value: 'live', label: 'No live tests: isolated work only' },
  { value: 'isolating', label: 'It cannot be switched off' },
  { value: 'operating', label: 'Nothing may be started or stopped' },
  { value: 'field', label: 'Only what is in the panel' },
  { value: 'clamp', label: 'No clamp meter' },
  { value: 'insulationTester', label: 'No insulation tester' },
  { value: 'lifting', label: 'No wires lifted' },
]
const text = ref('')
const error = ref('')
const input = ref<{ $el: HTMLInputElement }>()
const quantities = [
  { label: 'V~', value: 'volts', aria: 'volts' },
  { label: 'V=', value: 'dcVolts', aria: 'volts DC' },
  { label: 'Ω', value: 'ohms', aria: 'ohms' },
  { label: 'beep', value: 'continuity', aria: 'continuity' },
  { label: 'A~', value: 'amps', aria: 'amps by clamp' },
  { label: 'A start', value: 'startingAmps', aria: 'starting amps by clamp' },
  { label: 'MΩ', value: 'insulation', aria: 'insulation at 500 V' },
]

const touches = computed(
  () =>
    ({
      volts: ['0', 'full', 'stray'],
      dcVolts: ['0', 'full', 'stray'],
      ohms: ['0', 'OL', 'stray'],
      continuity: ['beep', 'no beep'],
      amps: ['0'],
      startingAmps: ['0'],
      insulation: ['0', 'OL'],
    })[props.test?.quantity ?? 'volts'],
)
const device = (tag: string) => props.circuit.devices.find((d) => d.tag === tag)
const placeOf = (terminal: string) =>
  props.circuit.locations.find((l) => l.id === device(terminal.slice(0, terminal.lastIndexOf(':')))?.location)?.name ??
  ''
const wireAt = (terminal: string) =>
  props.circuit.conductors.find((c) => c.from === terminal || c.to === terminal)?.wire ?? '–'
const heldWords = (step: Step) => {
  const d = device(step.device)
  return step.position === 'in'
    ? `armature of ${step.device} pressed in by hand`
    : `${d?.function || d?.term} ${step.device} ${step.position}`
}

/** What has to be done before the leads go on. */
const before = computed<'' | 'isolate' | 'prove' | 'energise' | 'live'>(() => {
  const wantsDead =
    props.isOwn || props.proposal?.kind === 'reading'
      ? props.test !== undefined && !isLive(props.test.quantity)
      : props.proposal?.change === 'isolate'
  const state = props.job.liveness
  if (wantsDead) return state === 'provedDead' ? '' : state === 'isolatedNotProved' ? 'prove' : 'isolate'
  if (!props.isOwn && props.proposal?.change === 'energise') return 'energise'
  return props.proposal?.kind !== 'look' && !props.job.isIsolated && !props.job.liveAcknowledged ? 'live' : ''
})
const beforeWords = {
  isolate: 'First: isolate and lock off',
  prove: 'First: prove dead',
  energise: 'First: switch on again',
  live: 'First: agree to live tests',
  '': '',
}

/** Wires to lift before the proposed reading; mark them, and count them when they go back. */
const lift = computed(() => (props.isOwn ? [] : (props.proposal?.lift ?? [])))
const holdable = computed(() =>
  props.circuit.devices.flatMap((d) =>
    d.actuations
      .filter((a) => a.returns && (!a.deadOnly || props.job.liveness === 'provedDead'))
      .map((a) => ({
        label: heldWords({ device: d.tag, position: a.position, seconds: 0 }),
        step: { device: d.tag, position: a.position, seconds: 0 },
      })),
  ),
)
const isHeld = (step: Step) =>
  props.test?.held.some((h) => h.device === step.device && h.position === step.position) ?? false

function checkedMeter(good: boolean) {
  emit('entry', { type: 'meterChecked', good, meter: '' } as Entry)
}

function toggle(step: Step) {
  emit('set', {
    held: isHeld(step) ? props.test!.held.filter((h) => h.device !== step.device) : [...(props.test?.held ?? []), step],
  })
}

function record(shown = text.value) {
  error.value = ''
  if (!props.test?.from || !props.test.to) {
    error.value = 'Put both leads on: tap a terminal in the drawing.'
    return
  }
  const value = parseReading(shown, props.test.quantity)
  if (typeof value === 'string') {
    error.value = value
    return
  }
  emit('entry', {
    type: 'reading',
    quantity: props.test.quantity,
    from: props.test.from,
    to: props.test.to,
    held: props.test.held,
    value,
    meter: '',
  } as Entry)
  text.value = ''
}

const previewed = ref<number>()

/** Shows in the drawing what an answer would leave; touched again, what is suspected now. */
function preview(index?: number) {
  previewed.value = previewed.value === index ? undefined : index
  emit('preview', previewed.value === undefined ? undefined : props.proposal?.outcomes[previewed.value])
}

watch(
  () => props.proposal,
  () => {
    if (previewed.value !== undefined) preview(previewed.value)
  },
)

function answer(value: string) {
  emit('entry', { type: 'look', device: props.proposal!.device, look: props.proposal!.look, answer: value } as Entry)
}

watch(
  () => [props.test?.from, props.test?.to, props.test?.quantity],
  () => {
    error.value = ''
    text.value = ''
    void nextTick(() => {
      if (window.matchMedia('(pointer: fine)').matches && !document.querySelector('[role=dialog]'))
        input.value?.$el?.focus?.()
    })
  },
)
</script>

<template>
  <section
    class="sheet card"
    aria-label="Next test"
    :aria-busy="thinking"
    :data-held="JSON.stringify(test?.held ?? [])"
    :data-quantity="test?.quantity"
    :data-look="proposal?.kind === 'look' && !isOwn ? `${proposal.device}/${proposal.look}` : undefined"
  >
    <div class="head">
      <h2>{{ isOwn ? 'Your own reading' : found ? 'Found' : proposal?.isProof ? 'Proof' : 'Next' }}</h2>
      <span v-if="!isOwn && proposal" class="faint figures"
        >{{ chosen + 1 }} of {{ others.length }} · about {{ proposal.minutes.toFixed(1) }} min</span
      >
      <Button
        v-if="isOwn && others.length"
        label="Back to the proposed test"
        text
        size="small"
        @click="emit('reset')"
      />
    </div>

    <template v-if="found && !isOwn">
      <p class="good">{{ found }}</p>
      <Button label="Repair and close out" icon="pi pi-check-square" @click="emit('closeOut')" />
      <p v-if="proposal" class="faint">To be surer still:</p>
    </template>
    <p v-else-if="!proposal && !isOwn" class="faint">
      {{
        thinking
          ? 'Working it out…'
          : `No test on offer tells more${without.length ? ' with what is left out' : ''}. Tap a terminal to measure something else.`
      }}
    </p>

    <template v-if="test">
      <SelectButton
        :model-value="test.quantity"
        :options="quantities"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        aria-label="Meter setting"
        @update:model-value="emit('set', { quantity: $event })"
      />
      <div class="leads">
        <button
          v-for="lead in isAmps(test.quantity) ? ([1] as const) : ([1, 2] as const)"
          :key="lead"
          type="button"
          class="lead"
          :class="{ moving: moving === lead }"
          :aria-pressed="moving === lead"
          :title="`Tap terminals to move lead ${lead}`"
          @click="emit('moving', lead)"
        >
          <span class="pin" :class="`pin-${lead}`">{{ lead }}</span>
          <strong>{{ (lead === 1 ? test.from : test.to) || 'tap a terminal' }}</strong>
          <span v-if="lead === 1 ? test.from : test.to" class="faint"
            >wire {{ wireAt(lead === 1 ? test.from : test.to) }} · {{ placeOf(lead === 1 ? test.from : test.to) }}</span
          >
        </button>
      </div>
      <p v-if="test.held.length" class="held">
        <i class="pi pi-arrow-down" aria-hidden="true" /> with {{ test.held.map(heldWords).join(', then ') }}
      </p>
      <details v-if="isOwn">
        <summary>Something held meanwhile?</summary>
        <label v-for="h in holdable" :key="h.label" class="holdable">
          <input type="checkbox" :checked="isHeld(h.step)" @change="toggle(h.step)" /> {{ h.label }}
        </label>
      </details>
    </template>
    <h3 v-else-if="proposal">{{ proposal.title }}</h3>

    <p v-if="!isOwn && proposal" class="good">
      Good: <strong class="figures">{{ proposal.good }}</strong>
    </p>
    <ul v-if="!isOwn && proposal?.cautions.length" class="cautions">
      <li v-for="caution in proposal.cautions" :key="caution">
        <i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ caution }}
      </li>
    </ul>

    <Button
      v-if="before !== '' && (test || proposal)"
      :label="beforeWords[before]"
      icon="pi pi-arrow-right"
      class="first"
      @click="emit('state', before)"
    />
    <Button
      v-else-if="lift.length"
      :label="`First: lift ${lift.map((l) => `${l.wire} off ${l.end}`).join(', ')}`"
      icon="pi pi-arrow-right"
      class="first"
      @click="emit('lift', lift)"
    />
    <template v-else-if="test">
      <form class="entry" @submit.prevent="record()">
        <InputText
          ref="input"
          v-model="text"
          class="figures value"
          :invalid="!!error"
          inputmode="text"
          autocomplete="off"
          aria-label="What the meter shows"
          placeholder="meter shows…"
        />
        <Button type="submit" label="Record" />
      </form>
      <div class="touches">
        <Button
          v-for="touch in [...touches, 'not sure']"
          :key="touch"
          :label="touch"
          severity="secondary"
          variant="outlined"
          @click="record(touch)"
        />
      </div>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
    </template>
    <div v-else-if="proposal?.kind === 'look'" class="touches">
      <Button
        v-for="a in [...proposal.answers, 'not sure']"
        :key="a"
        :label="a"
        severity="secondary"
        variant="outlined"
        @click="answer(a)"
      />
    </div>
    <Button
      v-else-if="proposal?.kind === 'operation'"
      label="Done: say what was seen"
      icon="pi pi-eye"
      class="first"
      @click="emit('tried')"
    />

    <details v-if="!isOwn && proposal" class="why">
      <summary>Why this, and what each answer would leave</summary>
      <p>{{ proposal.why }}</p>
      <p class="faint">Touch an answer to see in the drawing what it would leave.</p>
      <button
        v-for="(outcome, i) in proposal.outcomes"
        :key="outcome.shows"
        type="button"
        class="outcome figures"
        :aria-pressed="previewed === i"
        @click="preview(i)"
      >
        <strong>{{ outcome.shows }}</strong> ({{ Math.round(outcome.probability * 100) }} %) leaves
        {{ outcome.leaves.map((l) => `${l.unit || 'nothing wrong'} ${Math.round(l.probability * 100)} %`).join(', ') }}
      </button>
    </details>
    <details class="without">
      <summary>
        What cannot be done now<template v-if="without.length"> ({{ without.length }} left out)</template>
      </summary>
      <label v-for="kind in kinds" :key="kind.value" class="holdable">
        <input v-model="without" type="checkbox" :value="kind.value" /> {{ kind.label }}
      </label>
    </details>
    <details class="without">
      <summary>The meter</summary>
      <p>Tried on a known source, leads against each other, unit and setting read again:</p>
      <div class="touches">
        <Button label="Meter is good" severity="secondary" variant="outlined" @click="checkedMeter(true)" />
        <Button label="Meter was wrong" severity="secondary" variant="outlined" @click="checkedMeter(false)" />
      </div>
      <p class="faint">Wrong: its readings since the check before stay in the journal and no longer count.</p>
    </details>
    <details v-if="others.length > 1">
      <summary>Other tests ({{ others.length - 1 }})</summary>
      <button
        v-for="(p, i) in others"
        :key="p.title"
        type="button"
        class="other"
        :aria-pressed="i === chosen && !isOwn"
        @click="emit('choose', i)"
      >
        {{ p.title }} <span class="faint figures">{{ p.minutes.toFixed(1) }} min, {{ p.bits.toFixed(2) }} bit</span>
      </button>
    </details>
  </section>
</template>

<style scoped>
.card {
  padding: 0.8rem;
  border-left: 6px solid var(--petrol);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.55rem;
}
.head {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
  justify-content: space-between;
}
.leads {
  display: grid;
  gap: 0.35rem;
}
.lead {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  padding: 0.3rem 0.5rem;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: transparent;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
}
.lead strong {
  font: 600 1.15rem 'Barlow Semi Condensed';
}
.lead.moving {
  border: 2px dashed var(--petrol);
}
.pin {
  display: inline-grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border-radius: 50%;
  color: var(--sheet);
  font-weight: 600;
  flex: none;
}
.pin-1 {
  background: var(--lead-1);
}
.pin-2 {
  background: var(--lead-2);
}
.held {
  font-weight: 600;
}
.good {
  font-size: 1.05rem;
}
.entry {
  display: flex;
  gap: 0.5rem;
}
.value {
  flex: 1;
  min-width: 0;
  font-size: 1.5rem;
  min-height: 52px;
}
.touches {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.touches :deep(.p-button) {
  min-width: 64px;
}
.error {
  color: var(--live);
  font-weight: 600;
}
.cautions {
  list-style: none;
  padding: 0;
  margin: 0;
  font-size: 0.92rem;
}
.cautions .pi {
  color: var(--doubt);
}
summary {
  cursor: pointer;
  padding: 0.6rem 0;
  color: var(--petrol);
}
details ul {
  margin: 0;
  padding-left: 1.1rem;
}
.outcome[aria-pressed='true'] {
  outline: 2px solid var(--petrol);
}
.outcome,
.other,
.holdable {
  display: block;
  width: 100%;
  min-height: 44px;
  padding: 0.4rem;
  border: 0;
  border-top: 1px solid var(--line);
  background: transparent;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.other[aria-pressed='true'] {
  font-weight: 600;
}
</style>
