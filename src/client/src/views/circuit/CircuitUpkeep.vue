<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { onMounted, ref } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import WorkDialog from '../plan/WorkDialog.vue'

/** What this circuit needs done by rule, soonest first; the rest of the plan is on its own page. */
const props = defineProps<{ id: string }>()
const items = ref<Schemas['PlanItem'][]>([])
const doing = ref<Schemas['PlanItem']>()
const problem = ref('')
const today = new Date().toLocaleDateString('sv-SE')

async function load() {
  doing.value = undefined
  try {
    const query = { circuit: props.id, kind: 'upkeep', take: 50 }
    items.value = need(await api.GET('/api/plan', { params: { query } })).items
  } catch (error) {
    problem.value = (error as Error).message
  }
}
onMounted(load)

/** The time between two on this circuit; empty goes back to the plant's or the usual one. */
async function setInterval(rule: string, text: string) {
  try {
    const months = text.trim() === '' ? null : Number(text)
    if (months !== null && !Number.isInteger(months))
      throw new Error('Months are a whole number; empty for the plant’s, 0 for never.')
    const answer = await api.PUT('/api/plan/intervals', { body: { rule, circuit: props.id, months } })
    if (answer.error) need(answer as never)
    problem.value = ''
    await load()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <p v-if="problem" class="error" role="alert">{{ problem }}</p>
  <details v-if="items.length">
    <summary>
      Upkeep by rule, next {{ items[0]!.due }}
      <strong v-if="items[0]!.due < today" class="late">overdue</strong>
    </summary>
    <ul>
      <li v-for="item in items" :key="item.id">
        <strong class="figures" :class="{ late: item.due < today }">{{ item.due }}</strong>
        <span class="what"
          >{{ item.title }} <span v-if="item.why" class="why">{{ item.why }}</span></span
        >
        <label class="every"
          >every
          <InputText
            :model-value="String(item.months)"
            inputmode="numeric"
            maxlength="4"
            :aria-label="`Months between two on this circuit: ${item.title}`"
            @change="setInterval(item.rule, ($event.target as HTMLInputElement).value)"
          />
          months</label
        >
        <Button label="Do it" size="small" severity="secondary" outlined @click="doing = item" />
      </li>
    </ul>
  </details>
  <WorkDialog :item="doing" @done="load" @close="doing = undefined" />
</template>

<style scoped>
summary {
  min-height: 44px;
  padding-top: 0.6rem;
  font-weight: 600;
  cursor: pointer;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
.what {
  flex: 1;
}
.every :deep(input) {
  width: 4rem;
}
li {
  flex-wrap: wrap;
}
.why {
  color: var(--doubt);
}
.late,
.error {
  color: var(--live);
}
</style>
