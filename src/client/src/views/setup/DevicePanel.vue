<script setup lang="ts">
import Button from 'primevue/button'
import { computed, reactive, ref, watch } from 'vue'
import type { Circuit, Schemas } from '@/api/client'
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
const more = ref(false)
/** Ratings that are looked at most come first; the rest is one touch away. */
const usual = [
  'settingAmps',
  'coilVolts',
  'coil',
  'kilowatts',
  'volts',
  'amps',
  'cosPhi',
  'rpm',
  'connection',
  'seconds',
  'ratedAmps',
  'load',
  'function',
  'senses',
  'primaryVolts',
  'secondaryVolts',
  'lineVolts',
  'system',
  'reset',
  'tripClass',
  'outputVolts',
  'interlockedWith',
]
const shown = computed(() => rating.value.filter((s) => more.value || usual.includes(s.name)))

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
    <label
      >Place
      <select
        :value="device.location"
        aria-label="Place of the device"
        @change="
          emit('edit', { type: 'describeDevice', tag: device.tag, function: device.function, location: given($event) })
        "
      >
        <option v-for="l in circuit.locations" :key="l.id" :value="l.id">{{ l.name }}</option>
      </select>
    </label>
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
    <fieldset v-if="rating.length">
      <legend>Ratings and settings</legend>
      <label v-for="s in shown" :key="s.name"
        >{{ s.description }}{{ s.unit ? ` (${s.unit})` : '' }}
        <select
          v-if="s.type === 'choice'"
          :value="s.value"
          @change="emit('edit', { type: 'setParameter', tag: device.tag, name: s.name, value: given($event) })"
        >
          <option v-for="c in s.choices" :key="c">{{ c }}</option>
        </select>
        <input
          v-else
          :value="s.value"
          class="figures"
          :inputmode="s.type === 'number' ? 'decimal' : 'text'"
          @change="emit('edit', { type: 'setParameter', tag: device.tag, name: s.name, value: given($event) })"
        />
      </label>
      <Button v-if="!more && shown.length < rating.length" label="All of them" text size="small" @click="more = true" />
    </fieldset>
    <fieldset v-if="isTwoTerminal">
      <legend>Put a device beside {{ part }}</legend>
      <label
        >How
        <select v-model="fresh.how">
          <option value="seriesBefore">in series, before it</option>
          <option value="seriesAfter">in series, after it</option>
          <option value="parallel">in parallel</option>
        </select>
      </label>
      <label
        >What
        <select v-model="fresh.kind">
          <option v-for="k in kinds" :key="k.id" :value="k.id">{{ k.term }}</option>
        </select>
      </label>
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
      <label
        >Place
        <select v-model="fresh.location">
          <option v-for="l in circuit.locations" :key="l.id" :value="l.id">{{ l.name }}</option>
        </select>
      </label>
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
label {
  display: grid;
  gap: 0.1rem;
  font-size: 0.9rem;
}
input,
select {
  min-height: 40px;
  width: 100%;
  min-width: 0;
}
fieldset {
  border: 1px solid var(--line);
  display: grid;
  gap: 0.4rem;
  min-width: 0;
}
legend {
  font-weight: 600;
  font-size: 0.9rem;
}
.contact {
  max-width: 8rem;
}
</style>
