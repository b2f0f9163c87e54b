<script setup lang="ts">
import Button from 'primevue/button'
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Circuit } from '@/api/client'
import type { Edit } from './useSetup'

const props = defineProps<{ circuit: Circuit }>()
const emit = defineEmits<{ edit: [edit: Edit]; show: [from: string, to: string] }>()

/** What was found of each conductor; kept in the browser, so that a trace can go on after a break. */
const found = useLocalStorage<Record<string, 'same' | 'differs' | 'missing'>>(`fehler.trace.${props.circuit.tag}`, {})
const differing = ref('')
const wire = ref('')
const ends = ref({ from: '', to: '' })

const place = (terminal: string) =>
  props.circuit.locations.find(
    (l) => l.id === props.circuit.devices.find((d) => d.tag === terminal.slice(0, terminal.lastIndexOf(':')))?.location,
  )?.name ?? ''
const places = computed(() => [...new Set(props.circuit.conductors.map((c) => place(c.from)))])
const counts = computed(() => {
  const all = props.circuit.conductors.map((c) => found.value[c.id])
  return { same: all.filter((f) => f === 'same').length, open: all.filter((f) => f !== 'same').length, all: all.length }
})

function mark(id: string, what: 'same' | 'differs' | 'missing') {
  found.value = { ...found.value, [id]: what }
  const conductor = props.circuit.conductors.find((c) => c.id === id)!
  differing.value = what === 'same' ? '' : id
  wire.value = conductor.wire
  ends.value = { from: conductor.from, to: conductor.to }
}

function correct() {
  const conductor = props.circuit.conductors.find((c) => c.id === differing.value)
  if (!conductor) return
  if (ends.value.from.trim() !== conductor.from)
    emit('edit', { type: 'moveEnd', conductor: conductor.id, from: true, terminal: ends.value.from.trim() })
  else if (ends.value.to.trim() !== conductor.to)
    emit('edit', { type: 'moveEnd', conductor: conductor.id, from: false, terminal: ends.value.to.trim() })
  else if (wire.value.trim() !== conductor.wire)
    emit('edit', { type: 'renumberWire', wire: conductor.wire, newWire: wire.value.trim() })
}
</script>

<template>
  <div>
    <p>
      Go along the panel, conductor by conductor, isolated and proved dead. Tick what is as drawn; where it differs, say
      how it is landed. <strong class="figures">{{ counts.same }} of {{ counts.all }}</strong> ticked.
    </p>
    <progress :value="counts.same" :max="counts.all" aria-label="Conductors ticked" />
    <section v-for="at in places" :key="at">
      <h3>{{ at }}</h3>
      <ul>
        <li v-for="c in circuit.conductors.filter((x) => place(x.from) === at)" :key="c.id" :class="found[c.id]">
          <button type="button" class="which figures" @click="emit('show', c.from, c.to)">
            <strong>{{ c.wire }}</strong> {{ c.from }} – {{ c.to }}
          </button>
          <span class="marks">
            <Button
              icon="pi pi-check"
              size="small"
              :outlined="found[c.id] !== 'same'"
              :aria-label="`${c.id} is as drawn`"
              :aria-pressed="found[c.id] === 'same'"
              @click="mark(c.id, 'same')"
            />
            <Button
              label="differs"
              size="small"
              severity="secondary"
              :outlined="found[c.id] !== 'differs'"
              :aria-label="`${c.id} differs`"
              @click="mark(c.id, 'differs')"
            />
            <Button
              label="missing"
              size="small"
              severity="secondary"
              :outlined="found[c.id] !== 'missing'"
              :aria-label="`${c.id} is missing`"
              @click="mark(c.id, 'missing')"
            />
          </span>
          <div v-if="differing === c.id" class="how">
            <template v-if="found[c.id] === 'differs'">
              <label>Wire number <input v-model="wire" class="figures" aria-label="Wire number in the panel" /></label>
              <label>From <input v-model="ends.from" class="figures" aria-label="From terminal in the panel" /></label>
              <label>To <input v-model="ends.to" class="figures" aria-label="To terminal in the panel" /></label>
              <Button label="Correct the circuit" size="small" @click="correct" />
              <p class="faint">
                Where the panel joins other points than the drawing does, the circuit itself is another: put devices in
                or take them out by tapping them in the drawing.
              </p>
            </template>
            <p v-else class="faint">
              Not there: either wire {{ c.wire }} runs another way (tap its number in the drawing and change its route),
              or it has been left off, which is a fault to repair and not a change of the drawing.
            </p>
          </div>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
progress {
  width: 100%;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: center;
  justify-content: space-between;
  border-bottom: 1px solid var(--line);
  border-left: 5px solid transparent;
  padding: 0.1rem 0.3rem;
}
li.same {
  border-left-color: var(--petrol);
}
li.differs,
li.missing {
  border-left-color: var(--doubt);
}
.which {
  border: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  cursor: pointer;
  min-height: 44px;
  text-align: left;
}
.marks {
  display: flex;
  gap: 0.2rem;
}
.how {
  flex-basis: 100%;
  display: grid;
  gap: 0.3rem;
  padding: 0.3rem;
}
.how label {
  display: grid;
  grid-template-columns: 6rem 1fr;
  align-items: center;
}
.how input {
  min-height: 40px;
  min-width: 0;
}
h3 {
  margin: 0.6rem 0 0.2rem;
}
</style>
