<script setup lang="ts">
import DatePicker from 'primevue/datepicker'
import { computed } from 'vue'

/** A day, written year-month-day wherever the reader is; empty where none is given. */
defineProps<{ label: string; inputId?: string }>()
const day = defineModel<string>({ required: true })
const date = computed({
  get: () => (day.value ? new Date(`${day.value}T00:00`) : null),
  set: (d) => (day.value = d ? d.toLocaleDateString('sv-SE') : ''),
})
</script>

<template>
  <DatePicker
    v-model="date"
    date-format="yy-mm-dd"
    placeholder="year-month-day"
    show-icon
    icon-display="input"
    :input-id="inputId"
    :pt="{ pcInputText: { root: { 'aria-label': label } } }"
    class="day"
  />
</template>

<style scoped>
.day {
  width: 11.5rem;
}
</style>
