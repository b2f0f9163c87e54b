<script setup lang="ts">
import Button from 'primevue/button'
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
.why {
  color: var(--doubt);
}
.late,
.error {
  color: var(--live);
}
</style>
