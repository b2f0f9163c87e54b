<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import Dialog from 'primevue/dialog'
import { computed, ref } from 'vue'
import type { Circuit, Entry, Job } from '@/api/client'

const props = defineProps<{ job: Job; circuit: Circuit; waiting: number; offline: boolean }>()
const emit = defineEmits<{ entry: [entry: Entry] }>()

const asking = ref<'' | 'isolate' | 'prove' | 'energise' | 'live'>('')
const ticks = ref<string[]>([])

const words = computed(
  () =>
    ({
      unknown: { text: 'NOT KNOWN – TREAT AS LIVE', icon: 'pi-question-circle', type: 'unknown' },
      live: { text: 'LIVE', icon: 'pi-bolt', type: 'live' },
      isolatedNotProved: {
        text: 'ISOLATED, NOT PROVED – TREAT AS LIVE',
        icon: 'pi-exclamation-triangle',
        type: 'unknown',
      },
      provedDead: { text: 'ISOLATED AND PROVED DEAD', icon: 'pi-lock', type: 'dead' },
    })[props.job.liveness],
)

const needed = {
  isolate: [
    'Every isolating device named above is open',
    'My own lock and tag are on',
    'Stored energy is dealt with: load, fan, brake, capacitors',
  ],
  prove: [
    'Voltage detector checked on a known source before',
    'Dead phase to phase, to neutral and to earth, neutral to earth, and no foreign supply',
    'Detector checked on the known source again after',
  ],
  energise: ['Nobody is at the machine or in the panel', 'Test leads are off; covers are on where they can be'],
  live: [
    'I am authorised for live testing here, and local rules allow it',
    'Insulated probes, eye protection, no loose metal; the motor may start',
  ],
}
const titles = {
  isolate: 'Isolate and lock off',
  prove: 'Prove dead at the point of work',
  energise: 'Switch on again',
  live: 'Live tests',
}

function ask(what: 'isolate' | 'prove' | 'energise' | 'live') {
  ticks.value = []
  asking.value = what
}

function confirm() {
  const what = asking.value
  asking.value = ''
  if (what === 'isolate') emit('entry', { type: 'isolated', points: props.circuit.isolationPoints } as Entry)
  if (what === 'prove')
    emit('entry', { type: 'provedDead', detectorCheckedBefore: true, detectorCheckedAfter: true } as Entry)
  if (what === 'energise') emit('entry', { type: 'energised' } as Entry)
  if (what === 'live') emit('entry', { type: 'liveWorkAcknowledged' } as Entry)
}

defineExpose({ ask })
</script>

<template>
  <section class="band" :class="words.type" aria-label="State of the circuit">
    <div class="state" role="status"><i :class="['pi', words.icon]" aria-hidden="true" /> {{ words.text }}</div>
    <div v-if="job.lifted.length" class="lifted" role="status">
      {{ job.lifted.length }} wire{{ job.lifted.length > 1 ? 's' : '' }} lifted:
      {{ job.lifted.map((l) => l.conductor).join(', ') }}
    </div>
    <div v-if="waiting || offline" class="lifted" role="status">
      <i class="pi pi-cloud" aria-hidden="true" /> no connection<template v-if="waiting"
        >, {{ waiting }} entr{{ waiting === 1 ? 'y' : 'ies' }} kept here and waiting</template
      >
    </div>
    <div v-if="!job.isClosed" class="actions no-print">
      <Button
        v-if="!job.isIsolated && !job.liveAcknowledged"
        label="Live tests…"
        severity="contrast"
        variant="outlined"
        @click="ask('live')"
      />
      <Button v-if="!job.isIsolated" label="Isolate…" severity="contrast" variant="outlined" @click="ask('isolate')" />
      <Button
        v-if="job.liveness === 'isolatedNotProved'"
        label="Prove dead…"
        severity="contrast"
        variant="outlined"
        @click="ask('prove')"
      />
      <Button
        v-if="job.isIsolated"
        label="Switch on…"
        severity="contrast"
        variant="outlined"
        @click="ask('energise')"
      />
    </div>
  </section>
  <Dialog
    :visible="!!asking"
    modal
    :header="asking ? titles[asking] : ''"
    :style="{ width: '34rem', maxWidth: '96vw' }"
    @update:visible="asking = ''"
  >
    <template v-if="asking">
      <p v-if="asking === 'isolate'">
        Isolating devices of this circuit: <strong>{{ circuit.isolationPoints.join(', ') }}</strong>. What is above them
        stays live.
      </p>
      <p v-if="asking === 'prove'">
        An open protective conductor makes “dead to earth” worthless: test phase to phase too.
      </p>
      <p v-if="asking === 'energise' && job.lifted.length" class="warn">
        Still lifted: {{ job.lifted.map((l) => l.conductor).join(', ') }}.
      </p>
      <label v-for="item in needed[asking]" :key="item" class="tick">
        <Checkbox v-model="ticks" :value="item" size="large" /> <span>{{ item }}</span>
      </label>
      <p class="faint">Local codes, site rules and licensed practice come first.</p>
      <Button
        :label="
          {
            isolate: 'It is isolated and locked',
            prove: 'It is dead',
            energise: 'It is switched on',
            live: 'I work live',
          }[asking]
        "
        :disabled="ticks.length < needed[asking].length"
        @click="confirm"
      />
    </template>
  </Dialog>
</template>

<style scoped>
.band {
  position: sticky;
  top: 0;
  z-index: 5;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 1.2rem;
  padding: 0.35rem 1rem;
  border-bottom: 2px solid var(--ink);
}
.state {
  font:
    600 1.45rem 'Barlow Semi Condensed',
    sans-serif;
  letter-spacing: 0.02em;
}
.state .pi {
  font-size: 1.25rem;
}
.live {
  background: var(--live-band);
  color: #ffffff;
  border-top: 6px double #ffffff;
}
.unknown {
  color: var(--unknown-ink);
  background: repeating-linear-gradient(
    115deg,
    var(--unknown) 0 26px,
    color-mix(in srgb, var(--unknown) 82%, black) 26px 52px
  );
}
.dark .unknown,
:global(.dark) .unknown {
  background: repeating-linear-gradient(
    115deg,
    var(--unknown) 0 26px,
    color-mix(in srgb, var(--unknown) 85%, white) 26px 52px
  );
}
.dead {
  background: var(--dead);
  color: var(--dead-ink);
}
.lifted {
  font-weight: 600;
  border: 2px solid currentColor;
  padding: 0.15rem 0.5rem;
}
.actions {
  margin-left: auto;
  display: flex;
  gap: 0.5rem;
}
.actions :deep(.p-button) {
  color: inherit;
  border-color: currentColor;
}
.tick {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  min-height: 48px;
}
.warn {
  font-weight: 600;
  color: var(--live);
}
@media (max-width: 500px) {
  .band {
    padding: 0.3rem 0.6rem;
  }
  .state {
    font-size: 1.15rem;
  }
}
</style>
