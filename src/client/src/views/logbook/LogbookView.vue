<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { outcomeWords, when } from '@/components/format'
import { usePagedList } from '@/composables/usePagedList'

const router = useRouter()
const which = ref<'all' | 'open' | 'closed'>('all')
const choices = [
  { label: 'All', value: 'all' },
  { label: 'Open', value: 'open' },
  { label: 'Closed', value: 'closed' },
]
const { rows, page, problem, loading, search, order, turn, sortBy } = usePagedList<Schemas['JobListItem']>(
  (query) => api.GET('/api/jobs', { params: { query: { ...query, show: which.value } } }),
  'openedAt',
  true,
)
watch(which, () => turn(0))
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
    <p v-if="!page && !problem">Fetching the logbook…</p>
    <DataTable
      v-if="page"
      lazy
      :value="page.items"
      :total-records="page.total"
      :first="order.first"
      :loading="loading"
      paginator
      :rows="rows"
      :always-show-paginator="false"
      :sort-field="order.sort"
      :sort-order="order.descending ? -1 : 1"
      row-hover
      class="sheet list"
      @page="turn($event.first)"
      @sort="sortBy(String($event.sortField ?? ''), $event.sortOrder === -1)"
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
