<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path :d="`M${xs[0]} 0V${height / 2 - 13} M${xs[0]} ${height / 2 + 13}V${height}`" />
  <circle class="body" :cx="xs[0]" :cy="height / 2" r="13" />
  <path :d="`M${xs[0]! - 9} ${height / 2 - 9} l18 18 m0 -18 l-18 18`" />
</template>
