<script setup lang="ts">
import { coilLeads, contact, link, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-if="role === 'load'">
    <path :d="coilLeads(xs[0]!, height)" />
    <rect class="body" :x="xs[0]! - 17" :y="height * 0.3" width="34" :height="height * 0.4" />
  </g>
  <g v-else>
    <g v-for="x in xs" :key="x">
      <path :d="contact(x, height, role === 'normallyClosed', made)" />
      <path v-if="role === 'pole'" :d="`M${x - 4} ${height * 0.32} a4 4 0 0 1 8 0`" />
    </g>
    <path class="mechanical" :d="link(xs, height)" />
  </g>
</template>
