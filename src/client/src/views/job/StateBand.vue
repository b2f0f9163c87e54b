<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Circuit, Entry, Job, SafetyStep } from '@/api/client'
import { useField } from '@/field/field'
import { useSession } from '@/composables/useSession'
import { useSettings } from '@/composables/useSettings'
import LockDialog from './LockDialog.vue'
import ProcedureDialog from './ProcedureDialog.vue'

const isNarrow = useMediaQuery('(max-width: 700px)')
const props = defineProps<{
  job: Job
  circuit: Circuit
  waiting: number
  offline: boolean
  unsaved: boolean
  /** Records an entry; returns why it was refused, or nothing. */
  send: (entry: Entry) => Promise<string | undefined>
}>()
const emit = defineEmits<{ entry: [entry: Entry]; help: [] }>()
const router = useRouter()
const { who, asking: you } = useSettings()
const { isDemo } = useSession()
const { answered } = useField()

const asking = ref<SafetyStep>()
/** The step that is asked for, as the service says that it is done; none when it cannot be done now. */
const procedure = computed(() => props.job.possible.find((p) => p.step === asking.value))

const looks = computed(
  () =>
    ({
      unknown: { icon: 'pi-question-circle', type: 'unknown' },
      live: { icon: 'pi-bolt', type: 'live' },
      isolatedNotProved: { icon: 'pi-exclamation-triangle', type: 'unknown' },
      provedDead: { icon: 'pi-lock', type: 'dead' },
    })[props.job.liveness],
)
const short: Record<string, string> = {
  liveTests: 'Live tests…',
  isolate: 'Isolate…',
  proveDead: 'Prove dead…',
  switchOn: 'Switch on…',
}

function ask(what: SafetyStep) {
  asking.value = what
}

/** One's own lock beside others', or off again; somebody else's only with the site's procedure. */
const lockOf = ref('')
const mine = computed(() => props.job.locks.includes(who.value))
const lock = () => emit('entry', { type: mine.value ? 'lockTaken' : 'lockHung' } as Entry)

defineExpose({ ask })
</script>

<template>
  <section class="band" :class="looks.type" aria-label="State of the circuit">
    <RouterLink to="/" class="home no-print" aria-label="To the register" title="To the register">
      <i class="pi pi-arrow-left" aria-hidden="true" />
    </RouterLink>
    <div class="state" role="status"><i :class="['pi', looks.icon]" aria-hidden="true" /> {{ job.state }}</div>
    <h1>
      <span v-if="isDemo" title="Whoever is on this machine is signed in">Demo · </span
      ><RouterLink :to="`/circuits/${job.circuitId}`">{{ job.circuitTag }}</RouterLink> {{ job.circuitTitle }}:
      {{ job.title }}
    </h1>
    <span v-if="job.isClosed" class="lifted">closed</span>
    <div v-if="job.lifted.length" class="lifted" role="status">
      {{ job.lifted.length }} wire{{ job.lifted.length > 1 ? 's' : '' }} lifted:
      {{ job.lifted.map((l) => l.conductor).join(', ') }}
    </div>
    <div v-if="job.locks.length" class="lifted" role="status">
      <i class="pi pi-lock" aria-hidden="true" /> locks: {{ job.locks.join(', ') }}
      <button
        v-for="other in job.isClosed ? [] : job.locks.filter((l) => l !== who)"
        :key="other"
        type="button"
        class="other no-print"
        :aria-label="`The lock of ${other} is gone…`"
        @click="lockOf = other"
      >
        {{ other }} gone…
      </button>
    </div>
    <div v-if="waiting || offline" class="lifted" role="status">
      <i class="pi pi-cloud" aria-hidden="true" />
      {{ offline ? (answered ? 'no connection: worked out here' : 'no connection') : 'not yet sent'
      }}<template v-if="waiting">, {{ waiting }} entr{{ waiting === 1 ? 'y' : 'ies' }} kept</template>
    </div>
    <div v-if="unsaved" class="lifted" role="status">
      <i class="pi pi-exclamation-triangle" aria-hidden="true" /> this browser’s store is full: do not close this window
    </div>
    <div class="actions no-print">
      <Button
        v-for="p in job.possible"
        :key="p.title"
        :label="short[p.step ?? '']"
        severity="contrast"
        variant="outlined"
        @click="ask(p.step!)"
      />
      <Button
        v-if="job.isIsolated && !job.isClosed && who && (!mine || job.locks.length > 1)"
        :label="mine ? 'My lock off' : 'My lock on'"
        severity="contrast"
        variant="outlined"
        @click="lock"
      />
      <Button
        v-if="job.isClosed"
        label="Report"
        icon="pi pi-file"
        severity="contrast"
        variant="outlined"
        @click="router.push(`/jobs/${job.id}/report`)"
      />
      <Button
        v-else
        :label="isNarrow ? 'Close out' : 'Repair and close out'"
        aria-label="Repair and close out"
        icon="pi pi-check-square"
        severity="contrast"
        variant="outlined"
        @click="router.push(`/jobs/${job.id}/close-out`)"
      />
      <Button
        :label="who || 'Who are you?'"
        icon="pi pi-user"
        text
        class="who"
        aria-label="Name, light and way of working"
        @click="you = true"
      />
      <Button label="?" text aria-label="Shortcuts" @click="emit('help')" />
    </div>
  </section>
  <LockDialog :of="lockOf" :send="send" @close="lockOf = ''" />
  <ProcedureDialog
    :procedure="procedure"
    :circuit="circuit"
    :is-simulated="!!job.exercise"
    :send="send"
    @close="asking = undefined"
  />
</template>

<style scoped>
.band {
  z-index: 5;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 1rem;
  padding: 0.3rem 0.8rem;
  border-bottom: 2px solid var(--ink);
}
.home {
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  color: inherit;
  text-decoration: none;
}
.state {
  font:
    600 1.45rem 'Barlow Semi Condensed',
    sans-serif;
  letter-spacing: 0.02em;
  white-space: nowrap;
}
h1 {
  flex: 1 1 12rem;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 1.1rem;
}
h1 a {
  color: inherit;
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
.other {
  border: 1px solid currentColor;
  border-radius: 3px;
  margin-left: 0.4rem;
  padding: 0 0.6rem;
  background: transparent;
  color: inherit;
  cursor: pointer;
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
@media (max-width: 500px) {
  .band {
    padding: 0.3rem 0.6rem;
  }
  .state {
    font-size: 1.15rem;
  }
  h1 {
    flex: 1 1 60%;
    order: 1;
    font-size: 1rem;
  }
  .who :deep(.p-button-label) {
    display: none;
  }
}
</style>
