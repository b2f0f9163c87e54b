<script setup lang="ts">
import Button from 'primevue/button'
import { reactive } from 'vue'
import type { Circuit } from '@/api/client'
import type { Edit } from './useSetup'

const props = defineProps<{ circuit: Circuit }>()
const emit = defineEmits<{ edit: [edit: Edit] }>()
const fresh = reactive({ name: '', cableMetres: 20 })

const numbers = reactive({ first: 1, step: 1 })
const given = (event: Event) => (event.target as HTMLInputElement).value
type Field = 'tag' | 'title' | 'area' | 'enclosure' | 'drawing' | 'notes'
const fields: { name: Field; label: string }[] = [
  { name: 'tag', label: 'Tag' },
  { name: 'title', label: 'Drives' },
  { name: 'area', label: 'Area' },
  { name: 'enclosure', label: 'Enclosure' },
  { name: 'drawing', label: 'Drawing' },
  { name: 'notes', label: 'Notes' },
]
function describe(name: Field, value: string) {
  const { tag, title, area, enclosure, drawing, notes } = props.circuit
  emit('edit', { type: 'describeCircuit', tag, title, area, enclosure, drawing, notes, [name]: value })
}
function place(id: string, change: { name?: string; cableMetres?: number }) {
  const l = props.circuit.locations.find((x) => x.id === id)!
  emit('edit', { type: 'setPlace', id, name: l.name, kind: l.type, cableMetres: l.cableMetres, ...change })
}
function add() {
  const id = `place${props.circuit.locations.length + 1}`
  emit('edit', {
    type: 'setPlace',
    id,
    name: fresh.name.trim(),
    kind: 'fieldStation',
    cableMetres: Number(fresh.cableMetres),
  })
  fresh.name = ''
}
</script>

<template>
  <div class="panel">
    <p class="faint">Tap a device or a wire number in the drawing to change it. The circuit itself:</p>
    <label v-for="f in fields" :key="f.name"
      >{{ f.label }}
      <input :value="circuit[f.name]" :aria-label="f.label" maxlength="200" @change="describe(f.name, given($event))" />
    </label>
    <fieldset>
      <legend>All wire numbers at once</legend>
      <div class="numbers">
        <label
          >First <input v-model="numbers.first" class="figures" inputmode="numeric" aria-label="First number"
        /></label>
        <label>Step <input v-model="numbers.step" class="figures" inputmode="numeric" aria-label="Step" /></label>
        <Button
          label="Number the wires"
          size="small"
          severity="secondary"
          outlined
          @click="emit('edit', { type: 'renumberWires', first: Number(numbers.first), step: Number(numbers.step) })"
        />
      </div>
    </fieldset>
    <fieldset>
      <legend>Places</legend>
      <div v-for="l in circuit.locations" :key="l.id" class="place">
        <input :value="l.name" :aria-label="`Name of ${l.name}`" @change="place(l.id, { name: given($event) })" />
        <label v-if="l.type !== 'enclosure'" class="metres"
          ><input
            :value="l.cableMetres"
            class="figures"
            inputmode="decimal"
            :aria-label="`Cable to ${l.name}, metres`"
            @change="place(l.id, { cableMetres: Number(given($event).replace(',', '.')) })"
          />
          m</label
        >
      </div>
      <div class="place">
        <input v-model="fresh.name" placeholder="another place" aria-label="Name of another place" />
        <label class="metres"
          ><input v-model="fresh.cableMetres" class="figures" aria-label="Cable to it, metres" /> m</label
        >
      </div>
      <Button
        label="Add the place"
        size="small"
        severity="secondary"
        outlined
        :disabled="!fresh.name.trim()"
        @click="add"
      />
    </fieldset>
  </div>
</template>

<style scoped>
.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 0.5rem;
  align-items: end;
}
.numbers input {
  width: 100%;
}
.panel {
  display: grid;
  gap: 0.4rem;
}
label {
  display: grid;
  font-size: 0.9rem;
}
input {
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
.place {
  display: grid;
  grid-template-columns: 1fr 6rem;
  gap: 0.4rem;
}
.metres {
  display: flex;
  align-items: center;
  gap: 0.3rem;
}
</style>
