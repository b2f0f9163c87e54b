<script setup lang="ts">
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
  <label v-else-if="option.type === 'choice'" class="field"
    >{{ option.label }}
    <select :value="shown" :aria-label="option.label" @change="given(($event.target as HTMLSelectElement).value)">
      <option v-for="choice in option.choices" :key="choice.value" :value="choice.value">
        {{ choice.text }}
      </option>
    </select>
  </label>
  <label v-else class="field"
    >{{ option.label }}{{ option.unit ? ` (${option.unit})` : '' }}
    <input
      :type="option.type === 'text' ? 'text' : 'number'"
      step="any"
      :value="shown"
      :aria-label="option.label"
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
.field input,
.field select {
  min-height: 44px;
  width: 100%;
}
.tick {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 44px;
}
.tick input {
  width: 20px;
  height: 20px;
}
.help {
  margin: -0.2rem 0 0.5rem;
  font-size: 0.85rem;
}
</style>
