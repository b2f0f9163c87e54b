<script setup lang="ts">
import { computed } from 'vue'
import type { Circuit } from '@/api/client'
import { useSettings } from '@/composables/useSettings'
import DrawnPart from './DrawnPart.vue'
import DrawnWires from './DrawnWires.vue'
import { placed, Plane } from './plane'

/** The control circuit at a glance: its shape, to tell it from others; nothing in it is read or touched. */
const props = defineProps<{ circuit: Circuit }>()
const { school } = useSettings()
const sheet = computed(
  () =>
    props.circuit.sheets.find((s) => s.type === 'control') ?? (props.circuit.sheets[0] as Circuit['sheets'][number]),
)
const plane = computed(() => new Plane(sheet.value, school.value))
const parts = computed(() => sheet.value.parts.map((part) => placed(plane.value, part)))
</script>

<template>
  <svg class="small" :viewBox="`0 0 ${plane.width} ${plane.height}`" aria-hidden="true">
    <DrawnWires :sheet="sheet" :plane="plane" :shares="{}" :live="new Set()" />
    <DrawnPart
      v-for="part in parts"
      :key="part.device + part.element + part.left + part.top"
      :part="part"
      :circuit="circuit"
      :school="school"
      :is-ladder="plane.isLadder"
      :share="0"
      :is-whole="false"
    />
  </svg>
</template>

<style scoped>
.small {
  width: 100%;
  height: 150px;
}
.small :deep(text) {
  display: none;
}
.small :deep(*) {
  vector-effect: non-scaling-stroke;
}
</style>
