<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, need, type Circuit, type Schemas } from '@/api/client'
import DayField from '@/components/DayField.vue'
import { keepOpening } from '@/composables/useOutbox'
import { uuid } from '@/composables/uuid'
import { useField } from '@/field/field'
import { useSession } from '@/composables/useSession'
import { useSettings } from '@/composables/useSettings'

/** What a dispatcher asks, in touches: what it does wrong, in the circuit's own words, and what is known beside it. */
const props = defineProps<{ circuit: Circuit }>()
const visible = defineModel<boolean>('visible', { required: true })
const router = useRouter()
const { who } = useSettings()
const { isDemo, session } = useSession()

const call = ref<Schemas['CallView']>()
const symptoms = ref<string[]>([])
const told = ref<Schemas['Circumstance'][]>([])
const device = ref('')
const words = ref('')
const after = ref<number | null>(null)
const failed = ref<number | null>(null)
const tries = ref<number | null>(null)
const until = ref('')
const name = ref(who.value)
const problem = ref('')
const opening = ref(false)

watch(visible, async (isOpen) => {
  if (!isOpen || call.value) return
  try {
    call.value = need(await api.GET('/api/circuits/{id}/call', { params: { path: { id: props.circuit.id } } }))
  } catch (error) {
    problem.value = (error as Error).message
  }
})

const aboutIt = computed(() => call.value?.circumstances.filter((c) => !c.atDevice) ?? [])
const aboutDevice = computed(() => call.value?.circumstances.filter((c) => c.atDevice) ?? [])
const devices = computed(() =>
  props.circuit.devices
    .filter((d) => d.appearances.length || d.looks.length)
    .map((d) => ({ label: `${d.function || d.term} ${d.tag}`, value: d.tag })),
)
const chosen = computed(() =>
  (call.value?.groups ?? []).flatMap((g) => g.symptoms).filter((s) => symptoms.value.includes(s.id)),
)
const takesTime = computed(() => chosen.value.some((s) => s.takesTime))
const isCounted = computed(() => failed.value !== null && tries.value !== null)
/** What is told by a touch, where a number or a day does not say it better. */
const toldBeside = computed(() => [
  ...told.value
    .filter((what) => !(isCounted.value && (what === 'everyTime' || what === 'sometimes')))
    .filter((what) => !(until.value && what === 'ranUntilNow'))
    .map((what) => ({ what, device: aboutDevice.value.some((c) => c.what === what) ? device.value : '' })),
  ...(until.value ? [{ what: 'ranUntilNow', until: until.value }] : []),
])
const title = computed(() => words.value.trim() || chosen.value.map((s) => s.text).join('; '))

/** One symptom of a motion at a time: it does not both stand still and run. */
function touch(group: Schemas['SymptomGroupView'], id: string) {
  const others = group.symptoms.map((s) => s.id)
  symptoms.value = symptoms.value.includes(id)
    ? symptoms.value.filter((s) => s !== id)
    : [...symptoms.value.filter((s) => !others.includes(s)), id]
}

function tell(what: Schemas['Circumstance']) {
  told.value = told.value.includes(what) ? told.value.filter((t) => t !== what) : [...told.value, what]
}

const short = (group: Schemas['SymptomGroupView'], text: string) =>
  text.startsWith(`${group.of}: `) ? text.slice(group.of.length + 2) : text

/** No connection: this device opens it, where the circuit was taken along, and it is sent later. */
async function withoutService(opening: Schemas['OpenJob']) {
  const here = await useField().open(opening)
  if (!here) throw new Error('No connection, and this circuit was not taken along. Take it along where there is one.')
  if ('refused' in here) throw new Error(here.refused)
  keepOpening(opening)
  return here.answer
}

async function open() {
  problem.value = ''
  opening.value = true
  try {
    if (name.value.trim() && isDemo.value) who.value = name.value.trim()
    const opening: Schemas['OpenJob'] = {
      id: uuid(),
      at: new Date().toISOString(),
      circuitId: props.circuit.id,
      complaint: title.value,
      who: who.value,
      symptoms: symptoms.value,
      told: toldBeside.value as never,
      afterSeconds: takesTime.value ? after.value : null,
      failed: isCounted.value ? failed.value! : 0,
      tries: isCounted.value ? tries.value! : 0,
    }
    const job = await api.POST('/api/jobs', { body: opening }).then(need, () => withoutService(opening))
    await router.push(`/jobs/${job.id}`)
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    opening.value = false
  }
}
</script>

<template>
  <Dialog v-model:visible="visible" modal header="What does it do wrong?" :style="{ width: '46rem', maxWidth: '96vw' }">
    <form class="call" @submit.prevent="open">
      <p v-if="!call && !problem">Asking what it can do…</p>
      <section v-for="group in call?.groups ?? []" :key="group.of" :aria-label="group.of">
        <h3>{{ group.of }}</h3>
        <div class="row">
          <button
            v-for="s in group.symptoms"
            :key="s.id"
            type="button"
            class="touch"
            :data-symptom="s.id"
            :aria-pressed="symptoms.includes(s.id)"
            @click="touch(group, s.id)"
          >
            {{ short(group, s.text) }}
          </button>
        </div>
      </section>
      <p v-if="takesTime" class="row">
        <label for="after">After about</label>
        <InputNumber v-model="after" input-id="after" :min="1" :max="86400" suffix=" s" placeholder="not told" />
      </p>
      <section aria-label="What is known">
        <h3>What is known beside it</h3>
        <div class="row">
          <button
            v-for="c in aboutIt"
            :key="c.what"
            type="button"
            class="touch"
            :aria-pressed="told.includes(c.what)"
            @click="tell(c.what)"
          >
            {{ c.text }}
          </button>
        </div>
        <div class="row device">
          <label for="failed">It failed</label>
          <InputNumber v-model="failed" input-id="failed" :min="0" :max="1000" input-class="count" placeholder="?" />
          <label for="tries">of the last</label>
          <InputNumber v-model="tries" input-id="tries" :min="1" :max="1000" input-class="count" placeholder="?" />
          <span>tries</span>
          <label for="until" class="until">It ran until</label>
          <DayField v-model="until" input-id="until" label="Day until which it ran" />
        </div>
        <div class="row device">
          <Select
            v-model="device"
            :options="devices"
            option-label="label"
            option-value="value"
            placeholder="One of the devices…"
            aria-label="Device that something is known of"
          />
          <button
            v-for="c in aboutDevice"
            :key="c.what"
            type="button"
            class="touch"
            :disabled="!device"
            :aria-pressed="told.includes(c.what)"
            @click="tell(c.what)"
          >
            {{ c.text }}
          </button>
        </div>
      </section>
      <label for="complaint">In words, for the title</label>
      <InputText
        id="complaint"
        v-model="words"
        maxlength="500"
        :placeholder="chosen.map((s) => s.text).join('; ') || 'as it was reported, where no touch says it'"
      />
      <label v-if="isDemo || !session" for="caller">Who goes there</label>
      <InputText
        v-if="isDemo || !session"
        id="caller"
        v-model="name"
        maxlength="60"
        placeholder="name, as it goes into the journal"
      />
      <p class="faint">
        Look before anything is pressed: Stop or Reset may wipe the evidence, and Reset may start the motor.
      </p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <Button type="submit" label="Open the job" :disabled="!title" :loading="opening" />
    </form>
  </Dialog>
</template>

<style scoped>
.call {
  display: grid;
  gap: 0.5rem;
}
.device {
  margin-top: 0.4rem;
}
.call :deep(.count) {
  width: 5rem;
}
.until {
  margin-left: 0.8rem;
}
.problem {
  color: var(--live);
  font-weight: 600;
}
</style>
