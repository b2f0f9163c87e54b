<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

// North American ladder symbols, drawn along the x axis from 0 to `length`; a power circuit turns them by a quarter. Which shape a device
// has is for its kind to say.
const props = defineProps<{
  shape: Schemas['LadderShape']
  role: string
  length: number
  made?: boolean
}>()
const m = computed(() => props.length / 2)
const opens = computed(() => props.role === 'normallyClosed')
const leads = (gap: number) => `M0 0H${m.value - gap} M${m.value + gap} 0H${props.length}`
/** The blade or bar stands where the contact is made or not; at rest when nothing is said. */
const isMade = computed(() => props.made ?? opens.value)
</script>

<template>
  <g v-if="shape === 'contact' || shape === 'delayedContact'">
    <rect v-if="made" class="bridge" :x="m - 5" y="-6" width="10" height="12" />
    <path :d="`${leads(5)} M${m - 5} -10v20 M${m + 5} -10v20`" />
    <path v-if="opens" :d="`M${m - 9} 11 L${m + 9} -11`" />
    <path v-if="shape === 'delayedContact'" :d="`M${m} 12 v9 m-4 -4 l4 4 l4 -4`" />
  </g>
  <g v-else-if="shape === 'coil'">
    <path :d="leads(13)" />
    <circle class="body" :cx="m" cy="0" r="13" />
  </g>
  <g v-else-if="shape === 'lamp'">
    <path :d="leads(11)" />
    <circle class="body" :cx="m" cy="0" r="11" />
    <path :d="`M${m + 8} -8 l6 -6 M${m - 8} -8 l-6 -6 M${m + 8} 8 l6 6 M${m - 8} 8 l-6 6`" />
  </g>
  <g v-else-if="shape === 'button' || shape === 'mushroomButton'">
    <path :d="leads(11)" />
    <circle class="hollow" :cx="m - 9" cy="0" r="2.6" />
    <circle class="hollow" :cx="m + 9" cy="0" r="2.6" />
    <path
      :d="
        opens
          ? `M${m - 12} ${isMade ? 3.5 : 9} h24 M${m} ${isMade ? 3.5 : 9} V-9`
          : `M${m - 12} ${isMade ? -3.5 : -8} h24 M${m} ${isMade ? -3.5 : -8} V-15`
      "
    />
    <path v-if="shape === 'mushroomButton'" :d="`M${m - 8} -9 a8 7 0 0 1 16 0 z`" />
    <path v-else :d="`M${m - 4} ${opens ? -9 : -15} h8`" />
  </g>
  <g v-else-if="shape === 'selector' || shape === 'processSwitch'">
    <path :d="leads(11)" />
    <circle class="hollow" :cx="m - 9" cy="0" r="2.6" />
    <circle class="hollow" :cx="m + 9" cy="0" r="2.6" />
    <path :d="`M${m - 9} 0 L${m + 10} ${isMade ? -3 : -12}`" />
    <path v-if="shape === 'processSwitch'" :d="`M${m - 3} ${isMade ? -1 : -4} v12 l7 0 z`" />
    <path v-else :d="`M${m} ${isMade ? -2 : -6} v-8 m-4 0 h8`" />
  </g>
  <g v-else-if="shape === 'fuse'">
    <path :d="`${leads(13)} M${m - 13} 0 c4 -12 9 -12 13 0 c4 12 9 12 13 0`" />
  </g>
  <g v-else-if="shape === 'heater'">
    <path :d="`${leads(10)} M${m - 10} 0 a5 5 0 0 1 10 0 a5 5 0 0 0 10 0`" />
  </g>
  <g v-else-if="shape === 'blade'">
    <path :d="`${leads(11)} M${m - 11} 0 L${m + 11} ${made ? -2 : -12}`" />
    <circle class="hollow" :cx="m + 11" cy="0" r="2.6" />
  </g>
  <g v-else-if="shape === 'breaker'">
    <path :d="`${leads(10)} M${m - 10} 0 a10 7 0 0 1 20 0`" :transform="made === false ? 'translate(0 -4)' : ''" />
  </g>
  <g v-else>
    <path :d="leads(12)" />
    <rect class="body" :x="m - 12" y="-9" width="24" height="18" />
  </g>
</template>
