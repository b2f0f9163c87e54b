<script setup lang="ts">
import { contact, link, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-for="x in xs" :key="x">
    <path :d="contact(x, height, false)" />
    <path :d="`M${x - 4} ${height * 0.32 - 4} l8 8 m0 -8 l-8 8`" />
  </g>
  <path class="mechanical" :d="link(xs, height)" />
</template>
