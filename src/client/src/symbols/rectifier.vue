<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path v-for="x in xs" :key="x" :d="`M${x} 0V${height * 0.3}`" />
  <rect :x="xs[0]! - 14" :y="height * 0.3" :width="xs[xs.length - 1]! - xs[0]! + 28" :height="height * 0.7" />
  <path :d="`M${(xs[0]! + xs[xs.length - 1]!) / 2 - 16} ${height * 0.65} h32 m-22 -8 v16 l12 -8 z m12 0 v16`" />
</template>
