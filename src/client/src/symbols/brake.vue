<script setup lang="ts">
import { coilLeads, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path :d="coilLeads(xs[0]!, height)" />
  <rect class="body" :x="xs[0]! - 17" :y="height * 0.3" width="34" :height="height * 0.4" />
  <path class="mechanical" :d="`M${xs[0]! - 17} ${height / 2} h-12`" />
  <path :d="`M${xs[0]! - 29} ${height * 0.3} v${height * 0.4} M${xs[0]! - 33} ${height * 0.3} v${height * 0.4}`" />
</template>
