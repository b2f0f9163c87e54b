<script setup lang="ts">
import { contact, type SymbolProps } from './pieces'
defineProps<SymbolProps>()
</script>

<template>
  <g v-if="xs.length > 1">
    <path v-for="x in xs" :key="x" :d="`M${x} 0V${height * 0.3}`" />
    <rect
      class="body"
      :x="xs[0]! - 14"
      :y="height * 0.3"
      :width="xs[xs.length - 1]! - xs[0]! + 28"
      :height="height * 0.6"
    />
    <text :x="xs[1]" :y="height * 0.75" class="letter small" text-anchor="middle">U&lt;&gt;</text>
  </g>
  <path v-else :d="contact(xs[0]!, height, role === 'normallyClosed', made)" />
</template>
