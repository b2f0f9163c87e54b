<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { useSettings } from './composables/useSettings'

const { theme, who, strategy, school, asking } = useSettings()
const themes = [
  { label: 'As the device', value: 'auto' },
  { label: 'Light', value: 'light' },
  { label: 'Panel room (dark)', value: 'dark' },
]
const schools = [
  { label: 'IEC', value: 'iec' },
  { label: 'North American ladder', value: 'ladder' },
]
const ways = [
  { label: 'Most telling first', value: 'mostTelling' },
  { label: 'From the supply', value: 'fromSupply' },
  { label: 'Dead tests first', value: 'deadFirst' },
  { label: 'Halving', value: 'halving' },
]
</script>

<template>
  <header v-if="!$route.meta.isWorkbench" class="bar no-print">
    <RouterLink to="/" class="name" aria-label="Fehler, to the register">
      <svg viewBox="0 0 28 24" width="30" height="26" aria-hidden="true">
        <path d="M2 2v20M2 3h11M2 12h6m6-5 7 10m-2-5h7" fill="none" stroke="currentColor" stroke-width="2.6" />
      </svg>
      Fehler
    </RouterLink>
    <nav>
      <RouterLink to="/">Register</RouterLink>
      <RouterLink to="/set-up">Set up</RouterLink>
      <RouterLink to="/logbook">Logbook</RouterLink>
    </nav>
    <Button
      :label="who || 'Who are you?'"
      icon="pi pi-user"
      text
      class="who"
      aria-label="Name, light and way of working"
      @click="asking = true"
    />
  </header>
  <RouterView v-slot="{ Component, route }">
    <component :is="Component" :key="route.path" />
  </RouterView>
  <Dialog v-model:visible="asking" modal header="You and this screen" :style="{ width: '30rem', maxWidth: '95vw' }">
    <div class="fields">
      <label for="who">Your name, as it goes into the journal</label>
      <InputText id="who" v-model="who" maxlength="60" />
      <span id="theme-label">Light</span>
      <SelectButton
        v-model="theme"
        :options="themes"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        aria-labelledby="theme-label"
      />
      <span id="way-label">Way of working</span>
      <SelectButton
        v-model="strategy"
        :options="ways"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        aria-labelledby="way-label"
      />
      <span id="school-label">Symbols of the drawings</span>
      <SelectButton
        v-model="school"
        :options="schools"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        aria-labelledby="school-label"
      />
      <p class="faint">
        Practitioners differ: the most telling reading, in order from the supply, or isolate first and measure ohms. The
        physics is the same.
      </p>
    </div>
  </Dialog>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 1rem;
  padding: 0 1rem;
  height: 52px;
  border-bottom: 2px solid var(--ink);
  background: var(--sheet);
}
.name {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  font:
    600 1.35rem 'Barlow Semi Condensed',
    sans-serif;
  color: var(--ink);
  text-decoration: none;
}
nav {
  display: flex;
  gap: 0.25rem;
}
nav a {
  padding: 0.7rem 0.6rem;
  min-height: 44px;
  text-decoration: none;
  color: var(--ink);
  font-weight: 500;
}
nav a.router-link-exact-active {
  box-shadow: inset 0 -4px var(--petrol);
}
.who {
  margin-left: auto;
}
.fields {
  display: grid;
  gap: 0.5rem;
}
@media (max-width: 500px) {
  .bar {
    gap: 0.25rem;
    padding: 0 0.5rem;
  }
  .who :deep(.p-button-label) {
    display: none;
  }
}
</style>
