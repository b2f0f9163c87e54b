<script setup lang="ts">
import Select from 'primevue/select'
import { computed, onMounted, ref, watch } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import DayField from '@/components/DayField.vue'
import PageProblem from '@/components/PageProblem.vue'
import SubNav from '@/components/SubNav.vue'
import InsightBars from './InsightBars.vue'

/** Where the time went, what comes back, and how well the diagnosis named it; of machines, not of people. */
const insight = ref<Schemas['Insight']>()
const problem = ref('')
const area = ref<string | null>(null)
const from = ref(new Date(Date.now() - 365 * 86_400_000).toLocaleDateString('sv-SE'))
const until = ref('')
const areas = ref<string[]>([])
const narrowed = computed(() => ({
  area: area.value ?? undefined,
  from: from.value || undefined,
  until: until.value || undefined,
}))
let asked = 0

async function load() {
  const number = ++asked
  try {
    const answer = need(await api.GET('/api/insight', { params: { query: narrowed.value } }))
    if (number !== asked) return
    insight.value = answer
    problem.value = ''
  } catch (error) {
    if (number === asked) problem.value = (error as Error).message
  }
}
watch(narrowed, load)
onMounted(async () => {
  await load()
  areas.value = (await api.GET('/api/circuits/choices').catch(() => undefined))?.data?.areas ?? []
})
const hours = (minutes: number) => `${(minutes / 60).toFixed(1)} h`
const csv = computed(
  () =>
    `/api/insight/insight.csv?${new URLSearchParams(Object.entries(narrowed.value).filter((x): x is [string, string] => !!x[1]))}`,
)
const share = (part: number, of: number) => (of ? `${Math.round((100 * part) / of)} %` : '–')
</script>

<template>
  <main class="page">
    <SubNav part="logbook" />
    <div class="row head" role="group" aria-label="Period and area">
      <h1>Where the time goes</h1>
      <label>from <DayField v-model="from" label="From which day" /></label>
      <label>until <DayField v-model="until" label="Until which day" /></label>
      <Select v-model="area" :options="areas" placeholder="Any area" show-clear aria-label="Area" />
      <a :href="csv" class="quiet"><i class="pi pi-table" aria-hidden="true" /> CSV</a>
    </div>
    <PageProblem :text="problem" />
    <p v-if="!insight && !problem">Adding up…</p>
    <template v-if="insight">
      <dl class="sheet sums">
        <div>
          <dt>Jobs</dt>
          <dd class="figures">{{ insight.jobs }}</dd>
        </div>
        <div>
          <dt>Time down</dt>
          <dd class="figures">{{ hours(insight.minutesDown) }}</dd>
        </div>
        <div>
          <dt>To the finding, middle</dt>
          <dd class="figures">
            {{ insight.minutesToFind == null ? '–' : `${Math.round(insight.minutesToFind)} min` }}
          </dd>
        </div>
        <div>
          <dt>Repaired and proved</dt>
          <dd class="figures">{{ insight.repaired }}</dd>
        </div>
        <div>
          <dt>Nothing found</dt>
          <dd class="figures">{{ insight.nothingFound }}</dd>
        </div>
        <div>
          <dt>Repair held 90 days</dt>
          <dd class="figures">{{ share(insight.heldRepairs, insight.heldRepairs + insight.cameBack) }}</dd>
        </div>
      </dl>
      <div class="grid">
        <InsightBars title="Worst circuits" :bars="insight.circuits" :narrowed="narrowed" />
        <InsightBars title="By what failed" :bars="insight.causes" :narrowed="narrowed" />
        <InsightBars title="By device" :bars="insight.devices" :narrowed="narrowed" />
        <InsightBars title="By area" :bars="insight.areas" :narrowed="narrowed" />
        <section class="sheet box" aria-label="What comes back">
          <h2>What comes back</h2>
          <p v-if="!insight.repeats.length" class="faint">Nothing failed twice.</p>
          <ul>
            <li v-for="r in insight.repeats" :key="r.tag + r.unit">
              <RouterLink :to="`/circuits/${r.circuit}?tab=history`">{{ r.tag }} {{ r.unit }}</RouterLink>
              <strong class="figures"> {{ r.times }} times</strong>, last {{ r.last.slice(0, 10) }}
              <div class="faint">{{ r.fault }}</div>
            </li>
          </ul>
        </section>
        <section class="sheet box" aria-label="How the diagnosis did">
          <h2>How the diagnosis did</h2>
          <p v-if="!insight.diagnosis.judged" class="faint">
            Closed jobs are worked out again when nobody waits; none is yet in this period.
          </p>
          <template v-else>
            <p>
              On {{ insight.diagnosis.judged }} closed {{ insight.diagnosis.judged === 1 ? 'job' : 'jobs' }}: named
              first, before any reading, right in
              <strong class="figures">{{ share(insight.diagnosis.firstRight, insight.diagnosis.judged) }}</strong>;
              named last, before the finding, in
              <strong class="figures">{{ share(insight.diagnosis.lastRight, insight.diagnosis.judged) }}</strong>.
              Readings taken {{ insight.diagnosis.readings.toFixed(1)
              }}<template v-if="insight.diagnosis.par != null">
                (following every proposal takes {{ insight.diagnosis.par.toFixed(1) }} where these took
                {{ insight.diagnosis.readingsOfPar!.toFixed(1) }})</template
              >.
            </p>
            <table>
              <caption class="faint">
                When it said so, it was right so often
              </caption>
              <tbody>
                <tr v-for="b in insight.diagnosis.calibration" :key="b.from">
                  <td class="figures">{{ Math.round(100 * b.from) }} to {{ Math.round(100 * b.to) }} %</td>
                  <td class="figures">{{ share(b.right, b.jobs) }}</td>
                  <td class="faint">{{ b.right }} of {{ b.jobs }}</td>
                </tr>
              </tbody>
            </table>
          </template>
        </section>
        <InsightBars title="Month by month" :bars="insight.months" :narrowed="{ area: narrowed.area }" />
      </div>
    </template>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1400px;
  margin: 0 auto;
}
.head {
  margin-bottom: 0.8rem;
}
.head h1 {
  margin: 0 1rem 0 0;
}
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 2.2rem;
  padding: 0.6rem 0.8rem;
  margin: 0 0 0.8rem;
}
.sums dt {
  color: var(--faint);
}
.sums dd {
  margin: 0;
  font-size: 1.5rem;
  font-weight: 600;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 26rem), 1fr));
  gap: 0.8rem;
  align-items: start;
}
.box {
  padding: 0.6rem 0.8rem;
}
.box ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.box li {
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
caption {
  text-align: left;
}
td {
  padding: 0.15rem 1rem 0.15rem 0;
}
</style>
