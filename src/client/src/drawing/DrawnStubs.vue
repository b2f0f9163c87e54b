<script setup lang="ts">
import type { Plane, Sheet } from './plane'

// Branches that are folded away: where they would begin, and who is in them.
defineProps<{ sheet: Sheet; plane: Plane }>()
</script>

<template>
  <g v-for="stub in sheet.stubs" :key="`${stub.x} ${stub.y}`" :transform="plane.at(stub.x, stub.y)" class="stub">
    <path :d="plane.isLadder ? 'M0 -5 V5 M4 -5 V5' : 'M-5 0 H5 M-5 4 H5'" />
    <text :transform="plane.isLadder ? 'translate(10 4)' : 'translate(-4 18)'">{{ stub.text }}</text>
  </g>
</template>

<style scoped>
.stub path {
  fill: none;
  stroke: var(--faint);
  stroke-width: 1.8;
}
.stub text {
  font: 600 12px 'Barlow Semi Condensed';
  fill: var(--faint);
}
</style>
