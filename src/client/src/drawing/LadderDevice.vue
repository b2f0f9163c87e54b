<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

// A device with several terminals on one side (a supply, a transformer, a monitor) as a ladder shows it: a box over its rows.
const props = defineProps<{ shape: Schemas['LadderShape']; letters: string; rows: number[]; length: number }>()
const top = computed(() => props.rows[0]! - 9)
const bottom = computed(() => props.rows.at(-1)! + 9)
const middle = computed(() => (props.rows[0]! + props.rows.at(-1)!) / 2)
</script>

<template>
  <path v-for="row in rows" :key="row" :d="`M0 ${row}H${length / 2 - 20}`" />
  <g v-if="shape === 'windings'">
    <!-- Two windings side by side, the iron between them. -->
    <path
      v-for="side in [-1, 1]"
      :key="side"
      :d="`M${length / 2 + side * 20} ${rows[0]} h${-side * 10} ${`a4 4 0 0 ${side > 0 ? 0 : 1} 0 ${(rows.at(-1)! - rows[0]!) / 3} `.repeat(3)} h${side * 10}`"
    />
    <path :d="`M${length / 2 - 2} ${rows[0]}V${rows.at(-1)} M${length / 2 + 2} ${rows[0]}V${rows.at(-1)}`" />
  </g>
  <g v-else>
    <rect class="body" :x="length / 2 - 20" :y="top" width="40" :height="bottom - top" />
    <text :x="length / 2" :y="middle + 5" class="letter small" text-anchor="middle">{{ letters }}</text>
  </g>
</template>
