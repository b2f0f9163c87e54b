<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import { useDebounceFn } from '@vueuse/core'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { api, need, type Schemas } from '@/api/client'

// What stands in the panel is counted by touches; what nobody counted stays unsaid. The service finds the starters that have it.
const found = defineModel<Schemas['CountedView']>('found')
const sorts = ref<Schemas['PanelSort'][]>([])
const counts = reactive<Record<string, number>>({})
const coil = ref(0)
const problem = ref('')
const groups = computed(() => [...new Set(sorts.value.map((s) => s.group))])
/** What control circuits are made for (IEC 60947-4-1 and usual American ones). */
const coils = [24, 42, 48, 110, 120, 208, 230, 240, 277, 400, 415, 480]

onMounted(async () => {
  try {
    sorts.value = need(await api.GET('/api/setup/sorts'))
  } catch (error) {
    problem.value = (error as Error).message
  }
})

/** The first touch on minus says that there is none; one step below that it is not counted any more. */
function step(sort: Schemas['PanelSort'], by: number) {
  const now = counts[sort.id]
  if (now === undefined) counts[sort.id] = by > 0 ? 1 : 0
  else if (now + by < 0) delete counts[sort.id]
  else counts[sort.id] = Math.min(sort.most, now + by)
}

let asked = 0
const search = useDebounceFn(async () => {
  problem.value = ''
  const number = ++asked
  if (!Object.keys(counts).length && !coil.value) return void (found.value = undefined)
  try {
    const answer = need(
      await api.POST('/api/setup/counted', { body: { counts: { ...counts }, coilVolts: coil.value } }),
    )
    // An answer to an earlier count may come after that to the last one.
    if (number === asked) found.value = answer
  } catch (error) {
    if (number === asked) problem.value = (error as Error).message
  }
}, 300)
watch([counts, coil], search)
</script>

<template>
  <p class="faint">
    Count what you see; leave out what you do not know. The starters that have it are drawn as you go.
  </p>
  <section v-for="group in groups" :key="group" class="sorts">
    <h3>{{ group }}</h3>
    <div
      v-for="sort in sorts.filter((s) => s.group === group)"
      :key="sort.id"
      class="sort"
      :class="{ wanted: found?.tellsApart?.id === sort.id, counted: counts[sort.id] !== undefined }"
      :data-sort="sort.id"
      role="group"
      :aria-label="sort.name"
    >
      <span>{{ sort.name }}</span>
      <Button
        icon="pi pi-minus"
        severity="secondary"
        outlined
        :aria-label="counts[sort.id] === undefined ? `No ${sort.name}` : `One of the ${sort.name} fewer`"
        @click="step(sort, -1)"
      />
      <output class="figures" :aria-label="`${sort.name} counted`">{{ counts[sort.id] ?? '–' }}</output>
      <Button
        icon="pi pi-plus"
        severity="secondary"
        outlined
        :aria-label="`One of the ${sort.name} more`"
        @click="step(sort, 1)"
      />
    </div>
    <template v-if="group === groups[0]">
      <label class="label" for="coil-volts">On the label of a contactor's coil</label>
      <Select
        :model-value="coil || null"
        :options="coils"
        :option-label="(v: number) => `${v} V`"
        input-id="coil-volts"
        placeholder="not read"
        show-clear
        fluid
        @update:model-value="coil = $event ?? 0"
      />
    </template>
  </section>
  <a v-if="found" href="#fits" class="jump">{{ found.matches.length }} starters are nearest: see them</a>
  <p v-if="problem" class="error" role="alert">{{ problem }}</p>
</template>

<style scoped>
h3 {
  margin: 0.6rem 0 0.2rem;
}
.sort {
  display: grid;
  grid-template-columns: 1fr 44px 2rem 44px;
  align-items: center;
  gap: 0.3rem;
  min-height: 48px;
  padding-left: 0.4rem;
  border-left: 4px solid transparent;
}
.sort.counted {
  border-color: var(--petrol);
}
.sort.wanted {
  border-color: var(--doubt);
}
.sort :deep(.p-button) {
  width: 44px;
  height: 44px;
}
output {
  text-align: center;
  font-size: 1.1rem;
}
.label {
  display: block;
  margin: 0.5rem 0 0.2rem;
}
.jump {
  display: none;
}
@media (max-width: 900px) {
  .jump {
    position: sticky;
    bottom: 0;
    z-index: 2;
    display: flex;
    align-items: center;
    min-height: 48px;
    padding: 0 0.6rem;
    font-weight: 600;
    background: var(--paper);
    border-top: 2px solid var(--petrol);
  }
}
.error {
  color: var(--live);
  font-weight: 600;
}
</style>
