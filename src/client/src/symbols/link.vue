<script setup lang="ts">
import type { SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <path :d="`M${xs[0]} 0V${height * 0.3} M${xs[0]} ${height * 0.7}V${height}`" />
  <path v-if="made" :d="`M${xs[0]} ${height * 0.3}V${height * 0.7}`" />
  <circle :cx="xs[0]" :cy="height * 0.3" r="3.4" class="hollow" />
  <circle :cx="xs[0]" :cy="height * 0.7" r="3.4" class="hollow" />
</template>
