<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** Bars of minutes down, each opening the logbook at its jobs. */
const props = defineProps<{
  title: string
  bars: Schemas['InsightBar'][]
  narrowed: Record<string, string | undefined>
}>()
const most = () => Math.max(1, ...props.bars.map((b) => b.minutesDown))
const to = (bar: Schemas['InsightBar']) => ({
  path: '/logbook',
  query: { ...props.narrowed, search: bar.search || undefined, found: bar.found || undefined },
})
const time = (minutes: number) => (minutes < 90 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(1)} h`)
</script>

<template>
  <section class="sheet bars" :aria-label="title">
    <h2>{{ title }}</h2>
    <p v-if="!bars.length" class="faint">Nothing in this period.</p>
    <RouterLink v-for="bar in bars" :key="bar.name" :to="to(bar)" class="bar">
      <span class="name">{{ bar.name.replaceAll(/(?<=[a-z])-(?=[a-z])/g, ' ') }}</span>
      <span class="track" aria-hidden="true"><span :style="{ width: `${(100 * bar.minutesDown) / most()}%` }" /></span>
      <span class="figures"
        >{{ time(bar.minutesDown) }} <small>{{ bar.jobs }} {{ bar.jobs === 1 ? 'job' : 'jobs' }}</small></span
      >
    </RouterLink>
  </section>
</template>

<style scoped>
.bars {
  padding: 0.6rem 0.8rem;
}
.bar {
  display: grid;
  grid-template-columns: minmax(7rem, 38%) minmax(0, 1fr) 8rem;
  gap: 0.6rem;
  align-items: center;
  min-height: 44px;
  color: inherit;
  text-decoration: none;
  border-bottom: 1px solid var(--line);
}
.track span {
  display: block;
  height: 14px;
  min-width: 2px;
  background: var(--petrol);
}
small {
  color: var(--faint);
}
</style>
