<script setup lang="ts">
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import { computed, ref } from 'vue'
import type { Circuit, Entry, Job, Proposal, Quantity, SafetyStep, Step } from '@/api/client'
import type { Typing } from '@/composables/useLeads'
import { useSettings } from '@/composables/useSettings'
import AnswerPreview from './AnswerPreview.vue'
import LeadButtons from './LeadButtons.vue'
import MakeshiftList from './MakeshiftList.vue'
import MeterCheck from './MeterCheck.vue'
import ReadingField from './ReadingField.vue'
import ThreeAtOnce from './ThreeAtOnce.vue'
import WithoutList from './WithoutList.vue'

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
  /** Records an entry; returns why it was refused, or nothing. */
  send: (entry: Entry) => Promise<string | undefined>
  doubt: (entry: Entry) => Promise<string | undefined>
  /** Something is on its way: nothing is recorded twice. */
  sending: boolean
  /** What another screen recorded while something was typed here; empty for nothing. */
  news: string
}>()
const emit = defineEmits<{
  entry: [entry: Entry]
  state: [what: SafetyStep]
  moving: [lead: 1 | 2]
  set: [change: Partial<{ from: string; to: string; quantity: Quantity; held: Step[] }>]
  choose: [index: number]
  reset: []
  closeOut: []
  tried: []
  lift: [wires: Proposal['lift']]
  preview: [outcome?: Proposal['outcomes'][number]]
  typing: [typing: Typing]
}>()

const { without } = useSettings()
const isThree = ref(false)
const setting = computed(() => props.job.meter.find((m) => m.quantity === props.test?.quantity))

/** The safety step that comes first, as the service says. */
const first = computed<SafetyStep | undefined>(() =>
  props.isOwn
    ? props.test && (props.job.before[props.test.quantity] as SafetyStep | undefined)
    : (props.proposal?.first ?? undefined),
)
const firstWords = {
  isolate: 'First: isolate and lock off',
  proveDead: 'First: prove dead',
  switchOn: 'First: switch on again',
  liveTests: 'First: agree to live tests',
}

/** Wires to lift before the proposed reading; mark them, and count them when they go back. */
const lift = computed(() => (props.isOwn ? [] : (props.proposal?.lift ?? [])))
const sameStep = (a: Step, b: Step) => a.device === b.device && a.position === b.position
const isHeld = (step: Step) => props.test?.held.some((h) => sameStep(h, step)) ?? false
const heldWords = computed(() =>
  props.isOwn
    ? props.job.holdable
        .filter((h) => isHeld(h.steps[0]!))
        .map((h) => h.label)
        .join(', then ')
    : (props.proposal?.heldWords ?? ''),
)

function toggle(step: Step) {
  emit('set', {
    held: isHeld(step) ? props.test!.held.filter((h) => h.device !== step.device) : [...(props.test?.held ?? []), step],
  })
}

function answer(value: string) {
  emit('entry', { type: 'look', device: props.proposal!.device, look: props.proposal!.look, answer: value } as Entry)
}

/** What the simulated meter showed last, or what was heard. */
const metered = computed(() => {
  const last = props.job.exercise ? props.job.entries.at(-1) : undefined
  return last?.entry.type === 'reading' ? last.text : (props.job.exercise?.heard ?? '')
})

/** What it shows where the likeliest of those is at fault that show something else than a good circuit does. */
const otherwise = computed(() => {
  const other = props.proposal?.outcomes.find((o) => !o.isGood && o.leaves.some((l) => l.unit && l.probability > 0.2))
  const units = other?.leaves.filter((l) => l.unit && l.probability > 0.2).map((l) => l.unit)
  return other && units ? `${other.shows} if it is ${units.join(' or ')}` : ''
})
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

    <p v-if="news" class="news" role="status">
      Another screen recorded “{{ news }}”. This test stays until your reading is recorded or cleared.
    </p>
    <template v-if="found && !isOwn">
      <p class="good">{{ found }}</p>
      <Button label="Repair and close out" icon="pi pi-check-square" @click="emit('closeOut')" />
      <p v-if="proposal" class="faint">To be surer still:</p>
    </template>
    <p v-else-if="!proposal && !isOwn" class="faint">
      {{
        job.exercise && !job.exercise.withAdvice
          ? 'Tap a terminal in the drawing to put a lead on it; operate and look under “Tried and seen”.'
          : thinking
            ? 'Working it out…'
            : `No test on offer tells more${without.length ? ' with what is left out' : ''}. Tap a terminal to measure something else.`
      }}
    </p>

    <template v-if="test">
      <SelectButton
        :model-value="test.quantity"
        :options="job.meter"
        option-label="label"
        option-value="quantity"
        :allow-empty="false"
        aria-label="Meter setting"
        @update:model-value="emit('set', { quantity: $event })"
      />
      <LeadButtons
        :circuit="circuit"
        :from="test.from"
        :to="test.to"
        :is-clamp="setting?.isClamp ?? false"
        :moving="moving"
        @moving="emit('moving', $event)"
      />
      <p v-if="heldWords" class="held"><i class="pi pi-arrow-down" aria-hidden="true" /> with {{ heldWords }}</p>
      <details v-if="isOwn">
        <summary>Something held meanwhile?</summary>
        <label v-for="h in job.holdable" :key="h.label" class="holdable">
          <input type="checkbox" :checked="isHeld(h.steps[0]!)" @change="toggle(h.steps[0]!)" /> {{ h.label }}
        </label>
      </details>
    </template>
    <h3 v-else-if="proposal">{{ proposal.title }}</h3>

    <p v-if="!isOwn && proposal?.before" class="again">
      <i class="pi pi-replay" aria-hidden="true" /> {{ proposal.why }}
    </p>
    <p v-if="!isOwn && proposal" class="good">
      Good: <strong class="figures">{{ proposal.good }}</strong>
      <span v-if="otherwise" class="otherwise">· {{ otherwise }}</span>
    </p>
    <ul v-if="!isOwn && proposal?.cautions.length" class="cautions">
      <li v-for="caution in proposal.cautions" :key="caution">
        <i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ caution }}
      </li>
    </ul>

    <Button
      v-if="first && (test || proposal)"
      :label="firstWords[first]"
      icon="pi pi-arrow-right"
      class="first"
      @click="emit('state', first)"
    />
    <Button
      v-else-if="lift.length"
      :label="
        lift.length === 1
          ? `First: lift the wire ${lift[0]!.wire} to ${lift[0]!.far} off ${lift[0]!.end}`
          : `First: lift ${lift.map((l) => `${l.wire} off ${l.end}`).join(', ')}`
      "
      icon="pi pi-arrow-right"
      class="first"
      @click="emit('lift', lift)"
    />
    <ReadingField
      v-else-if="test"
      :test="test"
      :touches="setting?.touches ?? []"
      :lifted="job.lifted"
      :send="send"
      :doubt="doubt"
      :is-simulated="!!job.exercise"
      @typing="emit('typing', $event)"
    />
    <p v-if="metered" class="metered figures" role="status">{{ metered }}</p>
    <Button
      v-if="!first && !test && proposal?.kind === 'look' && job.exercise"
      label="Look"
      icon="pi pi-eye"
      class="first"
      :disabled="sending"
      @click="answer('not sure')"
    />
    <div v-else-if="!first && !lift.length && !test && proposal?.kind === 'look'" class="touches">
      <Button
        v-for="a in [...proposal.answers, 'not sure']"
        :key="a"
        :label="a"
        severity="secondary"
        variant="outlined"
        :disabled="sending"
        @click="answer(a)"
      />
    </div>
    <Button
      v-else-if="!first && !lift.length && !test && proposal?.kind === 'operation'"
      label="Done: say what was seen"
      icon="pi pi-eye"
      class="first"
      @click="emit('tried')"
    />

    <AnswerPreview v-if="!isOwn && proposal" :proposal="proposal" @preview="emit('preview', $event)" />
    <div class="row more">
      <Button
        v-if="!job.before.volts && !job.isClosed && !job.exercise"
        label="Three lines at once"
        icon="pi pi-align-justify"
        text
        size="small"
        @click="isThree = true"
      />
      <router-link
        v-if="job.mayTouch"
        class="by-itself"
        :to="{ path: `/circuits/${job.circuitId}`, query: { tab: 'bench', job: job.id } }"
        >Test a device by itself</router-link
      >
      <router-link v-if="job.mayTouch" class="by-itself" :to="{ path: '/set-up/terminals', query: { job: job.id } }"
        >A device without marks</router-link
      >
    </div>
    <ThreeAtOnce
      :visible="isThree"
      :circuit-id="job.circuitId"
      :job-id="job.id"
      :send="send"
      @close="isThree = false"
    />
    <WithoutList />
    <MakeshiftList :job="job" :sending="sending" @entry="emit('entry', $event)" />
    <MeterCheck @entry="emit('entry', $event)" />
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
.otherwise {
  margin-left: 0.3rem;
  color: var(--faint);
}
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
/* Said by shape and words as well. */
.news {
  border-left: 6px solid var(--doubt);
  padding: 0.2rem 0.6rem;
}
.metered {
  font-size: 1.3rem;
  font-weight: 600;
}
.held {
  font-weight: 600;
}
.good {
  font-size: 1.05rem;
}
.touches {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.touches :deep(.p-button) {
  min-width: 64px;
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
.card :deep(summary) {
  cursor: pointer;
  padding: 0.6rem 0;
  color: var(--petrol);
}
.by-itself {
  padding: 0.7rem;
}
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
