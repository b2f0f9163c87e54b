<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path
    :d="`M${xs[0]} 0V${height * 0.2} M${xs[0]} ${height * 0.52}V${height * 0.66} M${xs[0]} ${height * 0.76}V${height}`"
  />
  <rect :x="xs[0]! - 5" :y="height * 0.2" width="10" :height="height * 0.32" />
  <path :d="`M${xs[0]! - 10} ${height * 0.66} h20 M${xs[0]! - 10} ${height * 0.76} h20`" />
</template>
