<script setup lang="ts">
import { coilLeads, contact, delay, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-if="role === 'load'">
    <path :d="coilLeads(xs[0]!, height)" />
    <rect class="body" :x="xs[0]! - 17" :y="height * 0.3" width="34" :height="height * 0.4" />
    <path
      :d="`M${xs[0]! - 17} ${height * 0.3} h-11 v${height * 0.4} h11 m-11 ${-height * 0.4} l11 ${height * 0.4} m-11 0 l11 ${-height * 0.4}`"
    />
  </g>
  <g v-else>
    <path :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
    <path v-if="delayed" :d="delay(xs[0]! + (role === 'normallyClosed' ? 12 : 0), height)" />
  </g>
</template>
