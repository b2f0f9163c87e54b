<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { onMounted, ref } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import SubNav from '@/components/SubNav.vue'

/** How often each piece of upkeep is done: as is usual, or as this plant has it. */
const rules = ref<Schemas['PlantRule'][]>()
const problem = ref('')

async function load(work?: () => Promise<void>) {
  problem.value = ''
  try {
    await work?.()
  } catch (error) {
    problem.value = (error as Error).message
  }
  try {
    rules.value = need(await api.GET('/api/plan/rules'))
  } catch (error) {
    problem.value ||= (error as Error).message
  }
}
onMounted(() => load())

const set = (rule: Schemas['PlantRule'], text: string) =>
  load(async () => {
    const months = text.trim() === '' ? null : Number(text)
    if (months !== null && !Number.isInteger(months))
      throw new Error('Months are a whole number; empty for the usual, 0 for never.')
    const answer = await api.PUT('/api/plan/intervals', { body: { rule: rule.id, circuit: null, months } })
    if (answer.error) need(answer as never)
  })
</script>

<template>
  <main class="page">
    <SubNav part="plan" />
    <h1>Intervals</h1>
    <p class="faint">
      Months between two. Empty: the usual. 0: never. What the law, the insurer or the machine’s maker asks for comes
      first.
    </p>
    <PageProblem :text="problem" />
    <p v-if="!rules && !problem">Fetching the rules…</p>
    <table v-if="rules" class="sheet">
      <thead>
        <tr>
          <th>What</th>
          <th>Circuits</th>
          <th>Usual</th>
          <th>Here</th>
          <th>Took here</th>
          <th>Where it comes from</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rules" :key="r.id">
          <td>{{ r.title }}</td>
          <td class="figures">{{ r.circuits }}</td>
          <td class="figures">{{ r.usual }}</td>
          <td>
            <InputText
              :model-value="r.plant === null || r.plant === undefined ? '' : String(r.plant)"
              inputmode="numeric"
              maxlength="4"
              class="months"
              :aria-label="`Months between two here: ${r.title}`"
              @change="set(r, ($event.target as HTMLInputElement).value)"
            />
          </td>
          <td class="figures">{{ r.minutes ? `${Math.round(r.minutes)} min` : '' }}</td>
          <td class="faint">{{ r.source }}</td>
        </tr>
      </tbody>
    </table>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1200px;
  margin: 0 auto;
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  padding: 0.35rem 0.6rem;
  border-bottom: 1px solid var(--line);
  text-align: left;
}
.months {
  width: 5rem;
}
</style>
