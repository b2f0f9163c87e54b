<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import ProgressBar from 'primevue/progressbar'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { when } from '@/components/format'
import { isRegisterList, takeRegisterList, type Listed } from './registerList'
import { usePagedList } from '@/composables/usePagedList'

const router = useRouter()
const route = useRoute()
const show = ref<'all' | 'notInOrder' | 'comingBack'>('all')
const area = ref<string | null>(null)
// The code on a panel door opens what is in it.
const enclosure = ref<string | null>(route.query.enclosure ? String(route.query.enclosure) : null)
const choices = ref<Schemas['CircuitChoices']>()
const narrowed = () => ({
  show: show.value,
  area: area.value || undefined,
  enclosure: enclosure.value || undefined,
})
const { page, problem, search, load, turn, sortBy, table, tableActs } = usePagedList<Schemas['CircuitListItem']>(
  (query) => api.GET('/api/circuits', { params: { query: { ...query, ...narrowed() } } }),
  'area',
)
watch([area, enclosure], () => turn(0))
// Who asks what comes back asks for the worst first.
watch(show, (now) => (now === 'comingBack' ? sortBy('recentJobs', true) : turn(0)))
onMounted(async () => {
  choices.value = (await api.GET('/api/circuits/choices').catch(() => undefined))?.data
})
const isNarrowed = computed(() => show.value !== 'all' || !!area.value || !!enclosure.value)
function widen() {
  show.value = 'all'
  area.value = enclosure.value = null
}
const labels = computed(
  () =>
    `/api/labels.pdf?${new URLSearchParams(
      Object.entries({ area: area.value, enclosure: enclosure.value }).filter((x): x is [string, string] => !!x[1]),
    )}`,
)
const notice = ref('')
/** A register list on its way, and what was set aside of it. */
const listed = ref<Listed>()
const input = ref<HTMLInputElement>()

async function importBundle(file: File): Promise<string> {
  const added = need(
    await api.POST('/api/bundle', {
      params: { query: { from: file.name } },
      body: file as never,
      bodySerializer: (b) => b as never,
      headers: { 'Content-Type': 'application/zip' },
    }),
  )
  const counts = [
    [added.circuits, 'circuits'],
    [added.versions, 'versions'],
    [added.jobs, 'jobs'],
    [added.entries, 'journal entries'],
    [added.benchChecks, 'bench checks'],
  ].filter(([n]) => Number(n) > 0)
  const taken = counts.length
    ? `Taken in from ${file.name}: ${counts.map(([n, what]) => `${n} ${what}`).join(', ')}.`
    : `Everything in ${file.name} was here already; nothing has changed.`
  return added.setAside.length ? `${taken} Set aside: ${added.setAside.join(' ')}` : taken
}

async function importFile(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  problem.value = notice.value = ''
  listed.value = undefined
  try {
    if (file.name.endsWith('.zip')) {
      notice.value = await importBundle(file)
      await load()
      return
    }
    const text = await file.text()
    if (isRegisterList(text)) {
      listed.value = { done: 0, of: 0, taken: 0, setAside: [] }
      await takeRegisterList(text, listed.value)
      notice.value = `${listed.value.taken} of ${listed.value.of} starters of ${file.name} are in the register now.`
      await load()
      return
    }
    const result = need(
      await api.POST('/api/circuits', {
        params: { query: { from: file.name } },
        body: text as never,
        bodySerializer: (b) => b as never,
        headers: { 'Content-Type': file.name.endsWith('.csv') ? 'text/csv' : 'application/json' },
      }),
    )
    notice.value = result.isNew
      ? `${result.tag} is in the register (version ${result.version}).`
      : `${result.tag} was in the register already, unchanged.`
    await load()
  } catch (error) {
    problem.value = `${file.name} was not taken in. ${(error as Error).message}`
  } finally {
    if (input.value) input.value.value = ''
  }
}
</script>

<template>
  <main class="page">
    <div class="head">
      <h1>Circuits</h1>
      <InputText
        v-model="search"
        placeholder="Find by tag, plant, place or fault"
        aria-label="Find a circuit"
        class="search"
        autofocus
      />
      <label class="import" tabindex="0" @keydown.enter="input?.click()">
        <i class="pi pi-download" aria-hidden="true" /> Bring in a circuit, list or bundle
        <input
          ref="input"
          type="file"
          accept=".json,.csv,.zip,application/json,text/csv,application/zip"
          class="visually-hidden"
          @change="importFile"
        />
      </label>
      <a class="import" href="/api/bundle"><i class="pi pi-box" aria-hidden="true" /> Save all to a bundle</a>
      <Button label="Set up a circuit" icon="pi pi-plus" @click="router.push('/set-up')" />
    </div>
    <div class="narrow row" role="group" aria-label="Narrow the register">
      <SelectButton
        v-model="show"
        :options="[
          { label: 'All', value: 'all' },
          { label: 'Not in order', value: 'notInOrder' },
          { label: 'Coming back', value: 'comingBack' },
        ]"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        aria-label="Which circuits"
      />
      <Select v-model="area" :options="choices?.areas ?? []" placeholder="Any area" show-clear aria-label="Area" />
      <Select
        v-model="enclosure"
        :options="choices?.enclosures ?? []"
        placeholder="Any enclosure"
        show-clear
        filter
        aria-label="Enclosure"
      />
      <Button v-if="isNarrowed" label="All again" text @click="widen" />
      <a :href="labels" class="labels no-print"
        ><i class="pi pi-qrcode" aria-hidden="true" /> Labels for the doors, PDF</a
      >
    </div>
    <PageProblem :text="problem" />
    <p v-if="notice" role="status">{{ notice }}</p>
    <section v-if="listed" class="sheet listed" aria-label="Register list">
      <ProgressBar
        v-if="listed.done < listed.of || !listed.of"
        :value="listed.of ? Math.round((100 * listed.done) / listed.of) : 0"
        aria-label="Taken in so far"
      />
      <details v-if="listed.setAside.length" open>
        <summary>Set aside ({{ listed.setAside.length }})</summary>
        <ul>
          <li v-for="s in listed.setAside" :key="s">{{ s }}</li>
        </ul>
      </details>
    </section>
    <p v-if="!page && !problem">Fetching the register…</p>
    <p v-else-if="page?.total === 0 && !search && !isNarrowed">
      No circuits yet. Bring in a circuit file; its format is described in docs/formats, and
      <code>./fehler demo</code> starts with an invented sawmill.
    </p>
    <DataTable
      v-else-if="page"
      v-bind="table"
      data-key="id"
      row-hover
      class="list sheet"
      @row-click="router.push(`/circuits/${$event.data.id}`)"
      v-on="tableActs"
    >
      <template #empty
        >Nothing in the register matches{{ search ? ` “${search}”` : ''
        }}{{ isNarrowed ? ' what it is narrowed to' : '' }}. A starter that is not in the register yet:
        <RouterLink to="/set-up">count what stands in the panel</RouterLink>, and begin the job on what fits.</template
      >
      <Column field="tag" header="Circuit" sortable>
        <template #body="{ data }">
          <RouterLink :to="`/circuits/${data.id}`" class="tag">{{ data.tag }}</RouterLink>
          <div>{{ data.title }}</div>
        </template>
      </Column>
      <Column field="area" header="Place" sortable>
        <template #body="{ data }">
          {{ data.area }}
          <div class="faint">{{ data.enclosure }}</div>
        </template>
      </Column>
      <Column field="openJob" header="Now" sortable>
        <template #body="{ data }">
          <RouterLink v-if="data.openJob" :to="`/jobs/${data.openJob}`" class="down" @click.stop>
            <i class="pi pi-wrench" aria-hidden="true" /> open job
          </RouterLink>
          <strong v-else-if="data.isHandedOver" class="left"
            ><i class="pi pi-exclamation-triangle" aria-hidden="true" /> handed over</strong
          >
          <span v-else class="faint">no open job</span>
        </template>
      </Column>
      <Column field="recentJobs" header="Jobs" sortable class="figures">
        <template #body="{ data }">
          {{ data.jobs }}
          <div v-if="data.recentJobs > 1" class="faint">{{ data.recentJobs }} within a year</div>
        </template>
      </Column>
      <Column field="lastFault" header="Last found" sortable class="wide">
        <template #body="{ data }">
          {{ data.lastFault ?? '–' }}
          <div class="faint figures">{{ when(data.lastJobAt) }}</div>
        </template>
      </Column>
    </DataTable>
    <Button v-if="problem && !page" label="Try again" @click="load" />
  </main>
</template>

<style scoped>
.page {
  padding: 1rem;
  max-width: 1200px;
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
.import {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
  padding: 0 0.8rem;
  border: 1px solid var(--petrol);
  border-radius: 3px;
  color: var(--petrol);
  cursor: pointer;
  text-decoration: none;
}
.tag {
  font: 600 1.1rem 'Barlow Semi Condensed';
}
.down {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 44px;
  font-weight: 600;
  color: var(--doubt);
}
.narrow {
  margin-bottom: 0.8rem;
}
.listed {
  padding: 0.6rem;
  margin-bottom: 0.6rem;
  max-height: 14rem;
  overflow-y: auto;
}
.labels {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 44px;
  margin-left: auto;
}
.left {
  color: var(--live);
}
.list {
  overflow-x: auto;
}
@media (max-width: 600px) {
  :deep(.wide),
  :deep(td:nth-child(4)),
  :deep(th:nth-child(4)) {
    display: none;
  }
}
</style>
