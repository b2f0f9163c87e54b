<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, need, type Schemas } from '@/api/client'
import CircuitPicker from '@/components/CircuitPicker.vue'
import PageProblem from '@/components/PageProblem.vue'
import { when } from '@/components/format'
import { useSettings } from '@/composables/useSettings'

/** Exercises on simulated panels: begun here, done on the job's own screen, looked at afterwards. */
const router = useRouter()
const { who } = useSettings()
const done = ref<Schemas['ExerciseItem'][]>()
const problem = ref('')
const lessons = ref<Schemas['Lesson'][]>([])
const lesson = ref<string | null>(null)
const busy = ref(false)
const circuit = ref<string>()
const kind = ref<Schemas['Difficulty']>('single')
const advice = ref(false)
const code = ref('')
const kinds = [
  { label: 'One fault', value: 'single' },
  { label: 'Two at once', value: 'two' },
  { label: 'Wired otherwise', value: 'wiring' },
  { label: 'Supply and fuses', value: 'supply' },
  { label: 'A wrong setting', value: 'setting' },
  { label: 'Now and then', value: 'intermittent' },
  { label: 'Tripped by something', value: 'consequence' },
]

onMounted(async () => {
  try {
    lessons.value = need(await api.GET('/api/exercises/lessons'))
    done.value = need(
      await api.GET('/api/exercises', { params: { query: { take: 50, who: who.value || undefined } } }),
    ).items
  } catch (error) {
    problem.value = (error as Error).message
  }
})

async function begin() {
  busy.value = true
  problem.value = ''
  try {
    if (!circuit.value) throw new Error('Choose the circuit whose panel is to be simulated.')
    const job = need(
      await api.POST('/api/exercises', {
        body: {
          circuit: circuit.value,
          difficulty: kind.value,
          code: code.value,
          withAdvice: advice.value,
          who: who.value,
          faults: null,
          lesson: lesson.value,
        },
      }),
    )
    await router.push(`/jobs/${job.id}`)
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
const ending = (e: Schemas['ExerciseItem']) =>
  e.stopped ||
  (e.found === null || e.found === undefined ? 'goes on' : e.found ? 'found and proved' : 'closed, not found')
const isOver = (e: Schemas['ExerciseItem']) => !!e.stopped || typeof e.found === 'boolean'
</script>

<template>
  <main class="page">
    <h1>Practice</h1>
    <p class="faint">
      A fault is hidden in a simulated panel: make and age differ from the drawing as they do in real ones, and what you
      operate, look at and measure comes from there. What would hurt you on a real panel ends the exercise.
    </p>
    <form class="sheet begin" @submit.prevent="begin">
      <div class="field">
        Circuit
        <CircuitPicker v-model="circuit" placeholder="Which panel" @problem="problem = $event" />
      </div>
      <div class="field">
        Lesson
        <Select
          v-model="lesson"
          :options="lessons"
          option-label="title"
          option-value="id"
          placeholder="None, a fault by chance"
          show-clear
          aria-label="Lesson"
        />
      </div>
      <div v-if="!lesson" class="field">
        What is wrong
        <Select v-model="kind" :options="kinds" option-label="label" option-value="value" aria-label="What is wrong" />
      </div>
      <div class="field">
        Suspects and next tests
        <SelectButton
          v-model="advice"
          :options="[
            { label: 'Hidden', value: false },
            { label: 'Shown', value: true },
          ]"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          aria-label="Suspects and next tests"
        />
      </div>
      <label v-if="!lesson" class="field">
        Word of the class, may stay empty
        <InputText v-model="code" maxlength="40" placeholder="the same fault for everybody" />
      </label>
      <p v-if="lesson" class="notice">{{ lessons.find((l) => l.id === lesson)?.notice }}</p>
      <Button type="submit" label="Begin" icon="pi pi-play" :loading="busy" />
    </form>
    <PageProblem :text="problem" />
    <div v-if="done?.length" class="row heading">
      <h2>{{ who ? `Exercises of ${who}` : 'Exercises' }}</h2>
      <a href="/api/exercises/exercises.csv"><i class="pi pi-table" aria-hidden="true" /> Everybody’s, CSV</a>
    </div>
    <ul v-if="done" class="done">
      <li v-for="e in done" :key="e.id" class="sheet">
        <RouterLink :to="isOver(e) ? `/practice/${e.id}/debrief` : `/jobs/${e.id}`"
          ><span class="figures">{{ when(e.openedAt) }}</span> {{ e.circuitTag }} {{ e.title }}</RouterLink
        >
        <span>{{ ending(e) }}</span>
        <span class="faint figures"
          >{{ e.readings }} {{ e.readings === 1 ? 'reading' : 'readings'
          }}{{ e.withAdvice ? ', with advice' : '' }}</span
        >
      </li>
    </ul>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1100px;
  margin: 0 auto;
}
.begin {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.7rem 1rem;
  padding: 0.8rem;
}
.notice {
  flex-basis: 100%;
  margin: 0;
  border-left: 4px solid var(--petrol);
  padding-left: 0.6rem;
}
.field {
  display: grid;
  gap: 0.2rem;
  min-width: 0;
}
.heading {
  justify-content: space-between;
}
.done {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 0.4rem;
}
.done li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  align-items: center;
  min-height: 48px;
  padding: 0.3rem 0.8rem;
}
</style>
