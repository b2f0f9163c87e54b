<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, watch } from 'vue'
import type { Circuit, Schemas, Step } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { useOperation } from '@/composables/useOperation'
import CircuitDrawing from './CircuitDrawing.vue'

const props = defineProps<{ circuit: Circuit; simulate: (steps: Step[]) => Promise<Schemas['OperationView']> }>()
const { operation, happened, problem, playing, clock, start, tap, wait, play } = useOperation(
  () => props.circuit,
  (steps) => props.simulate(steps),
)
onMounted(() => start())
watch(
  () => props.circuit,
  () => start(),
)

const words = (seconds: number) => (seconds < 10 ? seconds.toFixed(1) : Math.ceil(seconds).toString())
</script>

<template>
  <div class="operate">
    <div class="controls" role="toolbar" aria-label="Time">
      <strong class="figures clock">{{ clock }}</strong>
      <Button
        label="1 s"
        icon="pi pi-step-forward"
        severity="secondary"
        outlined
        aria-label="Wait 1 second"
        @click="wait(1)"
      />
      <Button
        label="10 s"
        icon="pi pi-fast-forward"
        severity="secondary"
        outlined
        aria-label="Wait 10 seconds"
        @click="wait(10)"
      />
      <Button
        v-if="operation?.nextEventSeconds != null"
        :label="`To what happens next (${words(Number(operation.nextEventSeconds))} s)`"
        icon="pi pi-clock"
        severity="secondary"
        outlined
        @click="wait(Number(operation.nextEventSeconds) + 0.001)"
      />
      <Button
        :label="playing ? 'Stop the clock' : 'Let time run'"
        :icon="playing ? 'pi pi-pause' : 'pi pi-play'"
        severity="secondary"
        outlined
        :aria-pressed="playing"
        @click="play"
      />
      <Button label="From the beginning" icon="pi pi-replay" text @click="start()" />
    </div>
    <PageProblem :text="problem" />
    <p class="faint">
      The healthy circuit, simulated. Tap a button to press and hold it, tap again to let go; tap anything else that can
      be operated to move it on. Thick broken lines are live.
    </p>
    <div class="both">
      <CircuitDrawing :circuit="circuit" :operation="operation" tappable="operable" @part="(device) => tap(device)" />
      <aside aria-live="polite">
        <h2>What happened</h2>
        <p v-if="happened.length === 0" class="faint">Nothing yet: the supply is on and nothing is touched.</p>
        <ol>
          <li v-for="(line, i) in happened" :key="i" class="figures">{{ line }}</li>
        </ol>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.controls {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.clock {
  min-width: 5rem;
  font-size: 1.2rem;
}
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(11rem, 15rem);
  gap: 1rem;
}
ol {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 0.2rem;
}
@media (max-width: 800px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
