<script setup lang="ts">
import Button from 'primevue/button'
import type { Schemas } from '@/api/client'
import SmallDrawing from '@/drawing/SmallDrawing.vue'

/** The starters that have what was counted, each as a small drawing with what it has otherwise. */
const props = defineProps<{ found: Schemas['CountedView']; family: string; options: Record<string, unknown> }>()
const emit = defineEmits<{ take: [match: Schemas['CountedMatch']] }>()
/** The row where that is counted. */
const show = (sort: string) => {
  const row = document.querySelector(`[data-sort=${sort}]`)
  row?.scrollIntoView({ block: 'center' })
  row?.querySelector<HTMLElement>('button:last-of-type')?.focus()
}
/** The circuit that is being set up is this one, whatever it is called. */
const isTaken = (match: Schemas['CountedMatch']) =>
  match.family === props.family &&
  Object.entries(match.options as Record<string, unknown>).every(
    ([name, value]) => ['tag', 'title'].includes(name) || props.options[name] === value,
  )
</script>

<template>
  <section id="fits" aria-label="Starters nearest to the count" class="fits">
    <p class="next">
      Nearest to the count. Touch the one that looks like yours.
      <template v-if="found.tellsApart">
        <Button
          :label="`Count the ${found.tellsApart.name} next`"
          text
          size="small"
          @click="show(found.tellsApart.id)"
        />
        that tells most of them apart.
      </template>
    </p>
    <div class="cards">
      <button
        v-for="match in found.matches"
        :key="match.family"
        type="button"
        class="card"
        :class="{ taken: isTaken(match) }"
        :aria-pressed="isTaken(match)"
        @click="emit('take', match)"
      >
        <SmallDrawing :circuit="match.circuit" />
        <strong>{{ match.name }}</strong>
        <span>{{ match.description }}</span>
        <span v-if="match.differs.length" class="differs">But {{ match.differs.join('; ') }}</span>
        <span v-else class="agrees">Has all that was counted</span>
      </button>
    </div>
  </section>
</template>

<style scoped>
.fits {
  padding: 0.5rem 0 0.7rem;
}
.next {
  margin: 0 0 0.4rem;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.6rem;
}
.card {
  display: grid;
  gap: 0.2rem;
  align-content: start;
  padding: 0.5rem;
  text-align: left;
  font: inherit;
  font-size: 0.9rem;
  color: inherit;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 4px;
  cursor: pointer;
}
.card.taken {
  border: 2px solid var(--petrol);
}
.differs {
  color: var(--live);
  font-weight: 600;
}
.agrees {
  color: var(--petrol);
}
</style>
