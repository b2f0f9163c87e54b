<script setup lang="ts">
/** A meter lead on a point of the drawing; 0 is none. */
defineProps<{ lead: 0 | 1 | 2; x: number; y: number }>()
</script>

<template>
  <g v-if="lead" :class="`lead lead-${lead}`">
    <circle :cx="x" :cy="y" r="11" />
    <text :x="x" :y="y + 5" text-anchor="middle">{{ lead }}</text>
  </g>
</template>

<style scoped>
.lead circle {
  stroke: var(--sheet);
  stroke-width: 2;
}
.lead-1 circle {
  fill: var(--lead-1);
}
.lead-2 circle {
  fill: var(--lead-2);
}
.lead text {
  font: 600 14px 'Barlow';
  fill: var(--sheet);
}
</style>
