<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, onMounted, ref, watch } from 'vue'
import { api, type Schemas } from '@/api/client'
import DayField from '@/components/DayField.vue'
import PageProblem from '@/components/PageProblem.vue'
import SubNav from '@/components/SubNav.vue'
import { when } from '@/components/format'
import { usePagedList } from '@/composables/usePagedList'
import WorkDialog from './WorkDialog.vue'

/** What is due on all circuits, soonest first: by rule, by what jobs and values ask for, and what was written down. */
const area = ref<string | null>(null)
const kind = ref<'upkeep' | 'followUp' | 'watch' | null>(null)
const state = ref<'dead' | 'live' | null>(null)
const until = ref('')
const areas = ref<string[]>([])
const doing = ref<Schemas['PlanItem']>()
const kinds = [
  { label: 'By a rule', value: 'upkeep' },
  { label: 'Written down', value: 'followUp' },
  { label: 'To be watched', value: 'watch' },
]
const states = [
  { label: 'Isolated', value: 'dead' },
  { label: 'Supply on', value: 'live' },
]
const narrowed = () => ({
  area: area.value ?? undefined,
  kind: kind.value ?? undefined,
  state: state.value ?? undefined,
  until: until.value || undefined,
})
const { page, problem, search, load, turn, table, tableActs } = usePagedList<Schemas['PlanItem']>(
  (query) => api.GET('/api/plan', { params: { query: { ...query, ...narrowed() } } }),
  'due',
)
watch([area, kind, state, until], () => turn(0))
onMounted(async () => {
  areas.value = (await api.GET('/api/circuits/choices').catch(() => undefined))?.data?.areas ?? []
})
/** The day here, not that of Greenwich. */
const today = new Date().toLocaleDateString('sv-SE')
const calendar = computed(
  () =>
    `/api/plan/calendar.ics?${new URLSearchParams(Object.entries(narrowed()).filter((x): x is [string, string] => !!x[1]))}`,
)
async function done() {
  doing.value = undefined
  await load()
}
</script>

<template>
  <main class="page">
    <SubNav part="plan" />
    <div class="head">
      <h1>What is due</h1>
      <InputText
        v-model="search"
        placeholder="Find by circuit, work or device"
        aria-label="Find in the plan"
        class="search"
      />
    </div>
    <div class="row narrow" role="group" aria-label="Narrow the plan">
      <Select v-model="area" :options="areas" placeholder="Any area" show-clear aria-label="Area" />
      <Select
        v-model="kind"
        :options="kinds"
        option-label="label"
        option-value="value"
        placeholder="Any reason"
        show-clear
        aria-label="Reason"
      />
      <Select
        v-model="state"
        :options="states"
        option-label="label"
        option-value="value"
        placeholder="Isolated or not"
        show-clear
        aria-label="Isolated or with the supply on"
      />
      <label>until <DayField v-model="until" label="Until which day" /></label>
      <a :href="calendar" class="quiet"><i class="pi pi-calendar" aria-hidden="true" /> Into a calendar</a>
    </div>
    <PageProblem :text="problem" />
    <p v-if="!page && !problem">Working out what is due…</p>
    <DataTable v-if="page" v-bind="table" class="sheet list stacked" v-on="tableActs">
      <template #empty>Nothing is due that matches.</template>
      <Column field="due" header="By" sortable class="figures">
        <template #body="{ data }">
          <strong :class="{ late: data.due < today }">{{ data.due }}</strong>
          <div v-if="data.due < today" class="late">overdue</div>
        </template>
      </Column>
      <Column field="circuitTag" header="Circuit" sortable>
        <template #body="{ data }">
          <RouterLink :to="`/circuits/${data.circuit}`">{{ data.circuitTag }}</RouterLink> {{ data.circuitTitle }}
          <div class="faint">{{ data.area }}</div>
        </template>
      </Column>
      <Column field="title" header="What" sortable body-class="wide">
        <template #body="{ data }">
          {{ data.title }} <span v-if="data.devices.length" class="faint">({{ data.devices.join(', ') }})</span>
          <div v-if="data.why" class="why">
            <i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ data.why }}
          </div>
          <div class="faint">
            <template v-if="data.kind === 'upkeep'"
              >every {{ data.months }} months ({{ data.source }}),
              {{ data.last ? `last ${when(data.last).slice(0, 10)}` : 'never written down' }}</template
            >
            <template v-else>{{ data.source }}</template>
            <RouterLink v-if="data.job" :to="`/jobs/${data.job}/report`">from this job</RouterLink>
          </div>
        </template>
      </Column>
      <Column field="minutes" header="Takes" sortable class="figures">
        <template #body="{ data }">
          {{ Math.round(data.minutes) }} min
          <div v-if="data.state" class="faint">{{ data.state === 'dead' ? 'isolated' : 'supply on' }}</div>
        </template>
      </Column>
      <Column header="">
        <template #body="{ data }">
          <Button label="Do it" size="small" severity="secondary" outlined @click="doing = data" />
        </template>
      </Column>
    </DataTable>
    <WorkDialog :item="doing" @done="done" @close="doing = undefined" />
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1400px;
  margin: 0 auto;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.8rem;
  margin-bottom: 0.6rem;
}
.search {
  flex: 1;
  min-width: 14rem;
}
.narrow {
  margin-bottom: 0.8rem;
}
.list {
  overflow-x: auto;
}
.list :deep(td.figures) {
  white-space: nowrap;
}
@media (max-width: 500px) {
  .list :deep(td),
  .list :deep(th) {
    padding: 0.5rem 0.4rem;
  }
}
.late {
  color: var(--live);
}
.why {
  color: var(--doubt);
}
</style>
