<script setup lang="ts">
import { contact, link, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path v-for="x in xs" :key="x" :d="contact(x, height, false, made)" />
  <path class="mechanical" :d="link([xs[0]! - 18, ...xs], height)" />
  <circle :cx="xs[0]! - 28" :cy="height / 2" r="6" />
  <path :d="`M${xs[0]! - 28} ${height / 2 - 6} v12`" />
</template>
