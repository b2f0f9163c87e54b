<script setup lang="ts">
import { onKeyStroke, useMediaQuery, useTitle } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, need, type Entry, type Proposal, type Step } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { useJob } from '@/composables/useJob'
import { useReadingsDrawn } from '@/composables/useReadingsDrawn'
import { useLeads } from '@/composables/useLeads'
import { useSettings } from '@/composables/useSettings'
import { useInQuestion } from '@/composables/useInQuestion'
import { useTrying } from '@/composables/useTrying'
import CircuitDrawing from '@/drawing/CircuitDrawing.vue'
import { neighbour } from '@/drawing/neighbour'
import { suspicionOf } from '@/drawing/suspicionShares'
import KeysHelp from './KeysHelp.vue'
import ExerciseBar from '../practice/ExerciseBar.vue'
import JournalList from './JournalList.vue'
import NextTestCard from './NextTestCard.vue'
import StateBand from './StateBand.vue'
import SuspectList from './SuspectList.vue'
import TriedAndSeen from './TriedAndSeen.vue'
import WireDialog from './WireDialog.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const {
  job,
  circuit,
  diagnosis,
  thinking,
  sending,
  problem,
  record,
  doubt,
  correct,
  recordHere,
  waiting,
  offline,
  unsaved,
  mend,
  letGo,
} = useJob(props.id)
const reference = computed(() => circuit.value?.reference)
const { school } = useSettings()
const leads = useLeads(job, diagnosis, reference)
const { proposal, chosen, test, isOwn, moving, typing, isOvertaken } = leads
const news = computed(() => (isOvertaken.value ? (job.value?.entries.at(-1)?.text ?? '') : ''))
const band = ref<InstanceType<typeof StateBand>>()
const wire = ref('')
const help = ref(false)
/** The answer whose leavings are shown in the drawing instead of what is suspected now. */
const previewed = ref<Proposal['outcomes'][number]>()
type Panel = 'next' | 'suspects' | 'tried' | 'journal'
/** Wide enough for all regions at once; otherwise one of them stands under the drawing. */
const isWide = useMediaQuery('(min-width: 1000px)')
const panel = ref<Panel>(isWide.value ? 'journal' : 'next')
watch(isWide, (wide) => {
  if (wide && panel.value !== 'tried') panel.value = 'journal'
})
/** In an exercise without advice there are no suspects to show, and no good circuit to look up. */
const showsAdvice = computed(
  () => !job.value?.exercise || job.value.exercise.withAdvice || !!job.value.exercise.stopped,
)
const tabs = computed<{ id: Panel; label: string }[]>(() => [
  ...(isWide.value
    ? []
    : ([
        { id: 'next', label: 'Test' },
        ...(showsAdvice.value ? ([{ id: 'suspects', label: 'Suspects' }] as const) : []),
      ] as const)),
  { id: 'tried', label: 'Tried and seen' },
  { id: 'journal', label: `Journal (${job.value?.entries.length ?? 0})` },
])
useTitle(computed(() => (job.value ? `${job.value.circuitTag} ${job.value.title} · Fehler` : 'Fehler')))

const isTrying = computed(() => panel.value === 'tried' && !job.value?.isClosed)
const operate = (steps: Step[]) =>
  api.POST('/api/jobs/{id}/operate', { params: { path: { id: props.id } }, body: { steps } }).then(need)
const trying = useTrying(operate, circuit, diagnosis, () => isTrying.value)
const tried = ref<InstanceType<typeof TriedAndSeen>>()
/** What the card asked for is being tried: once it is, the drawing goes to the next test. */
const isAsked = ref(false)
/** The card asks for something to be operated: it is tried in the drawing. */
function tryProposed() {
  isAsked.value = true
  trying.ask(proposal.value)
  panel.value = 'tried'
}
function touch(tag: string) {
  if (!job.value?.isClosed && trying.touch(tag)) tried.value?.look(tag)
}

const ended = () => router.push(`/practice/${props.id}/debrief`)
const hasEvidence = computed(() => diagnosis.value && diagnosis.value.status !== 'noEvidence')
const suspicion = computed(() =>
  circuit.value && diagnosis.value && hasEvidence.value && diagnosis.value.status !== 'repaired'
    ? suspicionOf(circuit.value, diagnosis.value.units, previewed.value?.leaves)
    : {},
)
/** Every device drawn as it was seen to stand; what is written beside it is the suspicion. */
const standing = computed(() => diagnosis.value && { ...diagnosis.value.standing, seen: {} })
const inQuestion = useInQuestion(
  circuit,
  diagnosis,
  () => [test.value?.from, test.value?.to].filter((t): t is string => !!t),
  () => isTrying.value || !hasEvidence.value,
)
const lifted = computed(() => job.value?.lifted.map((l) => l.conductor) ?? [])
const readings = useReadingsDrawn(job, circuit)

async function add(entry: Entry) {
  if (entry.type !== 'operation') return void (await recordHere(entry))
  // What was seen has been said: the drawing goes to the next test again. Who plays with a simulated panel goes on playing.
  if ((await trying.hand(() => recordHere(entry))) && (!job.value?.exercise || isAsked.value)) {
    isAsked.value = false
    panel.value = isWide.value ? 'journal' : 'next'
  }
}

async function liftAll(wires: Proposal['lift']) {
  for (const wire of wires) await add({ type: 'wireLifted', conductor: wire.conductor, end: wire.end } as Entry)
}

const isInField = (event: KeyboardEvent) =>
  /^(input|textarea|select)$/i.test((event.target as HTMLElement).tagName) || !!document.querySelector('[role=dialog]')
onKeyStroke('?', (e) => {
  if (!isInField(e)) help.value = true
})
onKeyStroke(['v', 'o', 'b', 's', 't', 'j', 'n', 'c', 'l'], (e) => {
  if (isInField(e) || e.ctrlKey || e.metaKey || e.altKey) return
  const act: Record<string, () => void> = {
    v: () => leads.set({ quantity: 'volts' }),
    o: () => leads.set({ quantity: 'ohms' }),
    b: () => leads.set({ quantity: 'continuity' }),
    // Beside the drawing the suspects are in view anyway.
    s: () => (panel.value = isWide.value ? panel.value : 'suspects'),
    t: () => (panel.value = 'tried'),
    j: () => (panel.value = 'journal'),
    n: () => leads.choose((chosen.value + 1) % Math.max(1, diagnosis.value?.proposals.length ?? 1)),
    l: () => (leads.moving.value = leads.moving.value === 1 ? 2 : 1),
    c: () => void router.push(`/jobs/${props.id}/close-out`),
  }
  e.preventDefault()
  act[e.key]?.()
})
const ways = { ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'left', ArrowRight: 'right' } as const
onKeyStroke(Object.keys(ways), (e) => {
  const field = e.target instanceof HTMLInputElement ? e.target : undefined
  // In the meter's field they belong to what is typed; elsewhere to what has the focus.
  const isFree = field ? field.classList.contains('value') && !field.value : e.target === document.body
  if (!isFree || !test.value || isTrying.value || document.querySelector('[role=dialog]')) return
  const from = leads.moving.value === 1 ? test.value.from : test.value.to
  const next = neighbour(
    (inQuestion.shown.value ?? circuit.value!).sheets,
    school.value,
    from,
    ways[e.key as keyof typeof ways],
  )
  e.preventDefault()
  if (next) leads.tap(next)
})
onKeyStroke('Escape', (e) => {
  // In a field it only leaves the field.
  if (e.target instanceof HTMLInputElement) return e.target.blur()
  leads.reset()
})
defineExpose({ id: toRef(props, 'id') })
</script>

<template>
  <div v-if="job && circuit" class="bench" :class="[panel, { wide: isWide }]">
    <StateBand
      ref="band"
      :job="job"
      :circuit="circuit"
      :waiting="waiting.length"
      :offline="offline"
      :unsaved="unsaved"
      :send="record"
      @entry="add"
      @help="help = true"
    />
    <ExerciseBar v-if="job.exercise" :job="job" @ended="ended" />
    <PageProblem :text="problem" />
    <main class="regions">
      <section class="sheet drawing" aria-label="Drawing">
        <CircuitDrawing
          is-viewport
          :circuit="inQuestion.shown.value ?? circuit"
          :folding="inQuestion.state.value"
          :lead1="isTrying ? undefined : test?.from"
          :lead2="isTrying ? undefined : test?.to"
          :suspicion="isTrying ? {} : suspicion"
          :readings="readings"
          :lifted="lifted"
          :operation="isTrying && showsAdvice ? trying.now.value : standing"
          :tappable="isTrying ? 'all' : undefined"
          :attention="isTrying ? trying.buttons.value : undefined"
          @fold="inQuestion.toggle()"
          @part="touch"
          @terminal="leads.tap"
          @wire="wire = $event"
        />
        <p v-if="previewed" class="preview" role="status">
          <strong>If it shows {{ previewed.shows }}:</strong> shaded is what that would leave.
        </p>
      </section>
      <div class="tabs no-print" role="tablist" aria-label="Regions">
        <button
          v-for="t in tabs"
          :id="`tab-${t.id}`"
          :key="t.id"
          role="tab"
          :aria-selected="panel === t.id"
          :aria-controls="`panel-${t.id}`"
          @click="panel = t.id"
        >
          {{ t.label }}
        </button>
      </div>
      <div v-if="isWide || panel === 'next' || panel === 'suspects'" class="right">
        <NextTestCard
          v-if="!job.isClosed && (isWide || panel === 'next')"
          id="panel-next"
          class="card"
          :job="job"
          :circuit="circuit"
          :proposal="proposal"
          :others="diagnosis?.proposals ?? []"
          :chosen="chosen"
          :test="test"
          :is-own="isOwn"
          :moving="moving"
          :thinking="thinking"
          :found="diagnosis?.status === 'found' ? diagnosis.summary : ''"
          :send="record"
          :doubt="doubt"
          :sending="sending"
          :news="news"
          @typing="typing = $event"
          @close-out="router.push(`/jobs/${id}/close-out`)"
          @entry="add"
          @state="band?.ask($event)"
          @lift="liftAll"
          @preview="previewed = $event"
          @tried="tryProposed"
          @moving="moving = $event"
          @set="leads.set"
          @choose="leads.choose"
          @reset="leads.reset"
        />
        <div v-if="isWide || panel === 'suspects'" id="panel-suspects" class="suspects">
          <SuspectList
            v-if="diagnosis && hasEvidence"
            :diagnosis="diagnosis"
            @meter="add({ type: 'meterChecked', good: $event, meter: '' } as Entry)"
          />
          <section v-else class="sheet empty">
            <p v-if="!diagnosis">Working out the suspects of this circuit…</p>
            <p v-else>{{ diagnosis.summary }}</p>
            <Button v-if="!job.isClosed" label="Say what was tried and seen" @click="panel = 'tried'" />
          </section>
        </div>
      </div>
      <div
        v-if="panel === 'tried' || panel === 'journal'"
        :id="`panel-${panel}`"
        class="below"
        role="tabpanel"
        :aria-labelledby="`tab-${panel}`"
      >
        <TriedAndSeen
          v-if="panel === 'tried'"
          ref="tried"
          :job="job"
          :circuit="circuit"
          :steps="trying.steps.value"
          :before="trying.before.value"
          :now="trying.now.value"
          :watched="trying.watched.value"
          :problem="trying.problem.value"
          @entry="add"
          @wait="trying.wait"
          @undo="trying.stand"
        />
        <JournalList
          v-else
          :job="job"
          :waiting="waiting"
          @entry="add"
          @mend="(w, entry, label) => void mend(w, entry, label)"
          @let-go="letGo"
        />
      </div>
    </main>
    <WireDialog
      :correct="correct"
      :wire="wire"
      :circuit="circuit"
      :job="job"
      :moving="moving"
      @close="wire = ''"
      @terminal="(t) => (leads.tap(t), (wire = ''))"
      @entry="add"
    />
    <KeysHelp v-model:visible="help" :moving="moving" />
  </div>
  <main v-else class="page">
    <PageProblem :text="problem" />
    <p v-if="!problem">Opening the job…</p>
  </main>
</template>

<style scoped>
.page {
  padding: 1rem;
}
/* The job fills the window: the page never scrolls, its regions do. */
.bench {
  height: 100dvh;
  display: flex;
  flex-direction: column;
  overflow: hidden;
}
.regions {
  flex: 1;
  min-height: 0;
  display: grid;
  gap: 0.6rem;
  padding: 0.6rem;
}
.wide .regions {
  grid-template-columns: minmax(0, 1fr) minmax(21rem, 24rem);
  grid-template-rows: minmax(0, 1fr) auto minmax(6rem, 19%);
  grid-template-areas: 'drawing right' 'tabs right' 'below right';
}
.wide.tried .regions {
  grid-template-rows: minmax(0, 1fr) auto minmax(7rem, 34%);
}
.right {
  grid-area: right;
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  min-height: 0;
}
.card {
  flex: 0 1 auto;
  min-height: 50%;
}
.suspects {
  flex: 1 1 38%;
}
.drawing {
  grid-area: drawing;
  position: relative;
  min-height: 0;
  padding: 0.4rem;
}
.card,
.suspects,
.below {
  overflow: auto;
  min-height: 0;
  overscroll-behavior: contain;
}
.below {
  grid-area: below;
}
.tabs {
  grid-area: tabs;
}
.preview {
  position: absolute;
  left: 0.6rem;
  top: 0.4rem;
  margin: 0;
  background: var(--sheet);
  border-left: 6px solid var(--petrol);
  padding: 0.2rem 0.6rem;
}
.tabs {
  display: flex;
}
.tabs button {
  flex: 1;
  border: 0;
  border-bottom: 3px solid var(--line);
  background: transparent;
  font: 600 1rem 'Barlow Semi Condensed';
  color: var(--ink);
  cursor: pointer;
}
.tabs button[aria-selected='true'] {
  border-color: var(--petrol);
  color: var(--petrol);
}
.empty {
  padding: 0.8rem;
}
.bench:not(.wide) .regions {
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(0, 36%) minmax(0, 1fr) auto;
  grid-template-areas: 'drawing' 'below' 'tabs';
  gap: 0.4rem;
  padding: 0.4rem;
}
.bench:not(.wide) .right {
  grid-area: below;
}
.bench:not(.wide) .card {
  flex: 1;
}
.bench:not(.wide) .tabs button {
  min-height: 52px;
  border-bottom: 0;
  border-top: 3px solid var(--line);
}
@media print {
  .bench,
  .regions {
    display: block;
    height: auto;
    overflow: visible;
  }
}
</style>
