<script setup lang="ts">
import Button from 'primevue/button'
import Tab from 'primevue/tab'
import TabList from 'primevue/tablist'
import TabPanel from 'primevue/tabpanel'
import TabPanels from 'primevue/tabpanels'
import Tabs from 'primevue/tabs'
import { onKeyStroke, useDebounceFn } from '@vueuse/core'
import { onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { send } from '@/api/send'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import CircuitDrawing from '@/drawing/CircuitDrawing.vue'
import OperatePanel from '@/drawing/OperatePanel.vue'
import CountedMatches from './CountedMatches.vue'
import DevicePanel from './DevicePanel.vue'
import FamilyOptions from './FamilyOptions.vue'
import PanelCount from './PanelCount.vue'
import PlacesPanel from './PlacesPanel.vue'
import TraceList from './TraceList.vue'
import { useSetup, type Edit } from './useSetup'
import WirePanel from './WirePanel.vue'

const props = defineProps<{ id?: string }>()
const router = useRouter()
const setup = useSetup(`fehler.draft.${props.id ?? 'new'}`)
const { current, circuit, problem, busy, family, options, canUndo, canRedo, isEdited } = setup
const families = ref<Schemas['FamilyDescription'][]>([])
const kinds = ref<Schemas['KindView'][]>([])
const tab = ref(props.id ? 'match' : 'count')
/** What fits what was counted in the panel. */
const counted = ref<Schemas['CountedView']>()
const resumed = ref(false)
const chosen = ref<{ tag: string; part: string }>()
const wire = ref('')
const leads = ref<{ from?: string; to?: string }>({})

onMounted(async () => {
  try {
    families.value = need(await api.GET('/api/setup/families'))
    kinds.value = need(await api.GET('/api/setup/kinds'))
    if (await setup.resume()) resumed.value = true
    else await begin()
  } catch (error) {
    problem.value = (error as Error).message
  }
})

async function begin() {
  if (props.id) {
    const answer = await send(new Request(`/api/circuits/${props.id}/file`))
    if (!answer.ok) throw new Error('There is no such circuit in the register.')
    await setup.open(await answer.json())
  } else {
    family.value = 'dol'
    options.value = { tag: await freeTag(), title: 'New starter' }
    await setup.build()
  }
}

/** NEW-1, or the first after it that is not in the register: a starter that nobody has named yet. */
async function freeTag() {
  const found = need(await api.GET('/api/circuits', { params: { query: { search: 'NEW-', take: 200 } } }))
  const taken = new Set(found.items.map((c) => c.tag))
  for (let n = 1; ; n++) if (!taken.has(`NEW-${n}`)) return `NEW-${n}`
}

async function again() {
  setup.forget()
  resumed.value = false
  chosen.value = undefined
  wire.value = ''
  await begin()
}

const nameOptions = ['tag', 'title', 'area', 'enclosure', 'drawing']
const rebuild = useDebounceFn(() => setup.build(), 250)
const namesOf = (all: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(all).filter(([name]) => nameOptions.includes(name)))

/** Another family: names stay, and what it has as well; what another family does not have goes. */
function toFamily(now: string) {
  const known = families.value.find((f) => f.id === now)?.options.map((o) => o.name) ?? []
  const old = families.value.find((f) => f.id === family.value)
  family.value = now
  options.value = {
    ...Object.fromEntries(
      Object.entries(options.value).filter(
        ([name, value]) =>
          known.includes(name) &&
          String(value) !== old?.options.find((o) => o.name === name)?.default &&
          !['protection', 'control'].includes(name),
      ),
    ),
    ...namesOf(options.value),
  }
}

/** One of those that fit what was counted. */
function take(match: Schemas['CountedMatch']) {
  family.value = match.family
  options.value = { ...(match.options as Record<string, unknown>), ...namesOf(options.value) }
}

watch(options, () => {
  if (!isEdited.value && !props.id && current.value) void rebuild()
})

async function edit(change: Edit) {
  if (!(await setup.edit(change))) return
  if (change.type === 'renameDevice' && chosen.value)
    chosen.value = { tag: change.newTag, part: chosen.value.part.replace(/^[^:]+/, change.newTag) }
  if (change.type === 'renameContact' && chosen.value)
    chosen.value = { ...chosen.value, part: chosen.value.part.replace(change.contact, change.newContact) }
  if (change.type === 'renumberWire') wire.value = change.newWire
  if (change.type === 'remove') chosen.value = undefined
}

function pick(tag: string, part: string) {
  chosen.value = { tag, part }
  wire.value = ''
  if (tab.value !== 'trace') tab.value = 'match'
}
function pickWire(number: string) {
  wire.value = number
  chosen.value = undefined
  if (tab.value !== 'trace') tab.value = 'match'
}

/** @param call whether a job begins on it at once */
async function save(call = false) {
  const id = await setup.save(!props.id)
  if (id) await router.push({ path: `/circuits/${id}`, query: call ? { call: '' } : {} })
}

onKeyStroke('z', (event) => {
  if ((!event.ctrlKey && !event.metaKey) || (event.target as HTMLElement).matches('input, select, textarea')) return
  event.preventDefault()
  setup.go(event.shiftKey ? 1 : -1)
})
</script>

<template>
  <main class="page">
    <div class="head">
      <h1>{{ id ? 'Change a circuit' : 'Set up a circuit' }}: {{ circuit?.tag }} {{ circuit?.title }}</h1>
      <div class="row">
        <Button
          icon="pi pi-undo"
          label="Undo"
          severity="secondary"
          outlined
          :disabled="!canUndo"
          @click="setup.go(-1)"
        />
        <Button
          icon="pi pi-refresh"
          label="Redo"
          severity="secondary"
          outlined
          :disabled="!canRedo"
          @click="setup.go(1)"
        />
        <Button
          v-if="!id"
          icon="pi pi-wrench"
          label="Save and begin a job"
          severity="secondary"
          outlined
          :disabled="!circuit || busy"
          @click="save(true)"
        />
        <Button icon="pi pi-save" label="Save to the register" :disabled="!circuit || busy" @click="save()" />
      </div>
    </div>
    <PageProblem :text="problem" />
    <p v-if="resumed" role="status" class="resumed">
      You left this unfinished; it goes on where you were.
      <Button label="Begin again" text size="small" @click="again" />
    </p>
    <div v-if="circuit && current" class="grid">
      <section class="side sheet">
        <Tabs v-model:value="tab" scrollable>
          <TabList>
            <Tab v-if="!id" value="count">What stands there</Tab>
            <Tab v-if="!id" value="family">Family</Tab>
            <Tab value="match">Match the panel</Tab>
            <Tab value="trace">Trace</Tab>
          </TabList>
          <TabPanels>
            <TabPanel v-if="!id" value="count">
              <p v-if="isEdited" class="faint">
                You have changed the circuit itself; counting again would undo that.
                <Button label="Begin again" text size="small" @click="again" />
              </p>
              <PanelCount v-else v-model:found="counted" />
              <RouterLink to="/set-up/terminals">A device without marks: find its terminals</RouterLink>
            </TabPanel>
            <TabPanel v-if="!id" value="family">
              <p v-if="isEdited" class="faint">
                You have changed the circuit itself; the options would undo that.
                <Button label="Back to the options" text size="small" @click="again" />
              </p>
              <FamilyOptions
                v-model:options="options"
                :family="family"
                :families="families"
                :locked="isEdited"
                @update:family="toFamily"
              />
            </TabPanel>
            <TabPanel value="match">
              <DevicePanel
                v-if="chosen"
                :key="chosen.tag + chosen.part"
                :circuit="circuit"
                :tag="chosen.tag"
                :part="chosen.part"
                :kinds="kinds"
                @edit="edit"
              />
              <WirePanel v-else-if="wire" :circuit="circuit" :wire="wire" @edit="edit" />
              <PlacesPanel v-else :circuit="circuit" @edit="edit" />
            </TabPanel>
            <TabPanel value="trace">
              <TraceList :circuit="circuit" @edit="edit" @show="(from, to) => (leads = { from, to })" />
            </TabPanel>
          </TabPanels>
        </Tabs>
      </section>
      <section class="main sheet">
        <CountedMatches
          v-if="tab === 'count' && counted && !isEdited"
          :found="counted"
          :family="family"
          :options="options"
          @take="take"
        />
        <div class="verdict" role="status" :class="{ bad: circuit.findings.some((f) => f.kind === 'cannotWork') }">
          <strong v-if="busy">Trying it…</strong>
          <strong v-else-if="circuit.findings.some((f) => f.kind === 'cannotWork')">It cannot work:</strong>
          <strong v-else>Tried in simulation: it starts, stops and trips as it should.</strong>
          <ul>
            <li v-for="finding in circuit.findings" :key="finding.id">
              <span v-if="finding.kind === 'caution'">Mind:</span> {{ finding.text }}
            </li>
            <li v-for="proposal in current.proposals" :key="proposal.text" class="proposal">
              {{ proposal.text }}
              <Button label="Take it over" size="small" outlined @click="edit(proposal.edit)" />
            </li>
          </ul>
        </div>
        <Tabs value="drawing" lazy>
          <TabList>
            <Tab value="drawing">Drawing</Tab>
            <Tab value="operate">Operate</Tab>
          </TabList>
          <TabPanels>
            <TabPanel value="drawing">
              <p class="faint">Tap a device to change it, or a wire number to renumber it or change its route.</p>
              <CircuitDrawing
                :circuit="circuit"
                tappable="all"
                :marked="chosen?.part"
                :lead1="leads.from"
                :lead2="leads.to"
                @part="pick"
                @wire="pickWire"
              />
            </TabPanel>
            <TabPanel value="operate"><OperatePanel :circuit="circuit" :simulate="setup.simulate" /></TabPanel>
          </TabPanels>
        </Tabs>
      </section>
    </div>
    <p v-else-if="!problem">Drawing the circuit…</p>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1800px;
  margin: 0 auto;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
}
.grid {
  display: grid;
  grid-template-columns: minmax(17rem, 22rem) minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.side {
  padding: 0.3rem 0.7rem 0.7rem;
}
.side :deep(.p-tabpanels),
.main :deep(.p-tabpanels) {
  padding: 0.5rem 0 0;
  background: none;
}
.main {
  padding: 0 0.7rem 0.7rem;
  min-width: 0;
}
.verdict {
  margin: 0 -0.7rem;
  border-left: 6px solid var(--petrol);
  padding: 0.4rem 0.8rem;
  background: var(--sheet);
}
.verdict.bad {
  border-color: var(--live);
}
.verdict ul {
  margin: 0.2rem 0 0;
  padding-left: 1.1rem;
}
.proposal {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}
.resumed {
  margin: 0.2rem 0;
}
@media (max-width: 900px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
