<script setup lang="ts">
import { computed } from 'vue'
import type { Circuit } from '@/api/client'

const props = defineProps<{ circuit: Circuit; wire?: string; terminal?: string; tappable?: boolean }>()
defineEmits<{ terminal: [terminal: string] }>()

const conductors = computed(() =>
  props.circuit.conductors.filter((c) =>
    props.wire ? c.wire === props.wire : c.from === props.terminal || c.to === props.terminal,
  ),
)
const place = (terminal: string) => {
  const device = props.circuit.devices.find((d) => d.tag === terminal.slice(0, terminal.lastIndexOf(':')))
  return props.circuit.locations.find((l) => l.id === device?.location)?.name ?? ''
}
</script>

<template>
  <p v-if="conductors.length === 0" class="faint">No conductor is landed here.</p>
  <ul>
    <li v-for="c in conductors" :key="c.id">
      <strong>{{ c.wire }}</strong>
      <span class="faint figures">({{ c.id }}, {{ c.metres }} m, {{ c.squareMillimetres }} mm²)</span>
      <div class="row">
        <template v-for="end in [c.from, c.to]" :key="end">
          <button v-if="tappable" type="button" class="end" @click="$emit('terminal', end)">{{ end }}</button>
          <span v-else>{{ end }}</span>
          <span class="faint">{{ place(end) }}</span>
        </template>
      </div>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 0.6rem;
}
.end {
  border: 1px solid var(--petrol);
  background: var(--sheet);
  color: var(--petrol);
  font: inherit;
  padding: 0 0.7rem;
  border-radius: 3px;
  cursor: pointer;
}
</style>
