<script setup lang="ts">
import { contact, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
  <path class="mechanical" :d="`M${xs[0]! + (role === 'normallyClosed' ? 5 : -6)} ${height / 2} H${xs[0]! - 22}`" />
  <path :d="`M${xs[0]! - 17} ${height / 2 - 7} h-5 v14 h5`" />
</template>
