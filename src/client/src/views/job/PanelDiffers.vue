<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, ref, watch } from 'vue'
import type { Circuit, Schemas } from '@/api/client'

/** How the panel differs from the drawing at a wire: its number, where an end of it goes, a contact that is not there. */
const props = defineProps<{
  wire: string
  circuit: Circuit
  correct: (edit: Schemas['CircuitEdit']) => Promise<string | undefined>
}>()
const emit = defineEmits<{ close: [] }>()

const number = ref('')
const end = ref<End>()
const there = ref('')
const moved = computed(() => ({
  type: 'moveEnd' as const,
  conductor: end.value?.id ?? '',
  from: end.value?.isFrom ?? false,
  terminal: there.value,
}))
const problem = ref('')
const sending = ref(false)
watch(
  () => props.wire,
  () => ((number.value = problem.value = there.value = ''), (end.value = undefined)),
)
const conductors = computed(() => props.circuit.conductors.filter((c) => c.wire === props.wire))
const terminals = computed(() => [...new Set(conductors.value.flatMap((c) => [c.from, c.to]))])
interface End {
  id: string
  isFrom: boolean
  at: string
  other: string
  label: string
}
const endOf = (id: string, isFrom: boolean, at: string, other: string): End => ({
  id,
  isFrom,
  at,
  other,
  label: `from ${other}, drawn to ${at},`,
})
const ends = computed(() =>
  terminals.value.length < 3
    ? []
    : conductors.value.flatMap((c) => [endOf(c.id, true, c.from, c.to), endOf(c.id, false, c.to, c.from)]),
)
const parts = computed(() =>
  props.circuit.sheets
    .flatMap((s) => s.parts)
    .filter((p) => p.terminals.length === 2 && p.terminals.some((t) => terminals.value.includes(t.terminal)))
    .map((p) => `${p.device}:${p.name}`),
)

async function differs(edit: Schemas['CircuitEdit']) {
  sending.value = true
  problem.value = (await props.correct(edit)) ?? ''
  sending.value = false
  if (!problem.value) emit('close')
}
</script>

<template>
  <details>
    <summary>The panel differs here</summary>
    <p class="faint">
      The circuit gets a new version; everything recorded is weighed again on it, and the drawing before is kept.
    </p>
    <form class="row" @submit.prevent="differs({ type: 'renumberWire', wire, newWire: number.trim() })">
      <label for="ferrule">On the ferrules stands</label>
      <InputText id="ferrule" v-model="number" class="figures" maxlength="20" :placeholder="wire" />
      <Button type="submit" label="Renumber" size="small" :disabled="!number.trim() || sending" />
    </form>
    <form v-if="ends.length" class="row" @submit.prevent="differs(moved)">
      <label for="end">The wire</label>
      <Select
        id="end"
        v-model="end"
        :options="ends"
        option-label="label"
        placeholder="end"
        aria-label="Which end of the wire"
      />
      <span>goes to</span>
      <Select
        v-model="there"
        :options="terminals.filter((t) => t !== end?.at && t !== end?.other)"
        placeholder="terminal"
        aria-label="Where it goes"
      />
      <Button type="submit" label="There" size="small" :disabled="!end || !there || sending" />
    </form>
    <div class="row">
      <Button
        v-for="part in parts"
        :key="part"
        :label="`${part} is not there`"
        size="small"
        variant="outlined"
        :disabled="sending"
        @click="differs({ type: 'remove', part })"
      />
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 0.6rem 0;
  color: var(--petrol);
}
.row {
  margin: 0.4rem 0;
}
.problem {
  color: var(--live);
  font-weight: 600;
}
</style>
