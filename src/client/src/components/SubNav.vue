<script setup lang="ts">
import { computed } from 'vue'

/** The pages of one part of the program, above each of them. */
const props = defineProps<{ part: 'plan' | 'logbook' }>()
const parts = {
  plan: [
    ['/plan', 'Due'],
    ['/shutdowns', 'Shutdowns'],
    ['/plan/intervals', 'Intervals'],
    ['/spares', 'Spares'],
  ],
  logbook: [
    ['/logbook', 'Jobs'],
    ['/insight', 'Where the time goes'],
  ],
} as const
const names = { plan: 'Plan', logbook: 'Logbook' }
const links = computed(() => parts[props.part])
</script>

<template>
  <nav class="tabs no-print" :aria-label="names[part]">
    <RouterLink v-for="[to, name] in links" :key="to" :to="to">{{ name }}</RouterLink>
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 0.3rem;
  margin-bottom: 0.6rem;
  border-bottom: 1px solid var(--line);
}
.tabs a {
  padding: 0.7rem 0.8rem;
  min-height: 44px;
  color: var(--ink);
  text-decoration: none;
}
.tabs a.router-link-exact-active,
.tabs a.router-link-active[href='/shutdowns'] {
  box-shadow: inset 0 -3px var(--petrol);
  font-weight: 600;
}
@media (max-width: 500px) {
  .tabs a {
    padding: 0.7rem 0.5rem;
  }
}
</style>
