<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path v-for="x in xs" :key="x" :d="`M${x} 0V${height * 0.3}`" />
  <rect :x="xs[0]! - 14" :y="height * 0.3" :width="xs[xs.length - 1]! - xs[0]! + 28" :height="height * 0.7" />
  <path :d="`M${xs[0]! - 14} ${height} L${xs[xs.length - 1]! + 14} ${height * 0.3}`" />
  <text :x="xs[0]! - 2" :y="height * 0.62" class="letter small" text-anchor="middle">~</text>
  <path :d="`M${xs[xs.length - 1]! - 4} ${height * 0.78} h14 m0 5 h-14`" />
</template>
