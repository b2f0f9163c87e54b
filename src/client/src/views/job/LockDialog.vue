<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import type { Entry } from '@/api/client'

/** Somebody else's lock comes off only by the site's procedure, with who decided it and why. */
const props = defineProps<{ of: string; send: (entry: Entry) => Promise<string | undefined> }>()
const emit = defineEmits<{ close: [] }>()

const reason = ref('')
const refused = ref('')
watch(
  () => props.of,
  () => (reason.value = refused.value = ''),
)

async function take() {
  refused.value = (await props.send({ type: 'lockTaken', of: props.of, reason: reason.value.trim() } as Entry)) ?? ''
  if (!refused.value) emit('close')
}
</script>

<template>
  <Dialog
    :visible="!!of"
    modal
    :header="`The lock of ${of}`"
    :style="{ width: '30rem', maxWidth: '96vw' }"
    @update:visible="emit('close')"
  >
    <form @submit.prevent="take">
      <p>Only who hung a lock takes it off. Where that person cannot be reached the site's own procedure decides.</p>
      <label for="lock-reason">Who decided it, and why</label>
      <InputText id="lock-reason" v-model="reason" maxlength="500" class="wide" autofocus />
      <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
      <Button type="submit" label="It is off by the site's procedure" :disabled="!reason.trim()" />
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.5rem;
}
.refused {
  color: var(--live);
  font-weight: 600;
}
</style>
