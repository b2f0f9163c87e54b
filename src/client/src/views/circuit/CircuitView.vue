<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import Tab from 'primevue/tab'
import TabList from 'primevue/tablist'
import TabPanel from 'primevue/tabpanel'
import TabPanels from 'primevue/tabpanels'
import Tabs from 'primevue/tabs'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { plateGroups } from '@/components/plate'
import { api, need, type Circuit, type Schemas, type Step } from '@/api/client'
import FollowUps from '@/components/FollowUps.vue'
import PageProblem from '@/components/PageProblem.vue'
import { outcomeWords, when } from '@/components/format'
import CircuitDrawing from '@/drawing/CircuitDrawing.vue'
import OperatePanel from '@/drawing/OperatePanel.vue'
import BenchCheck from './BenchCheck.vue'
import CircuitUpkeep from './CircuitUpkeep.vue'
import TakeAlong from './TakeAlong.vue'
import TwinDialog from './TwinDialog.vue'
import CallDialog from './CallDialog.vue'
import PlateCheck from './PlateCheck.vue'
import ReadingSheet from './ReadingSheet.vue'
import TerminalPlan from './TerminalPlan.vue'
import TrendsPanel from './TrendsPanel.vue'
import WireRoute from './WireRoute.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const route = useRoute()
const circuit = ref<Circuit>()
const jobs = ref<Schemas['JobListItem'][]>([])
const jobsInAll = ref(0)
const problem = ref('')
const asking = ref(false)
const toDo = ref(0)
const left = ref<Schemas['HandedOver'] | null>()
const chosen = ref('')
const wire = ref('')
// The tab stands in the address, so that a page can be kept, sent and gone back to.
const tab = computed({
  get: () => String(route.query.tab ?? 'drawing'),
  set: (value) => void router.replace({ query: { ...route.query, tab: value } }),
})

useTitle(computed(() => `${circuit.value ? `${circuit.value.tag} ${circuit.value.title}` : 'Circuit'} · Fehler`))

onMounted(async () => {
  try {
    const path = { path: { id: props.id } }
    await load()
    await moreJobs()
    // Somebody came here to begin a job.
    asking.value = route.query.call !== undefined && !openJob()
    left.value = need(await api.GET('/api/circuits/{id}/handed-over', { params: path })).handedOver
  } catch (error) {
    problem.value = (error as Error).message
  }
})

async function load() {
  circuit.value = need(await api.GET('/api/circuits/{id}', { params: { path: { id: props.id } } }))
}

/** The next jobs of the history, newest first. */
async function moreJobs() {
  const page = need(
    await api.GET('/api/circuits/{id}/jobs', {
      params: { path: { id: props.id }, query: { skip: jobs.value.length, take: 50 } },
    }),
  )
  jobs.value = [...jobs.value, ...page.items]
  jobsInAll.value = page.total
}

const simulate = async (steps: Step[]) =>
  need(await api.POST('/api/circuits/{id}/operate', { params: { path: { id: props.id } }, body: { steps } }))

const isTwin = ref(false)
const openJob = () => jobs.value.find((j) => !j.closedAt)
</script>

<template>
  <main class="page">
    <PageProblem :text="problem" />
    <template v-if="circuit">
      <div class="head">
        <div>
          <h1>{{ circuit.tag }} {{ circuit.title }}</h1>
          <div class="faint">
            {{
              [circuit.area, circuit.enclosure, circuit.drawing, `version ${circuit.version}`]
                .filter(Boolean)
                .join(' · ')
            }}
          </div>
        </div>
        <div class="row no-print">
          <Button
            v-if="openJob()"
            label="Go on with the open job"
            icon="pi pi-wrench"
            @click="router.push(`/jobs/${openJob()!.id}`)"
          />
          <Button v-else label="It does not work…" icon="pi pi-wrench" @click="asking = true" />
          <RouterLink class="quiet" :to="`/circuits/${id}/set-up`"
            ><i class="pi pi-pencil" aria-hidden="true" /> Change the circuit</RouterLink
          >
          <button type="button" class="quiet" @click="isTwin = true">
            <i class="pi pi-clone" aria-hidden="true" /> Copy as a twin
          </button>
          <TakeAlong :id="id" :tag="circuit.tag" :title="circuit.title" />
          <a class="quiet" :href="`/api/circuits/${id}/label.svg`" target="_blank"
            ><i class="pi pi-qrcode" aria-hidden="true" /> Door code</a
          >
          <a class="quiet" :href="`/api/circuits/${id}/file`"
            ><i class="pi pi-file-export" aria-hidden="true" /> Circuit file</a
          >
          <a class="quiet" :href="`/api/circuits/${id}/wiring-list`"
            ><i class="pi pi-table" aria-hidden="true" /> Wiring list</a
          >
          <a class="quiet" :href="`/api/circuits/${id}/netlist`"
            ><i class="pi pi-share-alt" aria-hidden="true" /> SPICE netlist</a
          >
          <a class="quiet" :href="`/api/bundle?circuit=${id}`"
            ><i class="pi pi-box" aria-hidden="true" /> With history</a
          >
        </div>
      </div>
      <TwinDialog :id="id" :visible="isTwin" :tag="circuit.tag" :title="circuit.title" @close="isTwin = false" />
      <section v-if="left" class="left" role="alert">
        <h2><i class="pi pi-exclamation-triangle" aria-hidden="true" /> Handed over, not as it should be</h2>
        <ul>
          <li v-for="l in left.leftovers" :key="l">{{ l }}</li>
        </ul>
        <div>
          {{ [left.who, when(left.at)].filter(Boolean).join(', ') }}: {{ left.text }}
          <RouterLink :to="`/jobs/${left.job}`">See the job</RouterLink>
        </div>
      </section>
      <details class="to-do sheet" :open="toDo > 0">
        <summary>Still to do{{ toDo ? ` (${toDo})` : '' }}</summary>
        <FollowUps :circuit="id" @open="toDo = $event" />
        <CircuitUpkeep :id="id" />
      </details>
      <Tabs v-model:value="tab" lazy>
        <TabList>
          <Tab value="drawing">Drawing</Tab>
          <Tab value="operate">Operate</Tab>
          <Tab value="sheet">Reading sheet</Tab>
          <Tab value="terminals">Terminal plan</Tab>
          <Tab value="bench">Bench check</Tab>
          <Tab value="parts">Parts and settings</Tab>
          <Tab value="trends">Trends</Tab>
          <Tab value="history">History ({{ jobsInAll }})</Tab>
        </TabList>
        <TabPanels>
          <TabPanel value="drawing">
            <CircuitDrawing :circuit="circuit" :lead1="chosen" @terminal="chosen = $event" @wire="wire = $event" />
            <aside>
              <section>
                <template v-if="chosen">
                  <h2>{{ chosen }}</h2>
                  <WireRoute :circuit="circuit" :terminal="chosen" />
                </template>
                <p v-else class="faint">
                  Tap a terminal to see what is landed on it, or a wire number to see its route.
                </p>
              </section>
              <section v-if="circuit.findings.length">
                <h2>This design</h2>
                <ul class="findings">
                  <li v-for="finding in circuit.findings" :key="finding.id" :class="finding.kind">
                    <strong>{{ { cannotWork: 'Cannot work', caution: 'Mind', note: 'Good' }[finding.kind] }}:</strong>
                    {{ finding.text }}
                  </li>
                </ul>
              </section>
              <section>
                <h2>Cautions</h2>
                <ul>
                  <li v-for="caution in circuit.cautions" :key="caution">{{ caution }}</li>
                  <li>
                    Fehler advises; a competent person decides. Local codes, site rules and licensed practice come
                    first.
                  </li>
                </ul>
              </section>
            </aside>
          </TabPanel>
          <TabPanel value="operate"><OperatePanel :circuit="circuit" :simulate="simulate" /></TabPanel>
          <TabPanel value="terminals"><TerminalPlan :id="id" :circuit="circuit" /></TabPanel>
          <TabPanel value="bench"><BenchCheck :id="id" :open-job="openJob()?.id" /></TabPanel>
          <TabPanel value="sheet"><ReadingSheet :id="id" :circuit="circuit" /></TabPanel>
          <TabPanel value="parts">
            <PlateCheck :circuit="circuit" @changed="load" />
            <div class="parts">
              <section v-for="device in circuit.devices" :key="device.tag" class="sheet part">
                <h2>
                  {{ device.tag }} <span class="faint">{{ device.term }}</span>
                </h2>
                <div>{{ device.function }} · {{ circuit.locations.find((l) => l.id === device.location)?.name }}</div>
                <component
                  :is="group.isFolded ? 'details' : 'div'"
                  v-for="group in plateGroups(device.settings)"
                  :key="group.id"
                >
                  <component :is="group.isFolded ? 'summary' : 'h3'">{{ group.name }}</component>
                  <dl>
                    <template v-for="s in group.settings.filter((x) => x.value && x.value !== '0')" :key="s.name">
                      <dt>{{ s.description }}</dt>
                      <dd class="figures">{{ s.value }} {{ s.unit }}</dd>
                    </template>
                  </dl>
                </component>
              </section>
            </div>
          </TabPanel>
          <TabPanel value="trends"><TrendsPanel :id="id" /></TabPanel>
          <TabPanel value="history">
            <p v-if="jobs.length === 0">No job has been recorded on this circuit.</p>
            <ul class="history">
              <li v-for="job in jobs" :key="job.id" class="sheet">
                <RouterLink :to="job.closedAt ? `/jobs/${job.id}/report` : `/jobs/${job.id}`">
                  <span class="figures">{{ when(job.openedAt) }}</span> {{ job.title }}
                </RouterLink>
                <div>{{ job.foundText ?? 'no finding' }}</div>
                <div class="faint">
                  {{ job.outcome ? outcomeWords[job.outcome] : 'open' }} · {{ job.entries }} entries
                </div>
              </li>
            </ul>
            <Button
              v-if="jobs.length < jobsInAll"
              :label="`Older jobs (${jobsInAll - jobs.length})`"
              variant="outlined"
              @click="moreJobs().catch((e: Error) => (problem = e.message))"
            />
          </TabPanel>
        </TabPanels>
      </Tabs>
    </template>
    <p v-else-if="!problem">Drawing the circuit…</p>
    <CallDialog v-if="circuit" v-model:visible="asking" :circuit="circuit" />
    <Dialog
      :visible="!!wire"
      modal
      :header="`Wire ${wire}`"
      :style="{ width: '26rem', maxWidth: '95vw' }"
      @update:visible="wire = ''"
    >
      <WireRoute v-if="circuit" :circuit="circuit" :wire="wire" />
    </Dialog>
  </main>
</template>

<style scoped>
.to-do {
  margin-bottom: 0.6rem;
  padding: 0 0.8rem 0.4rem;
}
.to-do summary {
  min-height: 44px;
  padding-top: 0.6rem;
  font-weight: 600;
  cursor: pointer;
}
.left {
  border: 3px solid var(--live);
  border-left-width: 12px;
  background: var(--live-fill);
  padding: 0.5rem 0.9rem;
  margin-bottom: 0.7rem;
}
.left ul {
  margin: 0.2rem 0;
  padding-left: 1.2rem;
  font-weight: 600;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.8rem;
  margin-bottom: 0.5rem;
}
.page {
  padding: 1rem;
  max-width: 1900px;
  margin: 0 auto;
}
aside {
  columns: 24rem auto;
  column-gap: 2rem;
}
aside ul {
  margin-top: 0.3rem;
}
aside section {
  break-inside: avoid;
}
.findings {
  list-style: none;
  padding-left: 0;
}
.findings li {
  border-left: 4px solid var(--doubt);
  padding: 0.2rem 0.6rem;
  margin-bottom: 0.4rem;
}
.findings .cannotWork {
  border-color: var(--live);
}
.findings .note {
  border-color: var(--line);
}
aside ul {
  padding-left: 1.1rem;
}
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.8rem;
}
.part {
  padding: 0.7rem;
}
.part h3 {
  margin-top: 0.5rem;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.15rem 0.8rem;
  margin: 0.5rem 0 0;
  font-size: 0.92rem;
}
dt {
  color: var(--faint);
}
dd {
  margin: 0;
  text-align: right;
}
.history {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 0.5rem;
}
.history li {
  padding: 0.6rem 0.8rem;
}
</style>
