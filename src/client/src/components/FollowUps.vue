<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { onMounted, ref, watch } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import DayField from './DayField.vue'
import { useSettings } from '@/composables/useSettings'

/** What is still to be done on a circuit, with the day by which; written down here and ticked off. */
const props = defineProps<{ circuit: string; job?: string }>()
const emit = defineEmits<{ open: [count: number] }>()
const { who } = useSettings()
const items = ref<Schemas['FollowUpItem'][]>([])
const text = ref('')
const due = ref('')
const problem = ref('')

/** What is to do stands as it is kept after whatever was tried. */
async function load(work?: () => Promise<void>) {
  problem.value = ''
  try {
    await work?.()
    items.value = need(
      await api.GET('/api/follow-ups', { params: { query: { circuit: props.circuit, take: 200 } } }),
    ).items
    emit('open', items.value.length)
  } catch (error) {
    problem.value = (error as Error).message
  }
}
const add = () =>
  load(async () => {
    if (!text.value.trim() || !due.value) throw new Error('Say what is to be done, and by which day.')
    need(
      await api.POST('/api/circuits/{id}/follow-ups', {
        params: { path: { id: props.circuit } },
        body: { text: text.value, due: due.value, who: who.value, job: props.job ?? null },
      }),
    )
    text.value = due.value = ''
  })
const done = (id: string) =>
  load(async () => {
    need(await api.POST('/api/follow-ups/{id}/done', { params: { path: { id } }, body: { who: who.value } }))
  })

onMounted(() => load())
watch(
  () => props.circuit,
  () => load(),
)
</script>

<template>
  <div class="follow-ups">
    <ul v-if="items.length">
      <li v-for="item in items" :key="item.id">
        <strong class="figures">{{ item.due }}</strong> <span>{{ item.text }}</span>
        <span class="faint">{{ item.who }}</span>
        <Button label="Tick off" size="small" severity="secondary" outlined @click="done(item.id)" />
      </li>
    </ul>
    <form class="row no-print" @submit.prevent="add">
      <InputText
        v-model="text"
        placeholder="What is still to be done"
        aria-label="What is still to be done"
        maxlength="500"
        class="text"
      />
      <label>by <DayField v-model="due" label="By which day" /></label>
      <Button type="submit" label="Note it" severity="secondary" outlined />
    </form>
    <p v-if="problem" class="error" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 0.4rem;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
.text {
  flex: 1;
  min-width: 12rem;
}
.error {
  margin: 0;
  color: var(--live);
  font-weight: 600;
}
</style>
