<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path v-for="x in xs" :key="x" :d="`M${x} 0V${height}`" />
  <rect
    class="hollow"
    :x="xs[0]! - 14"
    :y="height * 0.2"
    :width="xs[xs.length - 1]! - xs[0]! + 28"
    :height="height * 0.6"
  />
</template>
