<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

type Family = Schemas['FamilyDescription']

const props = defineProps<{ families: Family[]; family: string; locked: boolean }>()
const emit = defineEmits<{ 'update:family': [family: string] }>()
const options = defineModel<Record<string, unknown>>('options', { required: true })

const chosen = computed(() => props.families.find((f) => f.id === props.family))
const groups = computed(() => [...new Set(chosen.value?.options.map((o) => o.group) ?? [])])
const names = [
  { name: 'tag', label: 'Tag', hint: 'as on the drawing, e.g. KF-204' },
  { name: 'title', label: 'Drives', hint: 'e.g. Kiln fan 4' },
  { name: 'area', label: 'Area', hint: 'e.g. Drying kilns' },
  { name: 'enclosure', label: 'Enclosure', hint: 'e.g. MCC 2, field 5' },
  { name: 'drawing', label: 'Drawing', hint: '' },
]

type Option = Family['options'][number]
const valueOf = (option: Option) => options.value[option.name] ?? option.default

function set(name: string, value: unknown) {
  options.value = { ...options.value, [name]: value }
}

function setOption(option: Option, text: string | boolean) {
  if (option.type === 'number' || option.type === 'whole') {
    const number = Number(String(text).replace(',', '.'))
    if (String(text).trim() === '' || Number.isNaN(number)) return
    set(option.name, option.type === 'whole' ? Math.round(number) : number)
  } else set(option.name, text)
}
</script>

<template>
  <fieldset :disabled="locked">
    <legend class="visually-hidden">Family and options</legend>
    <label class="field"
      >Family
      <select
        :value="family"
        aria-label="Family"
        @change="emit('update:family', ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="f in families" :key="f.id" :value="f.id">{{ f.name }}</option>
      </select>
    </label>
    <p class="faint">{{ chosen?.description }}</p>
    <label v-for="n in names" :key="n.name" class="field"
      >{{ n.label }}
      <input
        type="text"
        maxlength="80"
        :placeholder="n.hint"
        :value="options[n.name] ?? ''"
        :aria-label="n.label"
        @change="set(n.name, ($event.target as HTMLInputElement).value)"
      />
    </label>
    <details v-for="(group, i) in groups" :key="group" :open="i < 2">
      <summary>{{ group }}</summary>
      <template v-for="option in chosen!.options.filter((o) => o.group === group)" :key="option.name">
        <label v-if="option.type === 'yes-no'" class="tick">
          <input
            type="checkbox"
            :checked="String(valueOf(option)) === 'true'"
            @change="setOption(option, ($event.target as HTMLInputElement).checked)"
          />
          {{ option.label }}
        </label>
        <label v-else-if="option.type === 'choice'" class="field"
          >{{ option.label }}
          <select
            :value="valueOf(option)"
            :aria-label="option.label"
            @change="setOption(option, ($event.target as HTMLSelectElement).value)"
          >
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
            :value="valueOf(option)"
            :aria-label="option.label"
            @change="setOption(option, ($event.target as HTMLInputElement).value)"
          />
        </label>
        <p v-if="option.help" class="faint help">{{ option.help }}</p>
      </template>
    </details>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
.field {
  display: grid;
  gap: 0.15rem;
  margin-bottom: 0.45rem;
  font-size: 0.92rem;
}
.field input,
.field select {
  min-height: 40px;
  width: 100%;
}
.tick {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 40px;
}
.tick input {
  width: 20px;
  height: 20px;
}
.help {
  margin: -0.2rem 0 0.5rem;
  font-size: 0.85rem;
}
summary {
  min-height: 40px;
  padding-top: 0.5rem;
  font-weight: 600;
  cursor: pointer;
}
details {
  border-top: 1px solid var(--line);
}
</style>
