<script setup lang="ts">
import Button from 'primevue/button'
import type { Diagnosis } from '@/api/client'
import { percent } from '@/components/format'
import RepairGuide from '@/components/RepairGuide.vue'
import { useSettings } from '@/composables/useSettings'

defineProps<{ diagnosis: Diagnosis }>()
const emit = defineEmits<{ meter: [good: boolean] }>()
const { learn } = useSettings()
</script>

<template>
  <section class="sheet list" aria-label="Suspects">
    <h2>Suspects</h2>
    <p class="summary" :class="diagnosis.status" role="status">{{ diagnosis.summary }}</p>
    <ul v-if="diagnosis.waysOut.length" class="ways">
      <li v-for="way in diagnosis.waysOut" :key="way">{{ way }}</li>
    </ul>
    <div v-if="diagnosis.waysOut.length" class="row no-print">
      <Button label="Meter checked: good" severity="secondary" variant="outlined" @click="emit('meter', true)" />
      <Button label="The meter was wrong" severity="secondary" variant="outlined" @click="emit('meter', false)" />
    </div>
    <template v-if="diagnosis.causes.length">
      <h3>What may be behind it</h3>
      <ul class="causes">
        <li v-for="c in diagnosis.causes" :key="c.unit + c.title">
          <span class="figures">{{ percent(c.probability) }}</span> <strong>{{ c.unit }}</strong> {{ c.title }}
        </li>
      </ul>
    </template>
    <template v-if="diagnosis.status === 'found' || diagnosis.status === 'almostFound'">
      <p v-if="diagnosis.remedy"><strong>Remedy:</strong> {{ diagnosis.remedy }}</p>
      <p v-if="diagnosis.askWhy"><strong>Ask why:</strong> {{ diagnosis.askWhy }}</p>
      <details v-if="diagnosis.guide">
        <summary class="plain">How to repair it, parts, causes</summary>
        <RepairGuide :guide="diagnosis.guide" class="brief" />
      </details>
    </template>
    <details v-for="unit in diagnosis.units.slice(0, 8)" :key="unit.unit || 'none'">
      <summary>
        <span class="bar" aria-hidden="true"><span :style="{ width: `${unit.probability * 100}%` }" /></span>
        <span class="share figures">{{ percent(unit.probability) }}</span>
        <span class="title">
          <strong>{{ unit.unit || 'No fault now' }}</strong> {{ unit.title }}
          <em v-if="(unit.suspects[0]?.comesAndGoes ?? 0) > 0.5">comes and goes </em>
          <span class="faint">{{ unit.place }}</span>
        </span>
      </summary>
      <p v-if="unit.alike.length" class="faint">No reading on offer tells it from {{ unit.alike.join(', ') }}.</p>
      <div v-for="suspect in unit.suspects" :key="suspect.fault">
        <p v-if="unit.suspects.length > 1">
          <span class="figures">{{ percent(suspect.probability) }}</span> {{ suspect.title }}
        </p>
        <ul>
          <li
            v-for="reason in suspect.reasons"
            :key="reason.entry + reason.text"
            :class="reason.weight > 0 ? 'for' : 'against'"
          >
            <strong>{{ reason.weight > 0 ? 'for' : 'against' }}</strong> {{ reason.text }}
          </li>
        </ul>
      </div>
    </details>
    <label v-if="diagnosis.repairsHere + diagnosis.repairsInPlant > 0 || !learn" class="faint learn">
      <input v-model="learn" type="checkbox" /> Earlier repairs count:
      {{ learn ? `${diagnosis.repairsHere} here, ${diagnosis.repairsInPlant} in the plant` : 'left out' }}
    </label>
  </section>
</template>

<style scoped>
.learn {
  display: block;
  padding-top: 0.6rem;
}
.list {
  padding: 0.8rem;
}
.summary {
  font-weight: 500;
}
.summary.contradiction {
  color: var(--live);
}
summary {
  display: grid;
  grid-template-columns: 56px 58px 1fr;
  gap: 0.5rem;
  align-items: center;
  min-height: 44px;
  border-top: 1px solid var(--line);
  cursor: pointer;
}
summary.plain {
  display: block;
  padding: 0.7rem 0;
  color: var(--petrol);
}
.brief :deep(.pick) {
  display: none;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.bar {
  height: 12px;
  border: 1px solid var(--doubt);
}
.bar span {
  display: block;
  height: 100%;
  background: var(--doubt);
}
.share {
  text-align: right;
}
ul {
  margin: 0.2rem 0 0.6rem;
  padding-left: 1.1rem;
  font-size: 0.95rem;
}
.against strong {
  color: var(--live);
}
.for strong {
  color: var(--petrol);
}
</style>
