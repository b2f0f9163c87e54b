<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-for="x in xs" :key="x">
    <path :d="`M${x} 0V${height}`" />
    <rect class="hollow" :x="x - 6" :y="height * 0.25" width="12" :height="height * 0.5" />
  </g>
</template>
