<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-for="x in xs" :key="x">
    <path :d="`M${x} 0V${height * 0.25} M${x} ${height * 0.8}V${height * 0.95}`" />
    <rect class="body" :x="x - 7" :y="height * 0.25" width="14" :height="height * 0.55" />
    <path :d="`M${x - 7} ${height * 0.39} h14 m0 ${height * 0.14} h-14 m0 ${height * 0.14} h14`" />
  </g>
  <path :d="`M${xs[0]} ${height * 0.95} H${xs[xs.length - 1]}`" />
</template>
