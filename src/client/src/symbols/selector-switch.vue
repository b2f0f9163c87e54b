<script setup lang="ts">
import { contact, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
  <path class="mechanical" :d="`M${xs[0]! + (role === 'normallyClosed' ? 5 : -6)} ${height / 2} H${xs[0]! - 20}`" />
  <path
    :d="`M${xs[0]! - 20} ${height / 2 - 8} v16 m0 -8 h-6 M${xs[0]! - 20} ${height / 2 - 8} h6 M${xs[0]! - 20} ${height / 2 + 8} h-6`"
  />
</template>
