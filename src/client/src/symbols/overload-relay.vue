<script setup lang="ts">
import { contact, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-if="role === 'link'">
    <rect :x="xs[0]! - 14" :y="height * 0.25" :width="xs[xs.length - 1]! - xs[0]! + 28" :height="height * 0.5" />
    <path v-for="x in xs" :key="x" :d="`M${x} 0V${height * 0.37} h7 v${height * 0.26} h-7 V${height}`" />
  </g>
  <g v-else>
    <path :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
    <path class="mechanical" :d="`M${xs[0]! - 6} ${height / 2} h-12`" />
    <path :d="`M${xs[0]! - 18} ${height / 2 - 7} h-6 v5 h5 v4 h-5 v5 h6`" />
  </g>
</template>
