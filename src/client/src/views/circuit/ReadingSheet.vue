<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import { computed, onMounted, ref } from 'vue'
import { api, need, type Circuit, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'

const props = defineProps<{ id: string; circuit: Circuit }>()
const rows = ref<Schemas['ReadingSheetRow'][]>()
const problem = ref('')
const search = ref('')
const shown = computed(() =>
  (rows.value ?? []).filter((r) =>
    `${r.what} ${r.from} ${r.to} ${r.wires}`.toLowerCase().includes(search.value.trim().toLowerCase()),
  ),
)

onMounted(async () => {
  try {
    rows.value = need(await api.GET('/api/circuits/{id}/reading-sheet', { params: { path: { id: props.id } } }))
  } catch (error) {
    problem.value = (error as Error).message
  }
})
</script>

<template>
  <PageProblem :text="problem" />
  <p>
    What a good circuit shows, by simulation. Volts ±10 % with the supply; coils and windings differ by make, up to
    twofold; "stray": nothing holds the point, a sensitive meter may show anything. Return: {{ circuit.reference }}.
  </p>
  <div class="row no-print">
    <InputText v-model="search" placeholder="Find a terminal, wire or device" aria-label="Find in the reading sheet" />
    <a class="quiet" :href="`/api/circuits/${id}/reading-sheet.pdf`"
      ><i class="pi pi-print" aria-hidden="true" /> PDF, A4</a
    >
    <a class="quiet" :href="`/api/circuits/${id}/reading-sheet.pdf?paper=letter`"
      ><i class="pi pi-print" aria-hidden="true" /> PDF, Letter</a
    >
    <a class="quiet" :href="`/api/circuits/${id}/reading-sheet.csv`"
      ><i class="pi pi-file-export" aria-hidden="true" /> CSV</a
    >
  </div>
  <DataTable
    v-if="rows"
    :value="shown"
    size="small"
    striped-rows
    paginator
    :rows="30"
    :always-show-paginator="false"
    class="sheet figures table"
  >
    <Column field="what" header="Across" sortable />
    <Column header="Leads">
      <template #body="{ data }">{{ data.from }} – {{ data.to }}</template>
    </Column>
    <Column field="wires" header="Wires" />
    <Column field="atRest" header="At rest" />
    <Column field="startHeld" header="Start held" />
    <Column field="running" header="Running" />
    <Column field="released" header="Isolated" />
    <Column field="pressed" header="Isolated, armature pressed" />
  </DataTable>
  <p v-else-if="!problem">Working out the readings…</p>
</template>

<style scoped>
.table {
  margin-top: 0.5rem;
  overflow-x: auto;
}
</style>
