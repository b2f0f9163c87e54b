<script setup lang="ts">
import type { Circuit } from '@/api/client'

// Where the two leads are, by terminal, wire and place; touched, that lead is the one that the next tap moves.
const props = defineProps<{ circuit: Circuit; from: string; to: string; isClamp: boolean; moving: 1 | 2 }>()
const emit = defineEmits<{ moving: [lead: 1 | 2] }>()

const at = (lead: 1 | 2) => (lead === 1 ? props.from : props.to)
const placeOf = (terminal: string) => {
  const device = props.circuit.devices.find((d) => d.tag === terminal.slice(0, terminal.lastIndexOf(':')))
  return props.circuit.locations.find((l) => l.id === device?.location)?.name ?? ''
}
const wireAt = (terminal: string) =>
  props.circuit.conductors.find((c) => c.from === terminal || c.to === terminal)?.wire ?? '–'
</script>

<template>
  <div class="leads">
    <button
      v-for="lead in isClamp ? ([1] as const) : ([1, 2] as const)"
      :key="lead"
      type="button"
      class="lead"
      :class="{ moving: moving === lead }"
      :aria-pressed="moving === lead"
      :title="`Tap terminals to move lead ${lead}`"
      @click="emit('moving', lead)"
    >
      <span class="pin" :class="`pin-${lead}`">{{ lead }}</span>
      <strong>{{ at(lead) || 'tap a terminal' }}</strong>
      <span v-if="at(lead)" class="faint">wire {{ wireAt(at(lead)) }} · {{ placeOf(at(lead)) }}</span>
    </button>
  </div>
</template>

<style scoped>
.leads {
  display: grid;
  gap: 0.35rem;
}
.lead {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 44px;
  padding: 0.3rem 0.5rem;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: transparent;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
}
.lead strong {
  font: 600 1.15rem 'Barlow Semi Condensed';
}
.lead.moving {
  border: 2px dashed var(--petrol);
}
.pin {
  display: inline-grid;
  place-items: center;
  width: 24px;
  height: 24px;
  border-radius: 50%;
  color: var(--sheet);
  font-weight: 600;
  flex: none;
}
.pin-1 {
  background: var(--lead-1);
}
.pin-2 {
  background: var(--lead-2);
}
</style>
