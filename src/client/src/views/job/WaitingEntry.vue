<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import type { Entry } from '@/api/client'
import PhotoShown from '@/components/PhotoShown.vue'
import { labelOf } from '@/composables/useJob'
import type { Waiting } from '@/composables/useOutbox'

// An entry that has not arrived yet, or that was refused after it had waited: then it is mended here, and nothing behind it waits for it.
const props = defineProps<{ waiting: Waiting }>()
const emit = defineEmits<{ mend: [entry: Entry, label: string]; letGo: [] }>()
const typed = ref(props.waiting.entry.type === 'readingAsTyped' ? props.waiting.entry.typed : '')

function send() {
  const entry = props.waiting.entry
  const changed = entry.type === 'readingAsTyped' ? { ...entry, typed: typed.value } : entry
  emit('mend', changed, labelOf(changed))
}
</script>

<template>
  <li class="waiting">
    {{ waiting.label }}
    <PhotoShown v-if="waiting.entry.type === 'photo'" :picture="waiting.entry.picture" :caption="waiting.label" />
    <em v-if="!waiting.refused">waiting to be sent</em>
    <template v-else>
      <p role="alert">Not recorded: {{ waiting.refused }}</p>
      <div class="row">
        <InputText
          v-if="waiting.entry.type === 'readingAsTyped'"
          v-model="typed"
          class="figures"
          aria-label="What the meter showed"
        />
        <Button label="Send again" size="small" variant="outlined" @click="send" />
        <Button label="Let it go" size="small" text severity="secondary" @click="emit('letGo')" />
      </div>
    </template>
  </li>
</template>

<style scoped>
.waiting {
  color: var(--doubt);
  border-top: 1px solid var(--line);
  padding: 0.3rem 0;
}
p {
  margin: 0.2rem 0;
  font-weight: 600;
}
</style>
