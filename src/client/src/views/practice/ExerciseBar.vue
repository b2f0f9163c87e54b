<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'
import { api, need, type Job } from '@/api/client'
import { useSettings } from '@/composables/useSettings'

/** That this is an exercise, what it has cost so far, and its end. */
const props = defineProps<{ job: Job }>()
const emit = defineEmits<{ ended: [] }>()
const { who } = useSettings()
const problem = ref('')

async function giveUp() {
  try {
    need(
      await api.POST('/api/exercises/{id}/give-up', {
        params: { path: { id: props.job.id } },
        body: { who: who.value },
      }),
    )
    emit('ended')
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <section v-if="job.exercise" class="exercise" :class="{ stopped: job.exercise.stopped }" aria-label="Exercise">
    <strong>Practice<span class="wide">, simulated panel</span></strong>
    <span class="figures"
      >{{ Math.round(job.exercise.minutes) }} min, {{ job.exercise.readings }}
      {{ job.exercise.readings === 1 ? 'reading' : 'readings' }}, {{ job.exercise.places }}
      {{ job.exercise.places === 1 ? 'place' : 'places' }} opened</span
    >
    <span v-for="m in job.exercise.mistakes" :key="m" class="mistake"
      ><i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ m }}</span
    >
    <strong v-if="job.exercise.stopped" role="alert">{{ job.exercise.stopped }}</strong>
    <Button
      v-if="job.exercise.stopped || job.isClosed"
      label="Debrief"
      icon="pi pi-search"
      size="small"
      class="end"
      @click="emit('ended')"
    />
    <Button v-else label="Give up and look" size="small" severity="secondary" outlined class="end" @click="giveUp" />
    <span v-if="problem" role="alert">{{ problem }}</span>
  </section>
</template>

<style scoped>
.exercise {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.2rem 1rem;
  padding: 0.2rem 0.8rem;
  border-bottom: 3px dashed var(--petrol);
}
.exercise.stopped {
  background: var(--live-fill);
  border-color: var(--live);
}
.mistake {
  color: var(--doubt);
}
.end {
  margin-left: auto;
}
/* One line on a phone: what is counted, and the end. */
@media (max-width: 500px) {
  .wide {
    display: none;
  }
  .exercise {
    gap: 0 0.6rem;
    padding: 0 0.5rem;
  }
}
</style>
