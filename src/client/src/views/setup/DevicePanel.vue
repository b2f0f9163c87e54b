<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import { computed, reactive, watch } from 'vue'
import type { Circuit, Schemas } from '@/api/client'
import { plateGroups } from '@/components/plate'
import type { Edit } from './useSetup'

const props = defineProps<{ circuit: Circuit; tag: string; part: string; kinds: Schemas['KindView'][] }>()
const emit = defineEmits<{ edit: [edit: Edit] }>()

const device = computed(() => props.circuit.devices.find((d) => d.tag === props.tag))
const contacts = computed(() =>
  (device.value?.settings.find((s) => s.type === 'contacts')?.value ?? '').split(', ').filter(Boolean),
)
const isTwoTerminal = computed(() => /^[^:]+:[^-,]+-[^-,]+$/.test(props.part))
const rating = computed(() => device.value?.settings.filter((s) => s.type !== 'contacts') ?? [])
const fresh = reactive({
  how: 'seriesAfter',
  kind: 'process-switch',
  tag: '',
  contact: '13-14',
  location: '',
  function: '',
})
const ways = [
  { id: 'seriesBefore', name: 'in series, before it' },
  { id: 'seriesAfter', name: 'in series, after it' },
  { id: 'parallel', name: 'in parallel' },
]
const groups = computed(() => plateGroups(rating.value))

watch(
  () => fresh.kind,
  (kind) => (fresh.contact = props.kinds.find((k) => k.id === kind)?.usualContact ?? fresh.contact),
)
watch(
  () => [props.tag, props.circuit.locations] as const,
  () => (fresh.location ||= device.value?.location ?? props.circuit.locations[0]?.id ?? ''),
  { immediate: true },
)
const given = (event: Event) => (event.target as HTMLInputElement).value
const insert = () => emit('edit', { type: 'insert', part: props.part, ...fresh, how: fresh.how as never })
</script>

<template>
  <div v-if="device" class="panel">
    <h2>
      {{ device.tag }} <span class="faint">{{ device.term }}</span>
    </h2>
    <label
      >Tag
      <input
        :value="device.tag"
        aria-label="Tag of the device"
        @change="emit('edit', { type: 'renameDevice', tag: device.tag, newTag: given($event) })"
      />
    </label>
    <label
      >Function
      <input
        :value="device.function"
        aria-label="Function of the device"
        @change="
          emit('edit', { type: 'describeDevice', tag: device.tag, function: given($event), location: device.location })
        "
      />
    </label>
    <div class="labelled">
      Place
      <Select
        :model-value="device.location"
        :options="circuit.locations"
        option-value="id"
        option-label="name"
        aria-label="Place of the device"
        fluid
        @update:model-value="
          emit('edit', { type: 'describeDevice', tag: device.tag, function: device.function, location: $event })
        "
      />
    </div>
    <fieldset v-if="contacts.length">
      <legend>Contacts as numbered in the panel</legend>
      <input
        v-for="contact in contacts"
        :key="contact"
        :value="contact"
        class="contact figures"
        :aria-label="`Contact ${contact}`"
        @change="emit('edit', { type: 'renameContact', tag: device.tag, contact, newContact: given($event) })"
      />
    </fieldset>
    <component
      :is="group.isFolded ? 'details' : 'fieldset'"
      v-for="group in groups"
      :key="tag + group.id"
      class="group"
      :data-group="group.id"
    >
      <component :is="group.isFolded ? 'summary' : 'legend'">{{ group.name }}</component>
      <label v-for="s in group.settings" :key="s.name"
        >{{ s.description }}{{ s.unit ? ` (${s.unit})` : '' }}
        <Select
          v-if="s.type === 'choice'"
          :model-value="s.value"
          :options="s.choices"
          :aria-label="s.description"
          fluid
          @update:model-value="emit('edit', { type: 'setParameter', tag: device.tag, name: s.name, value: $event })"
        />
        <input
          v-else
          :value="s.value"
          class="figures"
          :inputmode="s.type === 'number' ? 'decimal' : 'text'"
          @change="emit('edit', { type: 'setParameter', tag: device.tag, name: s.name, value: given($event) })"
        />
      </label>
    </component>
    <fieldset v-if="isTwoTerminal">
      <legend>Put a device beside {{ part }}</legend>
      <div class="labelled">
        How
        <Select v-model="fresh.how" :options="ways" option-value="id" option-label="name" aria-label="How" fluid />
      </div>
      <div class="labelled">
        What
        <Select v-model="fresh.kind" :options="kinds" option-value="id" option-label="term" aria-label="What" fluid />
      </div>
      <label
        >Tag
        <input
          v-model="fresh.tag"
          placeholder="e.g. B3; a tag that is there gets one more contact"
          aria-label="Tag of the new device"
      /></label>
      <label
        >Terminals <input v-model="fresh.contact" class="figures" aria-label="Terminals of the new contact"
      /></label>
      <div class="labelled">
        Place
        <Select
          v-model="fresh.location"
          :options="circuit.locations"
          option-value="id"
          option-label="name"
          aria-label="Place of the new device"
          fluid
        />
      </div>
      <label>Function <input v-model="fresh.function" aria-label="Function of the new device" /></label>
      <Button label="Put it in" icon="pi pi-plus" size="small" :disabled="!fresh.tag.trim()" @click="insert" />
    </fieldset>
    <Button
      v-if="isTwoTerminal"
      :label="`Take ${part} out`"
      icon="pi pi-trash"
      size="small"
      severity="secondary"
      outlined
      @click="emit('edit', { type: 'remove', part })"
    />
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 0.5rem;
}
label,
.labelled {
  display: grid;
  gap: 0.1rem;
  font-size: 0.9rem;
}
input {
  min-height: 44px;
  width: 100%;
  min-width: 0;
}
fieldset {
  border: 1px solid var(--line);
  display: grid;
  gap: 0.4rem;
  min-width: 0;
}
summary,
legend {
  font-weight: 600;
  font-size: 0.9rem;
}
details.group[open] label {
  margin-top: 0.4rem;
}
.contact {
  max-width: 8rem;
}
</style>
