<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path v-for="x in xs" :key="x" :d="`M${x} 0 V${height * 0.18} L${xs[1]! + (x - xs[1]!) * 0.45} ${height * 0.42}`" />
  <circle :cx="xs[1]" :cy="height * 0.85" :r="height * 0.47" />
  <text :x="xs[1]" :y="height * 0.85" class="letter" text-anchor="middle">M</text>
  <text :x="xs[1]" :y="height * 1.12" class="letter small" text-anchor="middle">3 ~</text>
</template>
