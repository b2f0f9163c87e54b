<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <!-- The auxiliary winding is drawn as what it is; the machine stands with its main winding. -->
  <path v-if="name?.startsWith('Z')" :d="`M${xs[0]} 0V${height / 2 - 18} ${'a6 6 0 0 1 0 12 '.repeat(3)}V${height}`" />
  <template v-else>
    <path :d="`M${xs[0]} 0V${height / 2 - 19} M${xs[0]} ${height / 2 + 19}V${height}`" />
    <circle class="body" :cx="xs[0]" :cy="height / 2" r="19" />
    <text :x="xs[0]" :y="height / 2 + 2" class="letter" text-anchor="middle">M</text>
    <text :x="xs[0]" :y="height / 2 + 15" class="letter small" text-anchor="middle">1~</text>
  </template>
</template>
