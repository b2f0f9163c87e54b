<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'
import { api, need, type Job, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'

/** An exercise looked at afterwards: what was hidden, what each step told, what would have told more, and par. */
const props = defineProps<{ id: string }>()
const debrief = ref<Schemas['Debrief']>()
const job = ref<Job>()
const problem = ref('')

onMounted(async () => {
  const path = { id: props.id }
  try {
    job.value = need(await api.GET('/api/jobs/{id}', { params: { path } }))
    debrief.value = need(await api.GET('/api/exercises/{id}/debrief', { params: { path } }))
  } catch (error) {
    problem.value = (error as Error).message
  }
})
const print = () => window.print()
const told = (bits: number) => (bits < -0.3 ? 'misled' : bits < 0.05 ? 'told nothing' : `${bits.toFixed(1)} bit`)
</script>

<template>
  <main class="page">
    <PageProblem :text="problem" />
    <p v-if="!debrief && !problem">Going through it step by step…</p>
    <template v-if="debrief && job">
      <div class="head">
        <div>
          <h1>Debrief: {{ job.circuitTag }} {{ job.title }}</h1>
          <div class="faint">{{ job.circuitTitle }}</div>
        </div>
        <div class="row no-print">
          <Button label="Print" icon="pi pi-print" severity="secondary" outlined @click="print" />
          <RouterLink to="/practice">Another exercise</RouterLink>
        </div>
      </div>
      <section class="sheet box">
        <h2>What was hidden</h2>
        <ul>
          <li v-for="f in debrief.faults" :key="f">{{ f }}</li>
        </ul>
        <p>
          <strong>{{ debrief.found ? 'You found it.' : 'It was not named.' }}</strong>
          {{ job.exercise?.stopped }}
        </p>
        <p v-for="m in job.exercise?.mistakes" :key="m" class="mistake">
          <i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ m }}
        </p>
      </section>
      <table class="sheet box par">
        <thead>
          <tr>
            <th></th>
            <th>You</th>
            <th>Par</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>Readings</td>
            <td class="figures">{{ debrief.ledger.readings }}</td>
            <td class="figures">{{ debrief.parReadings }}</td>
          </tr>
          <tr>
            <td>Minutes</td>
            <td class="figures">{{ Math.round(debrief.ledger.minutes) }}</td>
            <td class="figures">{{ Math.round(debrief.parMinutes) }}, repair not counted</td>
          </tr>
          <tr>
            <td>Places opened</td>
            <td class="figures">{{ debrief.ledger.places }}</td>
            <td></td>
          </tr>
          <tr>
            <td>Good parts replaced</td>
            <td class="figures">{{ debrief.ledger.goodParts }}</td>
            <td class="figures">0</td>
          </tr>
        </tbody>
      </table>
      <section class="sheet box">
        <h2>Step by step</h2>
        <p class="faint">
          A bit is one halving of what is thinkable. Par is what following every proposal takes on the same fault.
        </p>
        <p v-if="!debrief.steps.length">Nothing was measured, looked at or tried.</p>
        <ol v-else>
          <li v-for="s in debrief.steps" :key="s.sequence" :class="{ idle: s.sequence === debrief.firstIdle }">
            <div>{{ s.text }}</div>
            <div>
              <strong class="figures" :class="{ nothing: s.bits < 0.05 }">{{ told(s.bits) }}</strong>
              <span class="faint figures">, {{ s.left }} {{ s.left === 1 ? 'unit' : 'units' }} left</span>
              <span v-if="s.sequence === debrief.firstIdle" class="mistake"> the first step that told nothing</span>
            </div>
            <div v-if="s.best" class="faint">Would have told more for its price: {{ s.best }}</div>
          </li>
        </ol>
      </section>
    </template>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1000px;
  margin: 0 auto;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.8rem;
}
.box {
  padding: 0.6rem 0.9rem;
  margin: 0.8rem 0;
}
.par td,
.par th {
  padding: 0.2rem 1.4rem 0.2rem 0;
  text-align: left;
}
li {
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}
.idle {
  border-left: 6px solid var(--doubt);
  padding-left: 0.6rem;
}
.mistake {
  color: var(--doubt);
}
.nothing {
  color: var(--faint);
}
</style>
