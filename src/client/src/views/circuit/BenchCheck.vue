<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, onMounted, reactive, ref } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { when } from '@/components/format'
import { useSettings } from '@/composables/useSettings'

const props = defineProps<{ id: string }>()
const { who } = useSettings()
const items = ref<Schemas['BenchCheckItem'][]>()
const done = ref<Schemas['BenchCheckView'][]>([])
const readings = reactive<Record<string, string>>({})
const looks = reactive<Record<string, boolean | undefined>>({})
const problem = ref('')
const notice = ref('')

const devices = computed(() => [...new Set((items.value ?? []).map((i) => i.device))])
const filled = computed(
  () =>
    Object.values(readings).filter((r) => r.trim()).length + Object.values(looks).filter((l) => l !== undefined).length,
)

async function load() {
  try {
    const path = { path: { id: props.id } }
    items.value = need(await api.GET('/api/circuits/{id}/bench-check', { params: path }))
    done.value = need(await api.GET('/api/circuits/{id}/bench-checks', { params: path }))
  } catch (error) {
    problem.value = (error as Error).message
  }
}

async function record() {
  problem.value = notice.value = ''
  try {
    const result = need(
      await api.POST('/api/circuits/{id}/bench-checks', {
        params: { path: { id: props.id } },
        body: {
          who: who.value,
          items: (items.value ?? [])
            .filter((i) => (i.isMeasured ? readings[i.id]?.trim() : looks[i.id] !== undefined))
            .map((i) => ({ id: i.id, reading: readings[i.id]?.trim() ?? '', good: looks[i.id] ?? null })),
        },
      }),
    )
    notice.value = `Recorded: ${result.passed} good, ${result.failed} not good.`
    for (const key of Object.keys(readings)) delete readings[key]
    for (const key of Object.keys(looks)) delete looks[key]
    await load()
  } catch (error) {
    problem.value = (error as Error).message
  }
}

onMounted(load)
</script>

<template>
  <PageProblem :text="problem" />
  <p v-if="notice" role="status">{{ notice }}</p>
  <p>
    Every component by itself, before use or after a repair: isolated, proved dead, wires off. Write ohms as 0.3, 460,
    4.7k or OL; each is judged when recorded. A contact that passes by hand may still be worn: the armature
    over-travels.
  </p>
  <section v-if="done.length" class="sheet past">
    <h2>Recorded</h2>
    <details v-for="check in done" :key="check.id">
      <summary class="figures">
        {{ when(check.at) }} {{ check.who }}: {{ check.passed }} good<strong v-if="check.failed"
          >, {{ check.failed }} not good</strong
        >
      </summary>
      <ul>
        <li v-for="item in check.items" :key="item.id" :class="{ bad: !item.good }">
          {{ item.device }} {{ item.what }}: {{ item.reading || 'looked at' }} – {{ item.good ? 'good' : 'NOT GOOD' }}
        </li>
      </ul>
    </details>
  </section>
  <p v-if="!items && !problem">Working out the checks…</p>
  <form v-if="items" @submit.prevent="record">
    <fieldset v-for="tag in devices" :key="tag" class="sheet">
      <legend>{{ tag }}</legend>
      <div v-for="item in items.filter((i) => i.device === tag)" :key="item.id" class="item">
        <span
          >{{ item.what }} <span v-if="item.leads" class="faint figures">{{ item.leads }}</span></span
        >
        <span class="faint figures">{{ item.good }}</span>
        <InputText
          v-if="item.isMeasured"
          v-model="readings[item.id]"
          size="small"
          placeholder="Ω"
          :aria-label="`${tag} ${item.what}, ohms`"
        />
        <span v-else class="choice">
          <label><input v-model="looks[item.id]" type="radio" :name="item.id" :value="true" /> good</label>
          <label><input v-model="looks[item.id]" type="radio" :name="item.id" :value="false" /> not good</label>
        </span>
      </div>
    </fieldset>
    <Button type="submit" :label="`Record (${filled} done)`" icon="pi pi-check" class="no-print" />
  </form>
</template>

<style scoped>
fieldset {
  margin: 0.6rem 0;
  padding: 0.4rem 0.8rem;
}
legend {
  font-weight: 600;
}
.item {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 10rem 12rem;
  gap: 0.6rem;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--line);
}
.past {
  padding: 0.4rem 0.8rem;
}
.bad {
  color: var(--live);
  font-weight: 600;
}
.choice {
  display: flex;
  gap: 1rem;
}
@media (max-width: 600px) {
  .item {
    grid-template-columns: minmax(0, 1fr) 7rem;
  }
}
</style>
