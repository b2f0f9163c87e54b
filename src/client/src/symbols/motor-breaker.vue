<script setup lang="ts">
import { contact, link, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-if="role === 'pole'">
    <g v-for="x in xs" :key="x">
      <path :d="contact(x, height * 0.62, false, made)" />
      <path :d="`M${x - 4} ${height * 0.2 - 4} l8 8 m0 -8 l-8 8`" />
      <path :d="`M${x} ${height * 0.62} v${height * 0.08} h6 v${height * 0.14} h-6 V${height}`" />
    </g>
    <path class="mechanical" :d="link([xs[0]! - 16, ...xs], height * 0.62)" />
    <path :d="`M${xs[0]! - 21} ${height * 0.31 - 6} v12 m0 -6 h-5`" />
  </g>
  <path v-else :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
</template>
