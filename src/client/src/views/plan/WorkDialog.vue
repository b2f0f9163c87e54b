<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, ref, watch } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import { useSettings } from '@/composables/useSettings'
import { uuid } from '@/composables/uuid'

/** A piece of upkeep as it is done: the steps, what is measured with it, and that it was done. */
const props = defineProps<{ item?: Schemas['PlanItem'] }>()
const emit = defineEmits<{ done: []; close: [] }>()
const { who } = useSettings()
const rule = ref<Schemas['UpkeepView']>()
const typed = ref<Record<number, string>>({})
const celsius = ref('')
const trip = ref({ device: '', amps: '', seconds: '' })
const starts = ref<Record<string, string>>({})
const working = ref('')
const minutes = ref('')
const text = ref('')
const problem = ref('')
const busy = ref(false)
let id = ''

watch(
  () => props.item,
  async (item) => {
    rule.value = undefined
    if (!item) return
    typed.value = {}
    starts.value = {}
    celsius.value = minutes.value = text.value = problem.value = ''
    trip.value = { device: '', amps: '', seconds: '' }
    id = uuid()
    if (item.kind !== 'upkeep') return
    try {
      const rules = need(await api.GET('/api/circuits/{id}/upkeep', { params: { path: { id: item.circuit } } }))
      rule.value = rules.find((r) => r.id === item.rule)
      working.value = rule.value?.working[0] ?? ''
      trip.value.device = rule.value?.tripsTimed[0] ?? ''
    } catch (error) {
      problem.value = (error as Error).message
    }
  },
  { immediate: true },
)

const hasInsulation = computed(() => rule.value?.readings.some((r) => r.quantity === 'insulation'))
const units: Record<string, string> = { insulation: 'MΩ', ohms: 'Ω', volts: 'V', amps: 'A' }
const number = (value: string) => Number(value.trim().replace(',', '.'))

function entries(): Schemas['JournalEntry'][] {
  const readings = (rule.value?.readings ?? []).flatMap((r, i) =>
    typed.value[i]?.trim()
      ? [
          {
            type: 'readingAsTyped',
            quantity: r.quantity,
            from: r.from,
            to: r.to,
            held: [],
            typed: typed.value[i],
            celsius: r.quantity === 'insulation' && celsius.value.trim() ? number(celsius.value) : null,
          },
        ]
      : [],
  )
  const timed = trip.value.seconds.trim()
    ? [
        {
          type: 'tripTimed',
          device: trip.value.device,
          amps: number(trip.value.amps),
          seconds: number(trip.value.seconds),
        },
      ]
    : []
  const counted = (rule.value?.counted ?? []).flatMap((device) =>
    starts.value[device]?.trim()
      ? [{ type: 'counterRead', device, counter: 'starts', value: number(starts.value[device]) }]
      : [],
  )
  return [...readings, ...timed, ...counted] as Schemas['JournalEntry'][]
}

async function record() {
  const item = props.item
  if (!item || busy.value) return
  busy.value = true
  problem.value = ''
  try {
    if (item.kind === 'followUp') {
      const path = { id: item.id.slice(item.id.indexOf(':') + 1) }
      need(await api.POST('/api/follow-ups/{id}/done', { params: { path }, body: { who: who.value } }))
    } else {
      const numbers = [
        minutes.value,
        celsius.value,
        trip.value.amps,
        trip.value.seconds,
        ...Object.values(starts.value),
      ].filter((n) => n?.trim())
      if (numbers.some((n) => Number.isNaN(number(n)))) throw new Error('Minutes, °C, A, s and starts are numbers.')
      need(
        await api.POST('/api/circuits/{id}/work', {
          params: { path: { id: item.circuit } },
          body: {
            id,
            rule: item.rule,
            who: who.value,
            text: text.value,
            minutes: minutes.value.trim() ? number(minutes.value) : 0,
            readings: entries() as never,
            working: entries().length ? working.value : '',
            at: null,
          },
        }),
      )
    }
    emit('done')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Dialog
    :visible="!!item"
    modal
    :header="item ? `${item.circuitTag}: ${item.title}` : ''"
    :style="{ width: '38rem', maxWidth: '96vw' }"
    @update:visible="emit('close')"
  >
    <form v-if="item" class="work" @submit.prevent="record">
      <p v-if="item.why" class="why">Sooner than usual: {{ item.why }}</p>
      <p v-if="item.state === 'dead'" class="caution">
        Isolate, lock off, prove dead at the point of work. Local codes and site rules come first.
      </p>
      <p v-else-if="item.state === 'live'" class="caution">
        With the supply on: only what needs it, covers on wherever that goes, never alone.
      </p>
      <ol v-if="rule?.steps.length">
        <li v-for="step in rule.steps" :key="step">{{ step }}</li>
      </ol>
      <fieldset v-if="rule?.readings.length">
        <legend>Measured (what was not stays empty)</legend>
        <label v-for="(r, i) in rule.readings" :key="i">
          <span class="figures">{{ r.from === r.to ? `clamp at ${r.from}` : `${r.from} – ${r.to}` }}</span>
          <InputText v-model="typed[i]" maxlength="40" inputmode="decimal" :aria-label="`${r.from} to ${r.to}`" />
          {{ units[r.quantity] ?? '' }}
        </label>
        <label v-if="hasInsulation">
          <span>Winding at</span>
          <InputText v-model="celsius" maxlength="6" inputmode="decimal" placeholder="20" aria-label="Winding at °C" />
          °C
        </label>
        <label v-if="rule.working.length > 1" class="running">
          <span>While</span>
          <Select v-model="working" :options="rule.working" aria-label="What ran" />
        </label>
      </fieldset>
      <fieldset v-if="rule?.tripsTimed.length">
        <legend>Trip timed from cold (with a test set)</legend>
        <label v-if="rule.tripsTimed.length > 1">
          <span>Device</span> <Select v-model="trip.device" :options="rule.tripsTimed" aria-label="Which device" />
        </label>
        <label
          ><span>Current</span
          ><InputText v-model="trip.amps" inputmode="decimal" maxlength="12" aria-label="Current" /> A</label
        >
        <label
          ><span>Tripped after</span
          ><InputText v-model="trip.seconds" inputmode="decimal" maxlength="12" aria-label="Tripped after" /> s</label
        >
      </fieldset>
      <fieldset v-if="rule?.counted.length">
        <legend>Counter of starts, where there is one</legend>
        <label v-for="d in rule.counted" :key="d">
          <span>{{ d }}</span><InputText
            v-model="starts[d]"
            inputmode="numeric"
            maxlength="12"
            :aria-label="`Starts of ${d}`"
          />
        </label>
      </fieldset>
      <template v-if="item.kind !== 'followUp'">
        <label class="wide"
          >What was found <InputText v-model="text" maxlength="500" aria-label="What was found"
        /></label>
        <label
          ><span>Minutes</span
          ><InputText
            v-model="minutes"
            inputmode="decimal"
            maxlength="8"
            aria-label="Minutes"
            :placeholder="String(Math.round(item.minutes))"
        /></label>
      </template>
      <p v-if="problem" class="error" role="alert">{{ problem }}</p>
      <div class="row">
        <Button type="submit" label="Done" icon="pi pi-check" :loading="busy" />
        <Button type="button" label="Not now" severity="secondary" outlined @click="emit('close')" />
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
.work {
  display: grid;
  gap: 0.5rem;
}
.work p,
.work ol {
  margin: 0;
}
.why {
  color: var(--doubt);
  font-weight: 600;
}
.caution {
  border-left: 4px solid var(--live);
  padding-left: 0.6rem;
}
fieldset {
  border: 1px solid var(--line);
  margin: 0;
  padding: 0.3rem 0.6rem;
}
label {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 48px;
}
label > span:first-child {
  flex: 0 0 11rem;
}
label :deep(input) {
  width: 7rem;
}
label.wide {
  display: grid;
}
label.wide :deep(input) {
  width: 100%;
}
.error {
  color: var(--live);
  font-weight: 600;
}
</style>
