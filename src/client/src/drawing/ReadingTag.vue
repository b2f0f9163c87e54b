<script setup lang="ts">
/** The latest reading at a point, on a tag left of it. */
defineProps<{ text?: string; x: number; y: number }>()
</script>

<template>
  <g v-if="text" class="reading">
    <rect :x="x - 22" :y="y - 9" width="44" height="18" rx="2" />
    <text :x="x" :y="y + 4" text-anchor="middle">{{ text }}</text>
  </g>
</template>

<style scoped>
.reading rect {
  fill: var(--paper);
  stroke: var(--line);
}
.reading text {
  font: 600 12px 'Barlow';
  font-variant-numeric: tabular-nums;
  fill: var(--ink);
}
</style>
