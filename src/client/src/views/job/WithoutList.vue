<script setup lang="ts">
import { useSettings } from '@/composables/useSettings'

// Kinds of test that cannot be made now.
const { without } = useSettings()
const kinds = [
  { value: 'live', label: 'No live tests: isolated work only' },
  { value: 'isolating', label: 'It cannot be switched off' },
  { value: 'operating', label: 'Nothing may be started or stopped' },
  { value: 'field', label: 'Only what is in the panel' },
  { value: 'clamp', label: 'No clamp meter' },
  { value: 'insulationTester', label: 'No insulation tester' },
  { value: 'lifting', label: 'No wires lifted' },
]
</script>

<template>
  <details>
    <summary>
      What cannot be done now<template v-if="without.length"> ({{ without.length }} left out)</template>
    </summary>
    <label v-for="kind in kinds" :key="kind.value">
      <input v-model="without" type="checkbox" :value="kind.value" /> {{ kind.label }}
    </label>
  </details>
</template>

<style scoped>
label {
  display: block;
  min-height: 44px;
  padding: 0.4rem;
  border-top: 1px solid var(--line);
  cursor: pointer;
}
</style>
