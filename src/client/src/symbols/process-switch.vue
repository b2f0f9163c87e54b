<script setup lang="ts">
import { contact, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
  <path class="mechanical" :d="`M${xs[0]! + (role === 'normallyClosed' ? 5 : -6)} ${height / 2} H${xs[0]! - 16}`" />
  <path :d="`M${xs[0]! - 16} ${height / 2 - 7} v14 l-9 -7 z`" />
</template>
