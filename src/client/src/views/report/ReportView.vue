<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref, shallowRef } from 'vue'
import { api, need, type Circuit, type Job, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { when } from '@/components/format'
import { useReadingsDrawn } from '@/composables/useReadingsDrawn'
import PhotoShown from '@/components/PhotoShown.vue'
import CircuitDrawing from '@/drawing/CircuitDrawing.vue'

/** A job for somebody who was not there: what came of it, the drawing with its readings, the story; on screen and on paper. */
const props = defineProps<{ id: string }>()

const report = shallowRef<Schemas['JobReport']>()
const job = shallowRef<Job>()
const circuit = shallowRef<Circuit>()
const problem = ref('')
const readings = useReadingsDrawn(job, circuit)

onMounted(async () => {
  try {
    const path = { params: { path: { id: props.id } } }
    report.value = need(await api.GET('/api/jobs/{id}/report', path))
    job.value = need(await api.GET('/api/jobs/{id}', path))
    circuit.value = need(
      await api.GET('/api/circuits/{id}', {
        params: { path: { id: report.value.circuitId }, query: { version: report.value.circuitVersion } },
      }),
    )
  } catch (error) {
    problem.value = (error as Error).message
  }
})
const print = () => window.print()
</script>

<template>
  <main class="page">
    <PageProblem :text="problem" />
    <p v-if="!report && !problem">Fetching the report…</p>
    <template v-if="report">
      <div class="row no-print">
        <Button label="Print" icon="pi pi-print" @click="print" />
        <a :href="`/api/jobs/${id}/report.pdf`" class="figures">PDF, A4</a>
        <a :href="`/api/jobs/${id}/report.pdf?paper=letter`" class="figures">PDF, Letter</a>
        <RouterLink :to="`/jobs/${id}`">To the job</RouterLink>
      </div>
      <header>
        <p class="faint">
          {{ report.area }} · {{ report.enclosure }} · circuit version {{ report.circuitVersion }} · opened
          {{ when(report.openedAt) }}{{ report.closedAt ? ` · closed ${when(report.closedAt)}` : '' }}
        </p>
        <h1>{{ report.circuitTag }} {{ report.circuitTitle }}: {{ report.title }}</h1>
        <p v-for="sentence in report.story.outcome" :key="sentence" class="outcome">{{ sentence }}</p>
        <section v-if="report.story.leftovers.length" class="left" aria-label="Left behind">
          <strong><i class="pi pi-exclamation-triangle" aria-hidden="true" /> Left behind</strong>
          <p v-for="sentence in report.story.leftovers" :key="sentence">{{ sentence }}</p>
        </section>
      </header>
      <section v-if="circuit" class="drawn" aria-label="Drawing with the readings">
        <CircuitDrawing :circuit="circuit" :readings="readings" :lifted="job?.lifted.map((l) => l.conductor) ?? []" />
      </section>
      <section v-for="chapter in report.story.chapters" :key="chapter.title">
        <h2>{{ chapter.title }}</h2>
        <ol>
          <li v-for="line in chapter.lines" :key="line.sequence">
            <span class="figures faint stamp">{{ line.sequence }}. {{ when(line.at) }} {{ line.who }}</span>
            <span v-if="line.struck"
              ><s>{{ line.text }}</s> <strong>struck out: {{ line.struck }}</strong></span
            >
            <span v-else>{{ line.text }}</span>
            <PhotoShown v-if="line.picture" :picture="line.picture" :caption="line.text" large />
          </li>
        </ol>
      </section>
    </template>
  </main>
</template>

<style scoped>
.page {
  padding: 1rem;
  max-width: 1100px;
  margin: 0 auto;
}
.row {
  gap: 1rem;
}
.row a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
h1 {
  font-size: 1.4rem;
}
h2 {
  margin: 1rem 0 0.2rem;
  font-size: 1.1rem;
}
.outcome {
  font-size: 1.05rem;
}
/* Said by words and shape too. */
.left {
  border: 2px solid var(--live);
  border-left-width: 10px;
  padding: 0.4rem 0.8rem;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 17rem minmax(0, 1fr);
  gap: 0.8rem;
  padding: 0.25rem 0;
  border-top: 1px solid var(--line);
}
.drawn {
  overflow-x: auto;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
@media print {
  .page {
    padding: 0;
    max-width: none;
  }
  li {
    break-inside: avoid;
  }
}
</style>
