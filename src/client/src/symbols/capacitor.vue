<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path :d="`M${xs[0]} 0V${height * 0.45} M${xs[0]} ${height * 0.55}V${height}`" />
  <path :d="`M${xs[0]! - 12} ${height * 0.45} h24 M${xs[0]! - 12} ${height * 0.55} h24`" />
</template>
