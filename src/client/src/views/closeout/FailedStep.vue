<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { ref, watch } from 'vue'
import type { Circuit, Entry, Schemas } from '@/api/client'

/** A step of the function test that did not go as expected: what was seen instead goes on as evidence. */
const props = defineProps<{ step?: Schemas['FunctionTestStep']; circuit: Circuit }>()
const emit = defineEmits<{ entry: [entry: Entry]; close: [] }>()

const seen = ref<Record<string, string>>({})
watch(
  () => props.step,
  () => (seen.value = {}),
)
const deviceOf = (tag: string) => props.circuit.devices.find((d) => d.tag === tag)

function record() {
  emit('entry', { type: 'functionTested', step: props.step!.id, passed: false, seen: seen.value } as Entry)
  emit('close')
}
</script>

<template>
  <Dialog
    :visible="!!step"
    modal
    header="What did it do instead?"
    :style="{ width: '34rem', maxWidth: '96vw' }"
    @update:visible="emit('close')"
  >
    <p>{{ step?.title }}. Touch what was seen; what nobody looked at stays open.</p>
    <div v-for="(good, tag) in step?.expected ?? {}" :key="tag" class="device">
      <strong>{{ deviceOf(tag)?.function || deviceOf(tag)?.term }} {{ tag }}</strong>
      <span class="faint">expected: {{ good }}</span>
      <div class="row">
        <button
          v-for="a in deviceOf(tag)?.appearances ?? []"
          :key="a"
          type="button"
          class="touch"
          :data-instead="`${tag} ${a}`"
          :aria-pressed="seen[tag] === a"
          @click="seen[tag] === a ? delete seen[tag] : (seen[tag] = a)"
        >
          {{ a }}
        </button>
      </div>
    </div>
    <Button
      label="Record that it failed"
      :disabled="!Object.entries(seen).some(([tag, what]) => what !== step?.expected[tag])"
      @click="record"
    />
  </Dialog>
</template>

<style scoped>
.device {
  border-top: 1px solid var(--line);
  padding: 0.3rem 0;
}
.device .faint {
  margin-left: 0.6rem;
}
</style>
