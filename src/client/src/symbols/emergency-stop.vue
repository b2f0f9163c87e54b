<script setup lang="ts">
import { contact, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
  <path class="mechanical" :d="`M${xs[0]! + 5} ${height / 2} H${xs[0]! - 20}`" />
  <path :d="`M${xs[0]! - 20} ${height / 2 - 9} a9 9 0 0 0 0 18 z`" />
  <path :d="`M${xs[0]! - 12} ${height / 2 - 4} l4 4 l4 -4`" />
</template>
