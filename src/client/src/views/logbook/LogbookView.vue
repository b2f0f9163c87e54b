<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, type Schemas } from '@/api/client'
import DayField from '@/components/DayField.vue'
import PageProblem from '@/components/PageProblem.vue'
import SubNav from '@/components/SubNav.vue'
import { outcomeWords, when } from '@/components/format'
import { usePagedList } from '@/composables/usePagedList'

const router = useRouter()
const which = ref<'all' | 'open' | 'closed'>('all')
// An address may say which jobs are meant: a chart leads here.
const asked = useRoute().query
const said = (name: string) => (typeof asked[name] === 'string' ? (asked[name] as string) : '')
const area = ref<string | null>(said('area') || null)
const found = ref(said('found'))
const outcome = ref<string | null>(null)
const person = ref<string | null>(null)
const from = ref(said('from'))
const until = ref(said('until'))
const choicesOf = ref<Schemas['JobChoices']>()
const outcomes = [
  { label: 'Repaired and proved', value: 'repairedAndProved' },
  { label: 'Nothing found', value: 'nothingFound' },
  { label: 'Handed over', value: 'handedOver' },
]
const choices = [
  { label: 'All', value: 'all' },
  { label: 'Open', value: 'open' },
  { label: 'Closed', value: 'closed' },
]
const narrowed = () => ({
  show: which.value,
  area: area.value || undefined,
  outcome: outcome.value || undefined,
  who: person.value || undefined,
  from: from.value || undefined,
  until: until.value || undefined,
  found: found.value || undefined,
})
const { page, problem, search, turn, table, tableActs } = usePagedList<Schemas['JobListItem']>(
  (query) =>
    api.GET('/api/jobs', {
      params: {
        query: {
          ...query,
          ...narrowed(),
        },
      },
    }),
  'openedAt',
  true,
  said('search'),
)
watch([which, area, outcome, person, from, until, found], () => turn(0))
onMounted(async () => {
  // Without them the list can still be read and searched.
  choicesOf.value = (await api.GET('/api/jobs/choices').catch(() => undefined))?.data
})
const isNarrowed = computed(
  () => !!(area.value || outcome.value || person.value || from.value || until.value || found.value),
)
/** What is closed is read, what is open is worked on. */
const pageOf = (job: Schemas['JobListItem']) => (job.closedAt ? `/jobs/${job.id}/report` : `/jobs/${job.id}`)
/** The same jobs as they stand in the list, for a spreadsheet. */
const taken = computed(() =>
  new URLSearchParams(
    Object.entries({ ...narrowed(), search: search.value }).filter((x): x is [string, string] => !!x[1]),
  ).toString(),
)
function widen() {
  area.value = outcome.value = person.value = null
  from.value = until.value = found.value = ''
}
</script>

<template>
  <main class="page">
    <SubNav part="logbook" />
    <div class="head">
      <h1>Logbook</h1>
      <InputText
        v-model="search"
        placeholder="Find by circuit, complaint, finding, repair, person or day"
        aria-label="Find in the logbook"
        class="search"
      />
      <SelectButton
        v-model="which"
        :options="choices"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        aria-label="Open or closed"
      />
    </div>
    <div class="narrow row" role="group" aria-label="Narrow the logbook">
      <Select v-model="area" :options="choicesOf?.areas ?? []" placeholder="Any area" show-clear aria-label="Area" />
      <Select
        v-model="outcome"
        :options="outcomes"
        option-label="label"
        option-value="value"
        placeholder="Any outcome"
        show-clear
        aria-label="Outcome"
      />
      <Select
        v-model="person"
        :options="choicesOf?.people ?? []"
        placeholder="Anybody"
        show-clear
        filter
        aria-label="Person"
      />
      <label>from <DayField v-model="from" label="From which day" /></label>
      <label>until <DayField v-model="until" label="Until which day" /></label>
      <span v-if="found" class="found">found: {{ found.replace(/[-/]/g, ' ').trim() }}</span>
      <Button v-if="isNarrowed" label="All again" text @click="widen" />
      <span class="out no-print">
        <a :href="`/api/jobs/jobs.csv?${taken}`"><i class="pi pi-table" aria-hidden="true" /> These jobs, CSV</a>
        <a :href="`/api/jobs/readings.csv?${taken}`">Their readings, CSV</a>
      </span>
    </div>
    <PageProblem :text="problem" />
    <p v-if="!page && !problem">Fetching the logbook…</p>
    <DataTable
      v-if="page"
      v-bind="table"
      row-hover
      class="sheet list"
      @row-click="router.push(pageOf($event.data))"
      v-on="tableActs"
    >
      <template #empty>No job matches.</template>
      <Column field="openedAt" header="Opened" sortable class="figures">
        <template #body="{ data }">{{ when(data.openedAt) }}</template>
      </Column>
      <Column field="circuitTag" header="Circuit" sortable>
        <template #body="{ data }">
          <strong>{{ data.circuitTag }}</strong> {{ data.circuitTitle }}
          <div class="faint">{{ data.area }}</div>
        </template>
      </Column>
      <Column field="title" header="Complaint" sortable>
        <template #body="{ data }">
          <RouterLink :to="pageOf(data)">{{ data.title }}</RouterLink>
        </template>
      </Column>
      <Column field="foundText" header="Found" sortable>
        <template #body="{ data }">{{ data.foundText ?? '–' }}</template>
      </Column>
      <Column field="outcome" header="Outcome" sortable>
        <template #body="{ data }">
          <strong v-if="!data.closedAt" class="open"><i class="pi pi-wrench" aria-hidden="true" /> open</strong>
          <template v-else>{{ outcomeWords[data.outcome ?? ''] }}</template>
        </template>
      </Column>
      <Column field="entries" header="Entries" sortable class="figures" />
    </DataTable>
  </main>
</template>

<style scoped>
.page {
  padding: 1rem;
  max-width: 1300px;
  margin: 0 auto;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
.search {
  flex: 1 1 14rem;
  min-height: 44px;
}
.narrow {
  margin-bottom: 0.8rem;
}
.out {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  margin-left: auto;
}
.out a {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 44px;
}
.list {
  overflow-x: auto;
}
.open {
  color: var(--doubt);
}
</style>
