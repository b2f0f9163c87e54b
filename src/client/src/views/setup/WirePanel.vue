<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { Circuit } from '@/api/client'
import type { Edit } from './useSetup'

const props = defineProps<{ circuit: Circuit; wire: string }>()
const emit = defineEmits<{ edit: [edit: Edit] }>()

const conductors = computed(() => props.circuit.conductors.filter((c) => c.wire === props.wire))
const strips = computed(() => props.circuit.devices.filter((d) => d.isStrip).map((d) => d.tag))
/** The terminals in the order that the wire runs through them now, as far as it is one chain. */
const order = computed(() => [...new Set(conductors.value.flatMap((c) => [c.from, c.to]))])
const isStripClamp = (terminal: string) => strips.value.includes(terminal.slice(0, terminal.lastIndexOf(':')))

function move(index: number, by: number) {
  const terminals = [...order.value]
  const [taken] = terminals.splice(index, 1)
  terminals.splice(index + by, 0, taken!)
  emit('edit', { type: 'routeChained', wire: props.wire, terminals })
}
const chain = () =>
  emit('edit', { type: 'routeChained', wire: props.wire, terminals: order.value.filter((t) => !isStripClamp(t)) })
const given = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div v-if="conductors.length" class="panel">
    <h2>Wire {{ wire }}</h2>
    <label
      >Number on the ferrules
      <input
        :value="wire"
        aria-label="Wire number"
        class="figures"
        @change="emit('edit', { type: 'renumberWire', wire, newWire: given($event) })"
      />
    </label>
    <h3>How it runs</h3>
    <ul>
      <li v-for="c in conductors" :key="c.id" class="figures">
        {{ c.from }} – {{ c.to }} <span class="faint">{{ c.metres }} m</span>
      </li>
    </ul>
    <template v-if="order.length > 2">
      <h3>From terminal to terminal</h3>
      <ol>
        <li v-for="(terminal, i) in order" :key="terminal">
          <span class="figures">{{ terminal }}</span>
          <Button
            icon="pi pi-arrow-up"
            text
            size="small"
            :disabled="i === 0"
            :aria-label="`${terminal} earlier`"
            @click="move(i, -1)"
          />
          <Button
            icon="pi pi-arrow-down"
            text
            size="small"
            :disabled="i === order.length - 1"
            :aria-label="`${terminal} later`"
            @click="move(i, 1)"
          />
        </li>
      </ol>
    </template>
    <div class="row">
      <Button label="Chain it, no strip" size="small" severity="secondary" outlined @click="chain" />
      <Button
        v-for="strip in strips"
        :key="strip"
        :label="`All ends to ${strip}`"
        size="small"
        severity="secondary"
        outlined
        @click="emit('edit', { type: 'routeOverStrip', wire, strip })"
      />
    </div>
    <p class="faint">The route decides what one broken conductor kills. Every terminal of the wire stays on it.</p>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 0.5rem;
}
label {
  display: grid;
  font-size: 0.9rem;
}
input {
  min-height: 40px;
}
ul,
ol {
  list-style: none;
  padding: 0;
  margin: 0;
}
ol li {
  display: flex;
  align-items: center;
}
h3 {
  margin: 0.3rem 0 0;
  font-size: 0.95rem;
}
</style>
