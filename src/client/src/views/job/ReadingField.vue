<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { useMediaQuery } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import type { Entry, Quantity, Step } from '@/api/client'
import type { Typing } from '@/composables/useLeads'
import { useSettings } from '@/composables/useSettings'
import LowImpedanceTick from './LowImpedanceTick.vue'
import NumberPad from './NumberPad.vue'

// What the meter shows, sent as it was typed: the service understands it, or says why not, here beside the field.
const props = defineProps<{
  test: { from: string; to: string; quantity: Quantity; held: Step[] }
  touches: string[]
  /** Wires lifted off terminals: a lead may be on such a free end. */
  lifted: { conductor: string; end: string }[]
  send: (entry: Entry) => Promise<string | undefined>
  /** Asks whether a reading can be meant; returns the question, or nothing. */
  doubt: (entry: Entry) => Promise<string | undefined>
  /** The meter is simulated: it is put on and shows a value by itself. */
  isSimulated?: boolean
}>()
const emit = defineEmits<{ typing: [typing: Typing] }>()
const { lowImpedance, pad } = useSettings()
/** On a small screen the keys come up under the thumb when the field is touched, and take it with them. */
const isNarrow = useMediaQuery('(max-width: 999px)')
const isRaised = ref(false)
/** A field that kept the focus is touched again without getting it. */
const raise = () => (isRaised.value = pad.value && isNarrow.value)
const text = ref('')
const error = ref('')
const question = ref('')
const sending = ref(false)
const input = ref<{ $el: HTMLInputElement }>()
const deviceOf = (terminal: string) => terminal.slice(0, terminal.lastIndexOf(':'))
/** Between two terminals of one device what is in parallel has no say once the device stands by itself. */
const canStandAlone = computed(
  () =>
    ['ohms', 'continuity', 'insulation'].includes(props.test.quantity) &&
    deviceOf(props.test.from) === deviceOf(props.test.to),
)
const alone = ref(false)
const freeEnds = computed(() =>
  props.test.quantity.toLowerCase().includes('amps') ? [] : props.lifted.filter((l) => l.end === props.test.from),
)
const freeEnd = ref('')
const isVolts = computed(() => props.test.quantity === 'volts' || props.test.quantity === 'dcVolts')
watch([text, sending], () => emit('typing', sending.value ? 'sending' : text.value.trim() ? 'typing' : 'no'), {
  flush: 'sync',
})
onBeforeUnmount(() => emit('typing', 'no'))

async function record(typed = text.value, isMeant = false) {
  error.value = question.value = ''
  if (!props.test.from || !props.test.to) {
    error.value = 'Put both leads on: tap a terminal in the drawing.'
    return
  }
  if (!typed.trim()) {
    error.value = 'Type what the meter shows.'
    return
  }
  if (sending.value) return
  sending.value = true
  try {
    const { quantity, from, to, held } = props.test
    const entry = {
      type: 'readingAsTyped',
      quantity,
      from,
      to,
      held,
      typed,
      meter: '',
      lowImpedance: isVolts.value && lowImpedance.value,
      alone: canStandAlone.value && alone.value && !freeEnd.value,
      freeEnd: freeEnd.value,
    } as Entry
    if (!isMeant) question.value = (await props.doubt(entry)) ?? ''
    if (question.value) {
      isRaised.value = false
      return void (text.value = typed)
    }
    const refused = await props.send(entry)
    if (refused) error.value = refused
    else text.value = ''
    isRaised.value = false
  } finally {
    sending.value = false
  }
}

watch(
  () => [props.test.from, props.test.to, props.test.quantity],
  () => {
    error.value = question.value = ''
    text.value = freeEnd.value = ''
    alone.value = false
    void nextTick(() => {
      if (window.matchMedia('(pointer: fine)').matches && !document.querySelector('[role=dialog]'))
        input.value?.$el?.focus?.()
    })
  },
)
</script>

<template>
  <Button
    v-if="isSimulated"
    label="Put the meter on"
    icon="pi pi-bolt"
    :loading="sending"
    class="measure"
    @click="record('not sure')"
  />
  <div v-if="!isSimulated" class="keyed" :class="{ raised: isRaised }">
    <p v-if="isRaised" class="figures at">{{ test.from }} – {{ test.to }}</p>
    <form class="entry" @submit.prevent="record()">
      <InputText
        ref="input"
        v-model="text"
        class="figures value"
        :invalid="!!error"
        :inputmode="pad ? 'none' : 'text'"
        autocomplete="off"
        maxlength="40"
        aria-label="What the meter shows"
        placeholder="meter shows…"
        @focus="raise"
        @click="raise"
      />
      <Button type="submit" label="Record" :loading="sending" />
      <Button
        v-if="!isRaised"
        type="button"
        icon="pi pi-th-large"
        severity="secondary"
        variant="outlined"
        :aria-pressed="pad"
        aria-label="Number pad"
        @click="pad = !pad"
      />
    </form>
    <NumberPad
      v-if="pad && (isRaised || !isNarrow)"
      v-model="text"
      :is-ohms="['ohms', 'insulation'].includes(test.quantity)"
      :is-signed="test.quantity === 'dcVolts'"
      :disabled="sending"
    />
    <Button v-if="isRaised" label="Not now" text @click="isRaised = false" />
  </div>
  <div v-if="!isSimulated" class="touches">
    <Button
      v-for="touch in [...touches, 'not sure']"
      :key="touch"
      :label="touch"
      severity="secondary"
      variant="outlined"
      :disabled="sending"
      @click="record(touch)"
    />
  </div>
  <LowImpedanceTick v-if="isVolts" />
  <label v-if="canStandAlone && !freeEnd" class="tester">
    <input v-model="alone" type="checkbox" /> {{ deviceOf(test.from) }} by itself: pulled out, or every wire off
  </label>
  <label v-for="l in freeEnds" :key="l.conductor" class="tester">
    <input v-model="freeEnd" type="checkbox" :true-value="l.conductor" false-value="" /> lead 1 on the free end of
    {{ l.conductor }}
  </label>
  <div v-if="question" class="question" role="alert">
    <p>{{ question }}</p>
    <div class="row">
      <Button label="It shows that: record it" :disabled="sending" @click="record(text, true)" />
      <Button
        label="Measure again"
        severity="secondary"
        variant="outlined"
        @click="((question = ''), (text = ''), input?.$el?.focus?.())"
      />
    </div>
  </div>
  <p v-if="error" class="error" role="alert">{{ error }}</p>
</template>

<style scoped>
.measure {
  min-height: 52px;
}
.entry {
  display: flex;
  gap: 0.5rem;
}
.value {
  flex: 1;
  min-width: 0;
  font-size: 1.5rem;
  min-height: 52px;
}
.keyed {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.4rem;
}
.raised {
  position: fixed;
  z-index: 20;
  inset: auto 0 0;
  padding: 0.6rem;
  background: var(--paper);
  border-top: 3px solid var(--petrol);
}
.at {
  margin: 0;
}
.touches {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.touches :deep(.p-button) {
  min-width: 64px;
}
.tester {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
.tester input {
  width: 1.3rem;
  height: 1.3rem;
}
.question {
  border-left: 6px solid var(--doubt);
  padding: 0.2rem 0.6rem;
}
.error {
  color: var(--live);
  font-weight: 600;
}
</style>
