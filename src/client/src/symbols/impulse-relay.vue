<script setup lang="ts">
import { coilLeads, contact, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-if="role === 'load'">
    <path :d="coilLeads(xs[0]!, height)" />
    <rect class="body" :x="xs[0]! - 17" :y="height * 0.3" width="34" :height="height * 0.4" />
    <path :d="`M${xs[0]! - 10} ${height * 0.58} h7 v${-height * 0.16} h6 v${height * 0.16} h7`" />
  </g>
  <path v-else :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
</template>
