<script setup lang="ts">
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** One thing to give or choose: a tick, a choice, a number or a text, with its unit and why one chooses it. */
const props = defineProps<{ option: Schemas['OptionDescription']; value: unknown }>()
const emit = defineEmits<{ change: [value: unknown] }>()
const shown = computed(() => props.value ?? props.option.default)

function given(text: string) {
  if (props.option.type === 'number' || props.option.type === 'whole') {
    const number = Number(text.replace(',', '.'))
    if (text.trim() === '' || Number.isNaN(number)) return
    emit('change', props.option.type === 'whole' ? Math.round(number) : number)
  } else emit('change', text)
}
</script>

<template>
  <label v-if="option.type === 'yes-no'" class="tick">
    <input
      type="checkbox"
      :checked="String(shown) === 'true'"
      @change="emit('change', ($event.target as HTMLInputElement).checked)"
    />
    {{ option.label }}
  </label>
  <div v-else-if="option.type === 'choice'" class="field">
    {{ option.label }}
    <Select
      :model-value="shown"
      :options="option.choices"
      option-value="value"
      option-label="text"
      :aria-label="option.label"
      fluid
      @update:model-value="given"
    />
  </div>
  <label v-else class="field"
    >{{ option.label }}{{ option.unit ? ` (${option.unit})` : '' }}
    <InputText
      :inputmode="option.type === 'text' ? 'text' : 'decimal'"
      :model-value="String(shown ?? '')"
      :aria-label="option.label"
      fluid
      @change="given(($event.target as HTMLInputElement).value)"
    />
  </label>
  <p v-if="option.help" class="faint help">{{ option.help }}</p>
</template>

<style scoped>
.field {
  display: grid;
  gap: 0.15rem;
  margin-bottom: 0.45rem;
  font-size: 0.92rem;
}
.help {
  margin: -0.2rem 0 0.5rem;
  font-size: 0.85rem;
}
</style>
