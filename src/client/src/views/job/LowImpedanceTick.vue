<script setup lang="ts">
import { useSettings } from '@/composables/useSettings'

/** Whether the tester loads what it measures, so that ghosts settle; remembered for the next reading. */
const { lowImpedance } = useSettings()
</script>

<template>
  <label><input v-model="lowImpedance" type="checkbox" /> two-pole tester or low-impedance setting</label>
</template>

<style scoped>
label {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
input {
  width: 1.3rem;
  height: 1.3rem;
}
</style>
