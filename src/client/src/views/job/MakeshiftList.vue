<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import type { Entry, Job } from '@/api/client'

/** What is done to the panel for a time: what stands is shown until it is undone, and new things are written down. */
defineProps<{ job: Job; sending: boolean }>()
const emit = defineEmits<{ entry: [entry: Entry] }>()
const where = ref('')
const kinds = [
  { kind: 'coverOff', label: 'Cover is off' },
  { kind: 'bridge', label: 'Bridge is in' },
  { kind: 'taped', label: 'Held by tape or wedge' },
] as const

function made(kind: string) {
  emit('entry', { type: 'makeshift', kind, where: where.value.trim() } as Entry)
  where.value = ''
}
const undone = (m: { kind: string; where: string }) =>
  emit('entry', { type: 'makeshiftUndone', kind: m.kind, where: m.where } as Entry)
</script>

<template>
  <ul v-if="job.makeshifts.length" class="standing" aria-label="For the time being">
    <li v-for="m in job.makeshifts" :key="m.text">
      <strong>{{ m.text }}</strong>
      <span v-if="m.changesCircuit" class="faint">what is measured meanwhile counts as no evidence</span>
      <Button label="Undone" size="small" variant="outlined" :disabled="sending" @click="undone(m)" />
    </li>
  </ul>
  <details v-if="!job.isClosed">
    <summary>Cover off, bridge, tape</summary>
    <form @submit.prevent>
      <label for="makeshift">Where</label>
      <InputText id="makeshift" v-model="where" maxlength="80" placeholder="KM1 13-14, door of the panel…" fluid />
      <div class="row">
        <Button
          v-for="k in kinds"
          :key="k.kind"
          :label="k.label"
          size="small"
          severity="secondary"
          variant="outlined"
          :disabled="!where.trim() || sending"
          @click="made(k.kind)"
        />
      </div>
      <p class="faint">
        Never across an emergency stop, an overload, a limit or a guard. The job is not closed while it stands, unless
        it is handed over with it in red.
      </p>
    </form>
  </details>
</template>

<style scoped>
.standing {
  list-style: none;
  margin: 0.5rem 0;
  padding: 0.4rem 0.6rem;
  border-left: 5px solid var(--live);
}
.standing li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
}
.standing strong {
  color: var(--live);
}
.row {
  margin: 0.4rem 0;
}
</style>
