<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { outcomeWords, when } from '@/components/format'

const router = useRouter()
const jobs = ref<Schemas['JobListItem'][]>()
const problem = ref('')
const search = ref('')
const which = ref('all')
const choices = [
  { label: 'All', value: 'all' },
  { label: 'Open', value: 'open' },
  { label: 'Closed', value: 'closed' },
]
const shown = computed(() =>
  (jobs.value ?? []).filter(
    (j) =>
      (which.value === 'all' || (which.value === 'open') === !j.closedAt) &&
      `${j.circuitTag} ${j.circuitTitle} ${j.area} ${j.title} ${j.foundText ?? ''} ${j.foundUnit ?? ''}`
        .toLowerCase()
        .includes(search.value.trim().toLowerCase()),
  ),
)

onMounted(async () => {
  try {
    jobs.value = need(await api.GET('/api/jobs'))
  } catch (error) {
    problem.value = (error as Error).message
  }
})
</script>

<template>
  <main class="page">
    <div class="head">
      <h1>Logbook</h1>
      <InputText
        v-model="search"
        placeholder="Find by circuit, complaint or finding"
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
    <PageProblem :text="problem" />
    <p v-if="!jobs && !problem">Fetching the logbook…</p>
    <DataTable
      v-if="jobs"
      :value="shown"
      paginator
      :rows="25"
      :always-show-paginator="false"
      sort-field="openedAt"
      :sort-order="-1"
      row-hover
      class="sheet list"
      @row-click="router.push(`/jobs/${$event.data.id}`)"
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
          <RouterLink :to="`/jobs/${data.id}`">{{ data.title }}</RouterLink>
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
.list {
  overflow-x: auto;
}
.open {
  color: var(--doubt);
}
</style>
