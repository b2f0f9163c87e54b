<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed, ref, toRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Entry, Proposal } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { useJob } from '@/composables/useJob'
import { useLeads } from '@/composables/useLeads'
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
const panel = ref<'suspects' | 'tried' | 'journal'>('suspects')

const proposedTrial = computed(() =>
  proposal.value?.kind === 'operation'
    ? { label: proposal.value.title.replace('Operate: ', ''), steps: proposal.value.steps }
    : undefined,
)

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
  await recordHere(entry)
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
  <div v-if="job && circuit">
    <StateBand
      ref="band"
      :job="job"
      :circuit="circuit"
      :waiting="waiting.length"
      :offline="offline"
      :unsaved="unsaved"
      @entry="add"
    />
    <main class="page">
      <header class="head">
        <h1>
          <RouterLink :to="`/circuits/${job.circuitId}`">{{ job.circuitTag }}</RouterLink> {{ job.circuitTitle }}:
          {{ job.title }}
        </h1>
        <span v-if="job.isClosed" class="closed">closed</span>
        <Button
          v-else
          label="Repair and close out"
          icon="pi pi-check-square"
          variant="outlined"
          class="no-print"
          @click="router.push(`/jobs/${id}/close-out`)"
        />
        <Button label="?" text class="no-print" aria-label="Shortcuts" @click="help = true" />
      </header>
      <PageProblem :text="problem" />
      <div class="grid">
        <section class="sheet drawing">
          <CircuitDrawing
            :circuit="circuit"
            :lead1="test?.from"
            :lead2="test?.to"
            :suspicion="suspicion"
            :readings="readings"
            :live-wires="diagnosis?.liveWires"
            :lifted="lifted"
            @terminal="leads.tap"
            @wire="wire = $event"
          />
          <p v-if="previewed" class="preview" role="status">
            <strong>If it shows {{ previewed.shows }}:</strong> shaded is what that would leave.
          </p>
          <p class="legend faint">
            Thick broken line: live in a good circuit as it now stands. Shaded: suspected, with its share. Tap a
            terminal to move lead {{ moving }}; tap a wire number for its route, to lift it or to measure at the strip.
          </p>
        </section>
        <NextTestCard
          v-if="!job.isClosed"
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
        <div class="side">
          <div class="tabs no-print" role="tablist">
            <button role="tab" :aria-selected="panel === 'suspects'" @click="panel = 'suspects'">Suspects</button>
            <button role="tab" :aria-selected="panel === 'tried'" @click="panel = 'tried'">Tried and seen</button>
            <button role="tab" :aria-selected="panel === 'journal'" @click="panel = 'journal'">
              Journal ({{ job.entries.length }})
            </button>
          </div>
          <template v-if="panel === 'suspects'">
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
          </template>
          <TriedAndSeen v-if="panel === 'tried'" :job="job" :circuit="circuit" :proposed="proposedTrial" @entry="add" />
          <JournalList
            v-if="panel === 'journal'"
            :job="job"
            :waiting="waiting"
            @entry="add"
            @mend="(w, entry, label) => void mend(w, entry, label)"
            @let-go="letGo"
          />
        </div>
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
    </Dialog>
  </div>
  <main v-else class="page">
    <PageProblem :text="problem" />
    <p v-if="!problem">Opening the job…</p>
  </main>
</template>

<style scoped>
.page {
  padding: 0.7rem 1rem 2rem;
  max-width: 1700px;
  margin: 0 auto;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
  margin-bottom: 0.6rem;
}
.head h1 {
  flex: 1 1 18rem;
  font-size: 1.25rem;
}
.preview {
  border-left: 6px solid var(--petrol);
  padding: 0.2rem 0.6rem;
}
.closed {
  border: 2px solid var(--petrol);
  padding: 0.2rem 0.6rem;
  font-weight: 600;
}
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(20rem, 22.5rem);
  grid-template-areas: 'drawing card' 'drawing side';
  grid-template-rows: auto 1fr;
  gap: 0.8rem;
  align-items: start;
}
.card {
  grid-area: card;
}
.drawing {
  grid-area: drawing;
  padding: 0.6rem;
  overflow-x: auto;
}
.legend {
  font-size: 0.85rem;
}
.side {
  grid-area: side;
  display: grid;
  gap: 0.6rem;
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
@media (max-width: 900px) {
  .page {
    padding: 0.5rem;
  }
  .grid {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'card' 'drawing' 'side';
  }
}
</style>
