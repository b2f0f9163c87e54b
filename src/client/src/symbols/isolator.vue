<script setup lang="ts">
import { contact, link, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-for="x in xs" :key="x">
    <path :d="contact(x, height, false, made)" />
    <path :d="`M${x - 6} ${height * 0.32} h12`" />
  </g>
  <path class="mechanical" :d="link([xs[0]! - 16, ...xs], height)" />
  <path :d="`M${xs[0]! - 21} ${height / 2 - 6} v12 m0 -6 h-5`" />
</template>
