<script setup lang="ts">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { Circuit } from '@/api/client'

const props = defineProps<{ id?: string; circuit: Circuit }>()
const search = ref('')

const device = (terminal: string) =>
  props.circuit.devices.find((d) => d.tag === terminal.slice(0, terminal.lastIndexOf(':')))
const place = (terminal: string) => props.circuit.locations.find((l) => l.id === device(terminal)?.location)?.name ?? ''

/** Each clamp of a strip with what is landed on its two sides: the panel's wiring and the cables that leave. */
const clamps = computed(() =>
  props.circuit.devices
    .filter((d) => d.isStrip)
    .flatMap((strip) =>
      strip.terminals.map((name) => {
        const clamp = `${strip.tag}:${name}`
        const ends = props.circuit.conductors
          .filter((c) => c.from === clamp || c.to === clamp)
          .map((c) => ({ wire: c.wire, end: c.from === clamp ? c.to : c.from, metres: c.metres }))
        const inside = ends.filter((e) => device(e.end)?.location === strip.location)
        return { clamp, wire: ends[0]?.wire ?? '', inside, outside: ends.filter((e) => !inside.includes(e)) }
      }),
    ),
)
const rows = computed(() =>
  props.circuit.conductors
    .map((c) => ({ ...c, fromPlace: place(c.from), toPlace: place(c.to) }))
    .filter((c) =>
      `${c.wire} ${c.from} ${c.to} ${c.fromPlace} ${c.toPlace}`
        .toLowerCase()
        .includes(search.value.trim().toLowerCase()),
    ),
)
</script>

<template>
  <section v-if="clamps.length">
    <h2>Terminal strips</h2>
    <div class="scroll">
      <table class="strip figures sheet">
        <caption class="visually-hidden">
          Clamps with the panel's wiring on the left and the cables on the right
        </caption>
        <thead>
          <tr>
            <th>In the panel</th>
            <th>Clamp</th>
            <th>Wire</th>
            <th>To the field</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="clamp in clamps" :key="clamp.clamp">
            <td class="left">{{ clamp.inside.map((e) => e.end).join(', ') }}</td>
            <td class="clamp">{{ clamp.clamp }}</td>
            <td>{{ clamp.wire }}</td>
            <td>
              <div v-for="end in clamp.outside" :key="end.end">
                {{ end.end }} <span class="faint">{{ place(end.end) }}, {{ end.metres }} m</span>
              </div>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
  <h2>Connections</h2>
  <div class="row no-print">
    <InputText v-model="search" placeholder="Find a wire, terminal or place" aria-label="Find in the connections" />
    <a v-if="id" class="quiet" :href="`/api/circuits/${id}/terminal-plan.csv`"
      ><i class="pi pi-file-export" aria-hidden="true" /> CSV</a
    >
  </div>
  <DataTable
    :value="rows"
    size="small"
    striped-rows
    paginator
    :rows="40"
    :always-show-paginator="false"
    class="sheet figures"
  >
    <Column field="wire" header="Wire" sortable />
    <Column field="from" header="From" sortable />
    <Column field="fromPlace" header="Place" sortable />
    <Column field="to" header="To" sortable />
    <Column field="toPlace" header="Place" sortable />
    <Column field="metres" header="Length (m)" sortable />
    <Column field="squareMillimetres" header="Section (mm²)" sortable />
  </DataTable>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.strip {
  border-collapse: collapse;
}
.strip th,
.strip td {
  padding: 0.25rem 0.7rem;
  border-bottom: 1px solid var(--line);
  text-align: left;
}
.strip .left {
  text-align: right;
}
.strip .clamp {
  font-weight: 600;
  border-inline: 2px solid var(--ink);
  text-align: center;
}
</style>
