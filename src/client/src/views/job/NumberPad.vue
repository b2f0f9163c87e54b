<script setup lang="ts">
/** Keys for gloves: the screen's own keyboard stays away and hides nothing. */
const props = defineProps<{ isOhms: boolean; isSigned: boolean; disabled: boolean }>()
const text = defineModel<string>({ required: true })
const keys = () => [
  ['7', '8', '9', '⌫'],
  ['4', '5', '6', props.isOhms ? 'k' : props.isSigned ? '-' : '<'],
  ['1', '2', '3', props.isOhms ? 'M' : ''],
  ['0', '.', props.isOhms || props.isSigned ? '<' : '', 'Clear'],
]
const names: Record<string, string> = {
  '⌫': 'Delete the last',
  '<': 'less than',
  k: 'kilohm',
  M: 'megohm',
  '-': 'minus',
}

function press(key: string) {
  if (key === '⌫') text.value = text.value.slice(0, -1)
  else if (key === 'Clear') text.value = ''
  else if (key === '<' || key === '-') text.value = text.value.startsWith(key) ? text.value.slice(1) : key + text.value
  else text.value += key
}
</script>

<template>
  <div class="pad" role="group" aria-label="Number pad">
    <template v-for="(row, r) in keys()" :key="r">
      <template v-for="(key, k) in row" :key="k">
        <button v-if="key" type="button" :disabled="disabled" :aria-label="names[key] ?? key" @click="press(key)">
          {{ key }}
        </button>
        <span v-else />
      </template>
    </template>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 0.35rem;
}
button {
  min-height: 52px;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--sheet);
  color: inherit;
  font: 600 1.25rem Barlow;
  font-variant-numeric: tabular-nums;
  cursor: pointer;
  touch-action: manipulation;
}
button:active {
  background: var(--petrol);
  color: var(--sheet);
}
</style>
