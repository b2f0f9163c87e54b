<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { Entry, Job } from '@/api/client'

/** A trip timed with a test set: the current, the seconds, and what the class says of them. */
const props = defineProps<{ job: Job; device: string; send: (entry: Entry) => Promise<string | undefined> }>()
const amps = ref('')
const seconds = ref('')
const refused = ref('')
const timed = computed(() =>
  props.job.entries.filter((e) => !e.struck && e.entry.type === 'tripTimed' && e.entry.device === props.device),
)
const number = (text: string) => Number(text.trim().replace(',', '.'))

async function record() {
  if ([amps.value, seconds.value].some((t) => !t.trim() || Number.isNaN(number(t)))) {
    refused.value = 'Give the current in A and the seconds until it tripped.'
    return
  }
  const entry = { type: 'tripTimed', device: props.device, amps: number(amps.value), seconds: number(seconds.value) }
  refused.value = (await props.send(entry as Entry)) ?? ''
  if (!refused.value) amps.value = seconds.value = ''
}
</script>

<template>
  <details>
    <summary>Trip of {{ device }} timed with a test set</summary>
    <form class="row" @submit.prevent="record">
      <label
        ><InputText v-model="amps" inputmode="decimal" maxlength="12" :aria-label="`Current through ${device}`" />
        A</label
      >
      <label
        >tripped after
        <InputText v-model="seconds" inputmode="decimal" maxlength="12" :aria-label="`${device} tripped after`" /> s,
        from cold</label
      >
      <Button type="submit" label="Note it" severity="secondary" variant="outlined" />
    </form>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
  </details>
  <p v-for="t in timed" :key="t.entry.id">{{ t.text }}</p>
</template>

<style scoped>
summary {
  min-height: 44px;
  padding-top: 0.5rem;
  color: var(--petrol);
  cursor: pointer;
}
label :deep(input) {
  width: 6rem;
}
p {
  margin: 0.2rem 0;
}
.refused {
  color: var(--live);
  font-weight: 600;
}
</style>
