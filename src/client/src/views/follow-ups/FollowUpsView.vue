<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { ref, watch } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { when } from '@/components/format'
import { usePagedList } from '@/composables/usePagedList'
import { useSettings } from '@/composables/useSettings'

/** What jobs left for later on all circuits, soonest first. */
const { who } = useSettings()
const which = ref(false)
const { page, problem, loading, search, order, rows, turn, sortBy, load } = usePagedList<Schemas['FollowUpItem']>(
  (query) => api.GET('/api/follow-ups', { params: { query: { ...query, done: which.value } } }),
  'due',
)
watch(which, () => turn(0))
/** The day here, not that of Greenwich. */
const today = new Date().toLocaleDateString('sv-SE')

async function done(id: string) {
  try {
    need(await api.POST('/api/follow-ups/{id}/done', { params: { path: { id } }, body: { who: who.value } }))
    await load()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <main class="page">
    <div class="head">
      <h1>Still to do</h1>
      <InputText
        v-model="search"
        placeholder="Find by circuit, work or person"
        aria-label="Find in what is to do"
        class="search"
      />
      <SelectButton
        v-model="which"
        :options="[
          { label: 'Open', value: false },
          { label: 'Done', value: true },
        ]"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        aria-label="Open or done"
      />
    </div>
    <PageProblem :text="problem" />
    <p v-if="!page && !problem">Fetching what is to do…</p>
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
      class="sheet"
      @page="turn($event.first)"
      @sort="sortBy(String($event.sortField ?? ''), $event.sortOrder === -1)"
    >
      <template #empty>{{
        which
          ? 'Nothing was ticked off yet.'
          : 'Nothing is left to do. It is noted on a circuit’s page and when a job is closed.'
      }}</template>
      <Column field="due" header="By" sortable class="figures">
        <template #body="{ data }">
          <strong :class="{ late: !data.doneAt && data.due < today }">{{ data.due }}</strong>
          <div v-if="!data.doneAt && data.due < today" class="late">overdue</div>
        </template>
      </Column>
      <Column field="circuitTag" header="Circuit" sortable>
        <template #body="{ data }">
          <RouterLink :to="`/circuits/${data.circuit}`">{{ data.circuitTag }}</RouterLink> {{ data.circuitTitle }}
          <div class="faint">{{ data.area }}</div>
        </template>
      </Column>
      <Column field="text" header="What" sortable>
        <template #body="{ data }">
          {{ data.text }}
          <div class="faint">
            {{ data.who }} <RouterLink v-if="data.job" :to="`/jobs/${data.job}/report`">from this job</RouterLink>
          </div>
        </template>
      </Column>
      <Column header="">
        <template #body="{ data }">
          <span v-if="data.doneAt" class="faint">{{ when(data.doneAt) }} {{ data.doneBy }}</span>
          <Button v-else label="Tick off" size="small" severity="secondary" outlined @click="done(data.id)" />
        </template>
      </Column>
    </DataTable>
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
.sheet :deep(td.figures) {
  white-space: nowrap;
}
@media (max-width: 500px) {
  .sheet :deep(td),
  .sheet :deep(th) {
    padding: 0.5rem 0.4rem;
  }
}
.late {
  color: var(--live);
}
</style>
