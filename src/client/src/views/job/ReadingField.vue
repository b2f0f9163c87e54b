<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { nextTick, ref, watch } from 'vue'
import type { Entry, Quantity, Step } from '@/api/client'

// What the meter shows, sent as it was typed: the service understands it, or says why not, here beside the field.
const props = defineProps<{
  test: { from: string; to: string; quantity: Quantity; held: Step[] }
  touches: string[]
  send: (entry: Entry) => Promise<string | undefined>
}>()
const text = ref('')
const error = ref('')
const sending = ref(false)
const input = ref<{ $el: HTMLInputElement }>()

async function record(typed = text.value) {
  error.value = ''
  if (!props.test.from || !props.test.to) {
    error.value = 'Put both leads on: tap a terminal in the drawing.'
    return
  }
  if (!typed.trim()) {
    error.value = 'Type what the meter shows.'
    return
  }
  if (sending.value) return
  sending.value = true
  try {
    const { quantity, from, to, held } = props.test
    const refused = await props.send({ type: 'readingAsTyped', quantity, from, to, held, typed, meter: '' } as Entry)
    if (refused) error.value = refused
    else text.value = ''
  } finally {
    sending.value = false
  }
}

watch(
  () => [props.test.from, props.test.to, props.test.quantity],
  () => {
    error.value = ''
    text.value = ''
    void nextTick(() => {
      if (window.matchMedia('(pointer: fine)').matches && !document.querySelector('[role=dialog]'))
        input.value?.$el?.focus?.()
    })
  },
)
</script>

<template>
  <form class="entry" @submit.prevent="record()">
    <InputText
      ref="input"
      v-model="text"
      class="figures value"
      :invalid="!!error"
      inputmode="text"
      autocomplete="off"
      maxlength="40"
      aria-label="What the meter shows"
      placeholder="meter shows…"
    />
    <Button type="submit" label="Record" :loading="sending" />
  </form>
  <div class="touches">
    <Button
      v-for="touch in [...touches, 'not sure']"
      :key="touch"
      :label="touch"
      severity="secondary"
      variant="outlined"
      :disabled="sending"
      @click="record(touch)"
    />
  </div>
  <p v-if="error" class="error" role="alert">{{ error }}</p>
</template>

<style scoped>
.entry {
  display: flex;
  gap: 0.5rem;
}
.value {
  flex: 1;
  min-width: 0;
  font-size: 1.5rem;
  min-height: 52px;
}
.touches {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.touches :deep(.p-button) {
  min-width: 64px;
}
.error {
  color: var(--live);
  font-weight: 600;
}
</style>
