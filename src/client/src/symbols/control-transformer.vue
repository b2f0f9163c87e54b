<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path
    v-for="(x, i) in xs"
    :key="x"
    :d="`M${x} 0V${height * 0.22} L${(xs[0]! + xs[xs.length - 1]!) / 2 + (i === 0 ? -6 : 6)} ${height * 0.32}`"
  />
  <circle :cx="(xs[0]! + xs[xs.length - 1]!) / 2" :cy="height * 0.56" :r="height * 0.27" />
  <circle :cx="(xs[0]! + xs[xs.length - 1]!) / 2" :cy="height * 0.88" :r="height * 0.27" />
</template>
