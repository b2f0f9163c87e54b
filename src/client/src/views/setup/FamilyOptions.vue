<script setup lang="ts">
import Select from 'primevue/select'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import OptionField from '@/components/OptionField.vue'

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

function set(name: string, value: unknown) {
  options.value = { ...options.value, [name]: value }
}
</script>

<template>
  <fieldset :disabled="locked">
    <legend class="visually-hidden">Family and options</legend>
    <div class="field">
      Family
      <Select
        :model-value="family"
        :options="families"
        option-value="id"
        option-label="name"
        aria-label="Family"
        fluid
        @update:model-value="emit('update:family', $event)"
      />
    </div>
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
      <OptionField
        v-for="option in chosen!.options.filter((o) => o.group === group)"
        :key="option.name"
        :option="option"
        :value="options[option.name]"
        @change="set(option.name, $event)"
      />
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
