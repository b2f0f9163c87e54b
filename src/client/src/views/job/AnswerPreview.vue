<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Proposal } from '@/api/client'
import { percent } from '@/components/format'

// Why this test, and what each answer would leave; an answer that is touched shows its leavings in the drawing.
const props = defineProps<{ proposal: Proposal }>()
const emit = defineEmits<{ preview: [outcome?: Proposal['outcomes'][number]] }>()
const previewed = ref<number>()

/** Touched again, the drawing shows what is suspected now. */
function preview(index?: number) {
  previewed.value = previewed.value === index ? undefined : index
  emit('preview', previewed.value === undefined ? undefined : props.proposal.outcomes[previewed.value])
}

watch(
  () => props.proposal,
  () => {
    if (previewed.value !== undefined) preview(previewed.value)
  },
)
</script>

<template>
  <details class="why">
    <summary>Why this, and what each answer would leave</summary>
    <p>{{ proposal.why }}</p>
    <p class="faint">Touch an answer to see in the drawing what it would leave.</p>
    <button
      v-for="(outcome, i) in proposal.outcomes"
      :key="outcome.shows"
      type="button"
      class="outcome figures"
      :aria-pressed="previewed === i"
      @click="preview(i)"
    >
      <strong>{{ outcome.shows }}</strong> ({{ percent(outcome.probability) }}) leaves
      {{ outcome.leaves.map((l) => `${l.unit || 'nothing wrong'} ${percent(l.probability)}`).join(', ') }}
    </button>
  </details>
</template>

<style scoped>
.outcome {
  display: block;
  width: 100%;
  min-height: 44px;
  padding: 0.4rem;
  border: 0;
  border-top: 1px solid var(--line);
  background: transparent;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.outcome[aria-pressed='true'] {
  outline: 2px solid var(--petrol);
}
</style>
