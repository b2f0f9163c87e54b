<script setup lang="ts">
import { contact, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-if="role === 'load'">
    <path :d="`M${xs[0]} 0V${height * 0.25} M${xs[0]} ${height * 0.75}V${height}`" />
    <rect class="body" :x="xs[0]! - 17" :y="height * 0.25" width="34" :height="height * 0.5" />
    <path :d="`M${xs[0]! - 7} ${height * 0.4} v${height * 0.2} l13 ${-height * 0.1} z`" />
  </g>
  <g v-else>
    <path :d="contact(xs[0]!, height, false, made)" />
    <rect class="mechanical" :x="xs[0]! - 20" :y="height * 0.16" width="36" :height="height * 0.68" />
  </g>
</template>
