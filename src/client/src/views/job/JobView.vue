<script setup lang="ts">
import { onKeyStroke, useMediaQuery, useTitle } from '@vueuse/core'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, need, type Entry, type Proposal, type Schemas, type Step } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { useJob } from '@/composables/useJob'
import { useLeads } from '@/composables/useLeads'
import { useOperation } from '@/composables/useOperation'
import CircuitDrawing from '@/drawing/CircuitDrawing.vue'
import WireRoute from '@/views/circuit/WireRoute.vue'
import JournalList from './JournalList.vue'
import NextTestCard from './NextTestCard.vue'
import StateBand from './StateBand.vue'
import SuspectList from './SuspectList.vue'
import TriedAndSeen from './TriedAndSeen.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const { job, circuit, diagnosis, thinking, problem, record, recordHere, waiting, offline, unsaved, mend, letGo } =
  useJob(props.id)
const reference = computed(() => circuit.value?.reference)
const leads = useLeads(job, diagnosis, reference)
const { proposal, chosen, test, isOwn, moving } = leads
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
const tabs = computed<{ id: Panel; label: string }[]>(() => [
  ...(isWide.value
    ? []
    : ([
        { id: 'next', label: 'Test' },
        { id: 'suspects', label: 'Suspects' },
      ] as const)),
  { id: 'tried', label: 'Tried and seen' },
  { id: 'journal', label: `Journal (${job.value?.entries.length ?? 0})` },
])
useTitle(computed(() => (job.value ? `${job.value.circuitTag} ${job.value.title} · Fehler` : 'Fehler')))

/** What is tried in the drawing while that region is open: a good circuit goes on from how this one was seen to stand. */
const operate = (steps: Step[]) =>
  api.POST('/api/jobs/{id}/operate', { params: { path: { id: props.id } }, body: { steps } }).then(need)
const trying = useOperation(() => circuit.value, operate)
const standing = ref<Schemas['OperationView']>()
const tried = ref<InstanceType<typeof TriedAndSeen>>()
const isTrying = computed(() => panel.value === 'tried' && !job.value?.isClosed)
async function stand() {
  await trying.start()
  standing.value = trying.operation.value
}
watch([isTrying, () => diagnosis.value?.sequence], async ([on], [was]) => {
  if (!on) return
  // What another screen recorded meanwhile does not take back what is being tried here.
  const begun = was ? trying.steps.value : []
  await stand()
  if (begun.length) await trying.run(begun)
  else if (proposal.value?.kind === 'operation' && !isOwn.value && proposal.value.steps.length)
    await trying.run(proposal.value.steps)
})

/** The buttons that are asked for, or the first of them: what is touched is in the window. */
const buttons = computed(() => {
  const asked = proposal.value?.kind === 'operation' && !isOwn.value ? proposal.value.steps.map((s) => s.device) : []
  const tags = asked.filter(Boolean).length
    ? asked
    : circuit.value!.devices.filter((d) => d.actuations.some((a) => a.returns && !a.deadOnly)).map((d) => d.tag)
  const first = [...new Set(tags)].slice(0, 3)
  return circuit.value!.sheets.flatMap((s) =>
    s.parts.filter((p) => first.includes(p.device)).flatMap((p) => p.terminals.map((t) => t.terminal)),
  )
})

function touch(tag: string) {
  const device = circuit.value?.devices.find((d) => d.tag === tag)
  if (!device || job.value?.isClosed) return
  if (circuit.value!.isolationPoints.includes(tag))
    trying.problem.value = `${tag} isolates the circuit: that is a step of its own, in the band above.`
  else if (device.actuations.some((a) => !a.deadOnly)) void trying.tap(tag)
  else tried.value?.look(tag)
}

const drawn = computed(
  () =>
    new Set<string>(circuit.value?.sheets.flatMap((s) => s.parts.flatMap((p) => p.terminals.map((t) => t.terminal)))),
)
type Unit = NonNullable<typeof diagnosis.value>['units'][number]

/** Where in the drawing a unit's share stands: on the parts that its suspects are in, as far as they are drawn. */
function shades(unit: Unit, share: number): [string, number][] {
  if (unit.term === 'conductor') return [[unit.unit, share]]
  const sum = unit.suspects.reduce((total, s) => total + s.probability, 0)
  return unit.suspects.map((s) => [
    s.points.length && (s.points as string[]).every((p) => drawn.value.has(p)) ? s.points.join(' ') : `${unit.unit}:`,
    (share * s.probability) / Math.max(sum, 1e-9),
  ])
}

const suspicion = computed(() => {
  const shares: Record<string, number> = {}
  const d = diagnosis.value
  if (!d || d.status === 'noEvidence' || d.status === 'repaired') return shares
  const left = previewed.value
    ? previewed.value.leaves.map((l) => ({ unit: d.units.find((u) => u.unit === l.unit), share: l.probability }))
    : d.units.map((unit) => ({ unit, share: unit.probability }))
  for (const { unit, share } of left)
    if (unit?.unit) for (const [at, part] of shades(unit, share)) shares[at] = (shares[at] ?? 0) + part
  return shares
})
const lifted = computed(() => job.value?.lifted.map((l) => l.conductor) ?? [])
/** The latest reading at each terminal against the return, as the drawing shows it. */
const readings = computed(() => {
  const latest = new Map<string, string>()
  for (const row of job.value?.entries ?? [])
    if (!row.struck && row.entry.type === 'reading' && row.entry.to === reference.value)
      latest.set(row.entry.from, row.shown)
  return [...latest].map(([terminal, text]) => ({ terminal, text }))
})
const wireConductors = computed(() => circuit.value?.conductors.filter((c) => c.wire === wire.value) ?? [])
const wireEnds = computed(() => [...new Set(wireConductors.value.flatMap((c) => [c.from, c.to]))])
const hasEvidence = computed(() => diagnosis.value && diagnosis.value.status !== 'noEvidence')

async function add(entry: Entry) {
  const begun = trying.steps.value
  if (entry.type === 'operation') trying.steps.value = []
  if (!(await recordHere(entry))) {
    if (entry.type === 'operation' && begun.length) await trying.run(begun)
    return
  }
  // What was seen has been said: under the drawing stands the next test again.
  if (!isWide.value && entry.type === 'operation') panel.value = 'next'
}

function lift(conductor: string, end: string) {
  void add({ type: 'wireLifted', conductor, end } as Entry)
}

async function liftAll(wires: Proposal['lift']) {
  for (const wire of wires) await add({ type: 'wireLifted', conductor: wire.conductor, end: wire.end } as Entry)
}

function tighten(terminal: string, wasLoose: boolean) {
  void add({ type: 'tightened', terminal, wasLoose } as Entry)
}

function land(conductor: string) {
  void add({ type: 'wireLanded', conductor } as Entry)
}

const typing = (event: KeyboardEvent) =>
  /^(input|textarea|select)$/i.test((event.target as HTMLElement).tagName) || !!document.querySelector('[role=dialog]')
onKeyStroke('?', (e) => {
  if (!typing(e)) help.value = true
})
onKeyStroke(['v', 'o', 'b', 's', 't', 'j', 'n', 'c'], (e) => {
  if (typing(e) || e.ctrlKey || e.metaKey || e.altKey) return
  const act: Record<string, () => void> = {
    v: () => leads.set({ quantity: 'volts' }),
    o: () => leads.set({ quantity: 'ohms' }),
    b: () => leads.set({ quantity: 'continuity' }),
    s: () => (panel.value = 'suspects'),
    t: () => (panel.value = 'tried'),
    j: () => (panel.value = 'journal'),
    n: () => leads.choose((chosen.value + 1) % Math.max(1, diagnosis.value?.proposals.length ?? 1)),
    c: () => void router.push(`/jobs/${props.id}/close-out`),
  }
  e.preventDefault()
  act[e.key]?.()
})
onKeyStroke('Escape', (e) => {
  if (e.target instanceof HTMLInputElement) e.target.blur()
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
      @entry="add"
      @help="help = true"
    />
    <PageProblem :text="problem" />
    <main class="regions">
      <section class="sheet drawing" aria-label="Drawing">
        <CircuitDrawing
          is-viewport
          :circuit="circuit"
          :lead1="isTrying ? undefined : test?.from"
          :lead2="isTrying ? undefined : test?.to"
          :suspicion="isTrying ? {} : suspicion"
          :readings="readings"
          :live-wires="diagnosis?.liveWires"
          :lifted="lifted"
          :operation="isTrying ? trying.operation.value : undefined"
          :tappable="isTrying ? 'all' : undefined"
          :attention="isTrying ? buttons : undefined"
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
          @close-out="router.push(`/jobs/${id}/close-out`)"
          @entry="add"
          @state="band?.ask($event)"
          @lift="liftAll"
          @preview="previewed = $event"
          @tried="panel = 'tried'"
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
          :before="standing"
          :now="trying.operation.value"
          :problem="trying.problem.value"
          @entry="add"
          @wait="trying.wait"
          @undo="stand"
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
    <Dialog
      :visible="!!wire"
      modal
      :header="`Wire ${wire}`"
      :style="{ width: '28rem', maxWidth: '96vw' }"
      @update:visible="wire = ''"
    >
      <p class="faint">Tap an end to put lead {{ moving }} there.</p>
      <WireRoute :circuit="circuit" :wire="wire" tappable @terminal="(t: string) => (leads.tap(t), (wire = ''))" />
      <template v-if="!job.isClosed">
        <h3>Lift one end for a test</h3>
        <div v-for="c in wireConductors" :key="c.id" class="row">
          <template v-if="lifted.includes(c.id)">
            {{ c.id }} is lifted
            <Button :label="`Landed again`" size="small" @click="land(c.id)" />
          </template>
          <template v-else>
            <Button
              v-for="end in [c.from, c.to]"
              :key="end"
              :label="`Lift ${c.id} at ${end}`"
              size="small"
              variant="outlined"
              :disabled="!job.mayTouch"
              @click="lift(c.id, end)"
            />
          </template>
        </div>
        <h3>Try a screw</h3>
        <div v-for="end in wireEnds" :key="end" class="row">
          <span>{{ end }}</span>
          <Button
            label="was loose, now tight"
            size="small"
            variant="outlined"
            :aria-label="`${end} was loose, now tight`"
            :disabled="!job.mayTouch"
            @click="tighten(end, true)"
          />
          <Button
            label="is tight"
            size="small"
            variant="outlined"
            :aria-label="`${end} is tight`"
            :disabled="!job.mayTouch"
            @click="tighten(end, false)"
          />
        </div>
        <p v-if="!job.mayTouch" class="faint">Only on a circuit that is isolated and proved dead.</p>
      </template>
    </Dialog>
    <Dialog v-model:visible="help" modal header="Keys" :style="{ width: '24rem', maxWidth: '95vw' }">
      <dl class="keys">
        <dt>V, O, B</dt>
        <dd>volts, ohms, beep</dd>
        <dt>Tab, Enter</dt>
        <dd>to a terminal in the drawing, and put the lead there</dd>
        <dt>number, Enter</dt>
        <dd>record the reading; also OL, full, beep, stray, 4k7</dd>
        <dt>N</dt>
        <dd>the next proposed test</dd>
        <dt>Esc</dt>
        <dd>back to the proposed test</dd>
        <dt>S, T, J</dt>
        <dd>suspects, tried and seen, journal</dd>
        <dt>C</dt>
        <dd>repair and close out</dd>
      </dl>
      <h3>In the drawing</h3>
      <p>
        Thick broken line: live in a good circuit as it now stands. Shaded: suspected, with its share. Tap a terminal to
        move lead {{ moving }}; tap a wire number for its route, to lift it or to measure at the strip.
      </p>
    </Dialog>
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
.keys {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.4rem 1rem;
}
.keys dt {
  font-weight: 600;
}
.keys dd {
  margin: 0;
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
