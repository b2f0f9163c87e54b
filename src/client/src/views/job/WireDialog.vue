<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { computed } from 'vue'
import type { Circuit, Entry, Job, Schemas } from '@/api/client'
import PanelDiffers from './PanelDiffers.vue'
import WireRoute from '@/views/circuit/WireRoute.vue'

/** A wire by its number: its route, to put a lead on an end, to lift it for a test, to try its screws. */
const props = defineProps<{
  wire: string
  circuit: Circuit
  job: Job
  moving: 1 | 2
  correct: (edit: Schemas['CircuitEdit']) => Promise<string | undefined>
}>()
const emit = defineEmits<{ close: []; terminal: [terminal: string]; entry: [entry: Entry] }>()

const conductors = computed(() => props.circuit.conductors.filter((c) => c.wire === props.wire))
const ends = computed(() => [...new Set(conductors.value.flatMap((c) => [c.from, c.to]))])
const isLifted = (conductor: string) => props.job.lifted.some((l) => l.conductor === conductor)
const lift = (conductor: string, end: string) => emit('entry', { type: 'wireLifted', conductor, end } as Entry)
const land = (conductor: string) => emit('entry', { type: 'wireLanded', conductor } as Entry)
const drawnAt = (terminal: string) =>
  props.circuit.conductors.filter((c) => c.from === terminal || c.to === terminal).length
const counted = (terminal: string, found: number) =>
  emit('entry', { type: 'conductorsCounted', terminal, found } as Entry)
const tighten = (terminal: string, wasLoose: boolean) =>
  emit('entry', { type: 'tightened', terminal, wasLoose } as Entry)
</script>

<template>
  <Dialog
    :visible="!!wire"
    modal
    :header="`Wire ${wire}`"
    :style="{ width: '28rem', maxWidth: '96vw' }"
    @update:visible="emit('close')"
  >
    <p class="faint">Tap an end to put lead {{ moving }} there.</p>
    <WireRoute :circuit="circuit" :wire="wire" tappable @terminal="emit('terminal', $event)" />
    <template v-if="!job.isClosed">
      <h3>Lift one end for a test</h3>
      <div v-for="c in conductors" :key="c.id" class="row">
        <template v-if="isLifted(c.id)">
          {{ c.id }} is lifted
          <Button label="Landed again" size="small" :disabled="!job.mayTouch" @click="land(c.id)" />
        </template>
        <template v-else>
          <Button
            v-for="end in [c.from, c.to]"
            :key="end"
            :label="`Lift ${c.id} at ${end}`"
            size="small"
            variant="outlined"
            :disabled="!job.mayTouch"
            @click="lift(c.id, end)"
          />
        </template>
      </div>
      <h3>Count the conductors</h3>
      <p class="faint">Hands out: a look is enough. Count what was lifted off for a test, too.</p>
      <div v-for="end in ends" :key="end" class="row">
        <span>{{ end }}, drawn {{ drawnAt(end) }}:</span>
        <Button
          v-for="found in [drawnAt(end) - 1, drawnAt(end), drawnAt(end) + 1].filter((n) => n >= 0)"
          :key="found"
          :label="`${found}`"
          size="small"
          variant="outlined"
          :aria-label="`${found} found under ${end}`"
          @click="counted(end, found)"
        />
      </div>
      <h3>Try a screw</h3>
      <div v-for="end in ends" :key="end" class="row">
        <span>{{ end }}</span>
        <Button
          v-for="[label, wasLoose] in [
            ['was loose, now tight', true],
            ['is tight', false],
          ] as const"
          :key="label"
          :label="label"
          size="small"
          variant="outlined"
          :aria-label="`${end} ${label}`"
          :disabled="!job.mayTouch"
          @click="tighten(end, wasLoose)"
        />
      </div>
      <p v-if="!job.mayTouch" class="faint">Lifting and screws: only on a circuit that is isolated and proved dead.</p>
      <PanelDiffers :wire="wire" :circuit="circuit" :correct="correct" @close="emit('close')" />
    </template>
  </Dialog>
</template>
