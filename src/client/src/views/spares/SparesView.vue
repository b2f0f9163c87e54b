<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import SubNav from '@/components/SubNav.vue'
import { usePagedList } from '@/composables/usePagedList'

/** Parts that are fitted, what to hold of each, and who has a twin to lend. */
type Part = Schemas['SparePart']
const missing = ref(false)
const { page, problem, search, load, turn, table, tableActs } = usePagedList<Part>(
  (query) => api.GET('/api/spares', { params: { query: { ...query, missing: missing.value } } }),
  'short',
)
watch(missing, () => turn(0))
const opened = ref<Part>()
const given = ref({ weeks: '', stock: '', note: '' })
const refused = ref('')

function open(part: Part) {
  opened.value = part
  refused.value = ''
  given.value = { weeks: String(part.leadWeeks), stock: String(part.stock), note: part.note }
}
async function keep() {
  try {
    const number = (text: string) => Number(text.replace(',', '.'))
    const [leadWeeks, stock] = [number(given.value.weeks), number(given.value.stock)] as const
    if (Number.isNaN(leadWeeks) || !Number.isInteger(stock)) throw new Error('Weeks are a number, pieces a whole one.')
    const answer = await api.PUT('/api/spares', {
      body: { part: opened.value!.part, leadWeeks, stock, note: given.value.note },
    })
    if (answer.error) need(answer as never)
    opened.value = undefined
    await load()
  } catch (error) {
    refused.value = (error as Error).message
  }
}
const share = (p: number) => (p < 0.01 ? 'below 1 %' : `${Math.round(100 * p)} %`)
</script>

<template>
  <main class="page">
    <SubNav part="plan" />
    <div class="head">
      <h1>Spares</h1>
      <InputText v-model="search" placeholder="Find by part or circuit" aria-label="Find a part" class="search" />
      <label class="tick"><input v-model="missing" type="checkbox" /> Only what is missing</label>
      <a href="/api/spares/spares.csv" class="quiet"><i class="pi pi-table" aria-hidden="true" /> CSV</a>
    </div>
    <p class="faint">
      Hold: the least with which, nineteen times in twenty, none is missing while a new one is on its way. From what
      failed here, and of what has not failed yet from parts of its kind.
    </p>
    <PageProblem :text="problem" />
    <p v-if="!page && !problem">Counting what is fitted…</p>
    <DataTable v-if="page" v-bind="table" class="sheet list stacked" v-on="tableActs">
      <template #empty>No part matches.</template>
      <Column field="part" header="Part" sortable body-class="wide">
        <template #body="{ data }">
          <strong>{{ data.noun }}</strong> {{ data.part.slice(data.noun.length + 2) }}
          <div v-if="data.note" class="faint">{{ data.note }}</div>
        </template>
      </Column>
      <Column field="installed" header="Fitted" sortable class="figures"
        ><template #body="{ data }">{{ data.installed }} <span class="only-narrow">fitted</span></template></Column
      >
      <Column field="failures" header="Failed" sortable class="figures">
        <template #body="{ data }"
          >{{ data.failures }} <span class="only-narrow">failed</span>
          <div class="faint nowrap">
            {{ data.advice.failuresAYear.toFixed(2) }} a year, {{ data.used }} fitted
          </div></template
        >
      </Column>
      <Column field="chance" header="Needed while one comes" sortable class="figures">
        <template #body="{ data }"
          >{{ share(data.advice.chanceWithout) }}
          <div class="faint">{{ data.leadWeeks }} weeks{{ data.isLeadKnown ? '' : ', a guess' }}</div></template
        >
      </Column>
      <Column field="hold" header="Hold" sortable class="figures">
        <template #body="{ data }"
          ><span class="only-narrow">hold</span> <strong>{{ data.advice.hold }}</strong></template
        >
      </Column>
      <Column field="short" header="On the shelf" sortable class="figures">
        <template #body="{ data }"
          >{{ data.stock }} <span class="only-narrow">on the shelf</span>
          <strong v-if="data.short" class="short">{{ data.short }} missing</strong></template
        >
      </Column>
      <Column header="">
        <template #body="{ data }"
          ><Button
            label="Open"
            size="small"
            severity="secondary"
            outlined
            :aria-label="`Open ${data.part}`"
            @click="open(data)"
        /></template>
      </Column>
    </DataTable>
    <Dialog
      :visible="!!opened"
      modal
      :header="opened?.noun"
      :style="{ width: '34rem', maxWidth: '96vw' }"
      @update:visible="opened = undefined"
    >
      <form v-if="opened" class="part" @submit.prevent="keep">
        <p>{{ opened.part }}</p>
        <label
          ><span>Weeks from order to shelf</span><InputText v-model="given.weeks" inputmode="decimal" maxlength="6"
        /></label>
        <label><span>On the shelf</span><InputText v-model="given.stock" inputmode="numeric" maxlength="6" /></label>
        <label><span>Note</span><InputText v-model="given.note" maxlength="500" /></label>
        <p v-if="refused" class="short" role="alert">{{ refused }}</p>
        <Button type="submit" label="Keep" icon="pi pi-check" />
        <h3>Fitted in: whose machine stands idle can lend one</h3>
        <ul>
          <li v-for="w in opened.where" :key="w.tag + w.device">
            <RouterLink :to="`/circuits/${w.circuit}`">{{ w.tag }}</RouterLink> {{ w.device }}
          </li>
        </ul>
        <p v-if="opened.installed > opened.where.length" class="faint">
          and {{ opened.installed - opened.where.length }} more
        </p>
      </form>
    </Dialog>
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
}
.search {
  flex: 1;
  min-width: 14rem;
}
.nowrap {
  white-space: nowrap;
}
.only-narrow {
  display: none;
}
@media (max-width: 600px) {
  .only-narrow {
    display: inline;
  }
}
.list {
  overflow-x: auto;
}
.short {
  color: var(--live);
}
.part {
  display: grid;
  gap: 0.4rem;
}
.part p {
  margin: 0;
}
.part label {
  display: flex;
  align-items: center;
  gap: 0.6rem;
}
.part label span {
  flex: 0 0 12rem;
}
.part ul {
  columns: 3;
  margin: 0;
  padding-left: 1.1rem;
}
</style>
