<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

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
const route = useRoute()
/** One shutdown list belongs to the shutdowns. */
const isHere = (to: string) => route.path === to || (to === '/shutdowns' && route.path.startsWith(`${to}/`))
</script>

<template>
  <nav class="tabs no-print" :aria-label="names[part]">
    <RouterLink v-for="[to, name] in links" :key="to" :to="to" :class="{ here: isHere(to) }">{{ name }}</RouterLink>
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
.tabs a.here {
  box-shadow: inset 0 -3px var(--petrol);
  font-weight: 600;
}
@media (max-width: 500px) {
  .tabs a {
    padding: 0.7rem 0.5rem;
  }
}
</style>
