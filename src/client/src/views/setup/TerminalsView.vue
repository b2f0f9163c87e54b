<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { api, need, type Entry, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { useSettings } from '@/composables/useSettings'

/** A device without marks: it says which two terminals to beep out next, and leaves a map of what they are. Kept on this device until begun anew. */
const route = useRoute()
const { who } = useSettings()
const fresh = () => ({
  device: 'contactor' as Schemas['UnmarkedDevice'],
  name: '',
  top: 6,
  bottom: 6,
  readings: [] as Schemas['UnmarkedReading'][],
})
const so = useStorage('fehler.terminals', fresh(), undefined, { mergeDefaults: true })
const finding = ref<Schemas['TerminalFindingView']>()
const typed = ref('')
const problem = ref('')
const kept = ref(false)
const field = ref<HTMLElement>()

const devices = [
  { id: 'contactor', name: 'Contactor or relay' },
  { id: 'overloadRelay', name: 'Overload relay' },
]
const worked = computed(() => (so.value.device === 'contactor' ? 'armature pressed' : 'tripped by its test button'))
const where = (t: string) => `${t.startsWith('T') ? 'above' : 'below'} ${t.slice(1)}`
const words: Record<string, string> = {
  coil: 'coil',
  pole: 'main pole',
  normallyOpen: 'make contact',
  normallyClosed: 'break contact',
  heater: 'heater',
}
const markOf = (t: string) => {
  const found = finding.value?.found.find((f) => f.a === t || f.b === t)
  return found ? (found.a === t ? found.markA : found.markB) : ''
}
const row = (letter: string, count: number) => Array.from({ length: count }, (_, i) => `${letter}${i + 1}`)
const map = computed(
  () =>
    `${so.value.name || 'Device without marks'}: ` +
    (finding.value?.found ?? [])
      .map((f) => `${f.markA}-${f.markB} ${words[f.element]} (${where(f.a)}, ${where(f.b)})`)
      .join('; ') +
    (finding.value?.free.length ? `; shows nothing: ${finding.value.free.map(where).join(', ')}` : ''),
)

async function find(readings: Schemas['UnmarkedReading'][]) {
  problem.value = ''
  try {
    const answer = need(
      await api.POST('/api/setup/terminals', {
        body: { device: so.value.device, top: so.value.top, bottom: so.value.bottom, readings },
      }),
    )
    finding.value = answer
    so.value.readings = readings
    kept.value = false
    return true
  } catch (error) {
    problem.value = (error as Error).message
    return false
  }
}

async function record(shows: string) {
  const next = finding.value?.next
  if (!next || !shows.trim()) return
  if (await find([...so.value.readings, { a: next.a, b: next.b, worked: next.worked, typed: shows.trim() }])) {
    typed.value = ''
    await nextTick()
    field.value?.querySelector('input')?.focus()
  }
}
const back = () => void find(so.value.readings.slice(0, -1))
watch(
  () => [so.value.device, so.value.top, so.value.bottom] as const,
  (_, before) => void find(before ? [] : so.value.readings),
  { immediate: true },
)

async function keep() {
  problem.value = ''
  try {
    need(
      await api.POST('/api/jobs/{id}/entries', {
        params: { path: { id: String(route.query.job) } },
        body: { type: 'note', id: crypto.randomUUID(), who: who.value, text: map.value } as Entry,
      }),
    )
    kept.value = true
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <main class="page">
    <h1>A device without marks</h1>
    <p class="faint">
      Isolated, proved dead, its wires off or the device out: anything beside it beeps too. Local codes and licensed
      practice come first.
    </p>
    <PageProblem :text="problem" />
    <div class="sheet block row">
      <SelectButton
        v-model="so.device"
        :options="devices"
        option-label="name"
        option-value="id"
        :allow-empty="false"
        aria-label="What it is"
      />
      <label for="top">Terminals above</label>
      <InputNumber v-model="so.top" input-id="top" :min="1" :max="12" input-class="count" />
      <label for="bottom">below</label>
      <InputNumber v-model="so.bottom" input-id="bottom" :min="0" :max="12" input-class="count" />
      <InputText v-model="so.name" maxlength="60" placeholder="what it is called here" aria-label="What it is called" />
    </div>
    <div v-if="finding" class="sheet block device" aria-label="The device" role="img">
      <div v-for="letter in ['T', 'B']" :key="letter" class="terminals">
        <span
          v-for="t in row(letter, letter === 'T' ? so.top : so.bottom)"
          :key="t"
          class="terminal figures"
          :class="{ asked: finding.next && (finding.next.a === t || finding.next.b === t), known: markOf(t) }"
          :data-place="t"
          >{{ markOf(t) || t.slice(1) }}</span
        >
      </div>
    </div>
    <section v-if="finding?.next" class="sheet block" aria-label="Next" aria-live="polite">
      <h2>
        {{ where(finding.next.a) }} – {{ where(finding.next.b) }},
        {{ finding.next.worked ? worked : 'at rest' }}
      </h2>
      <p class="faint">{{ finding.next.why }}</p>
      <form ref="field" class="row" @submit.prevent="record(typed)">
        <InputText
          v-model="typed"
          class="figures value"
          inputmode="decimal"
          maxlength="20"
          placeholder="ohms"
          aria-label="What the meter shows"
        />
        <Button type="submit" label="Record" :disabled="!typed.trim()" />
        <Button label="OL" severity="secondary" variant="outlined" @click="record('OL')" />
        <Button label="It beeps" severity="secondary" variant="outlined" @click="record('beep')" />
        <Button v-if="so.readings.length" label="One back" text @click="back" />
      </form>
    </section>
    <section v-if="finding && so.readings.length" class="sheet block" aria-label="Found">
      <h2>{{ finding.next ? 'Found so far' : 'Found' }} with {{ so.readings.length }} readings</h2>
      <table v-if="finding.found.length">
        <thead>
          <tr>
            <th>Marks</th>
            <th>What it is</th>
            <th>Where</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in finding.found" :key="f.a + f.b">
            <td class="figures">
              <strong>{{ f.markA }}-{{ f.markB }}</strong>
            </td>
            <td>{{ words[f.element] }}</td>
            <td>{{ where(f.a) }}, {{ where(f.b) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="!finding.next && finding.free.length">
        Belongs to nothing that was found: {{ finding.free.map(where).join(', ') }}. A spare, a broken coil or a contact
        that does not make shows the same.
      </p>
      <div class="row no-print">
        <Button v-if="route.query.job" label="Into the job’s journal" :disabled="kept" @click="keep" />
        <RouterLink v-if="route.query.job" :to="`/jobs/${route.query.job}`">Back to the job</RouterLink>
        <Button label="Begin anew" severity="secondary" variant="outlined" @click="find([])" />
      </div>
      <p v-if="kept" role="status">The map is a note of the job now.</p>
    </section>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem 3rem;
  max-width: 900px;
  margin: 0 auto;
}
.block {
  padding: 0.7rem;
  margin-top: 0.7rem;
}
.page :deep(.count) {
  width: 4rem;
}
.device {
  display: grid;
  gap: 1.6rem;
}
.terminals {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.terminal {
  display: grid;
  place-items: center;
  min-width: 44px;
  min-height: 44px;
  border: 1.5px solid var(--line);
  border-radius: 50%;
  color: var(--faint);
}
.terminal.known {
  border-color: var(--petrol);
  color: var(--ink);
  font-weight: 600;
}
.terminal.asked {
  border: 3px solid var(--lead-1);
  color: var(--ink);
}
.value {
  width: 8rem;
}
h1,
h2 {
  margin-bottom: 0.3rem;
}
td,
th {
  padding: 0.25rem 1rem 0.25rem 0;
  text-align: left;
}
</style>
