<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-if="name">
    <!-- Six leads: the windings go on to the star contactor. -->
    <g v-for="x in xs" :key="x">
      <path :d="`M${x} 0V${height * 0.14} M${x} ${height * 0.86}V${height}`" />
    </g>
    <rect
      class="body"
      :x="xs[0]! - 18"
      :y="height * 0.14"
      :width="xs[xs.length - 1]! - xs[0]! + 36"
      :height="height * 0.72"
      :rx="height * 0.36"
    />
    <text :x="xs[1]" :y="height * 0.62" class="letter" text-anchor="middle">M 3~</text>
  </g>
  <g v-else>
    <path v-for="x in xs" :key="x" :d="`M${x} 0 V${height * 0.18} L${xs[1]! + (x - xs[1]!) * 0.45} ${height * 0.42}`" />
    <circle class="body" :cx="xs[1]" :cy="height * 0.85" :r="height * 0.47" />
    <text :x="xs[1]" :y="height * 0.85" class="letter" text-anchor="middle">M</text>
    <text :x="xs[1]" :y="height * 1.12" class="letter small" text-anchor="middle">3 ~</text>
  </g>
</template>
