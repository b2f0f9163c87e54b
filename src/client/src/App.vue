<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { useTitle } from '@vueuse/core'
import { computed, defineAsyncComponent, onMounted, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { signedOut } from './api/send'
import { useField } from './field/field'
import { useSession } from './composables/useSession'
import { api } from './api/client'
import { useSettings } from './composables/useSettings'

const { theme, who, strategy, school, asking } = useSettings()
const route = useRoute()
const router = useRouter()
const { session, load, can, isDemo } = useSession()
const SecondPerson = defineAsyncComponent(() => import('./views/people/SecondPerson.vue'))

/** Whoever is not signed in signs in, and comes back to where they were. */
async function toSignIn() {
  // Where they were is known once the first page has been found, which may take longer than to hear who they are.
  await router.isReady()
  if (route.path !== '/sign-in') void router.replace({ path: '/sign-in', query: { to: route.fullPath } })
}
signedOut.tell = () => void load().then((now) => (now.state === 'signedIn' ? undefined : toSignIn()), toSignIn)
onMounted(
  () =>
    void load().then(
      (now) => (now.state === 'signedIn' ? undefined : toSignIn()),
      () => undefined,
    ),
)

/** Until the service has answered nobody is taken for a stranger. */
const isIn = computed(() => !session.value || session.value.state === 'signedIn')

const { here, first, choose } = useField()
const places = [
  { label: 'By the service', value: false },
  { label: 'On this device where it can', value: true },
]
const roles = [
  { label: 'Everything', value: 'jobs,planning,administration' },
  { label: 'Electrician', value: 'jobs' },
  { label: 'Planner', value: 'planning' },
  { label: 'Looks only', value: '' },
]
/** In the demo every role can be tried; the pages are built anew with what it may do. */
async function tryRole(role: string) {
  await api.PUT('/api/session/tried-rights', { body: { rights: role.split(',').filter(Boolean) } })
  window.location.reload()
}
const title = useTitle('Fehler')
watch(
  () => route.path,
  () => (title.value = [route.meta.title, 'Fehler'].filter(Boolean).join(' · ')),
  { immediate: true },
)
/** Past the bar, or past a whole drawing, to what the page is about. */
function skip() {
  const to = document.querySelector<HTMLElement>('#panel-next, main')
  to?.setAttribute('tabindex', '-1')
  to?.focus()
}
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
  <a class="skip no-print" href="#main" @click.prevent="skip">{{
    $route.meta.isWorkbench ? 'To the test at hand' : 'To the content'
  }}</a>
  <header v-if="!$route.meta.isWorkbench" class="bar no-print">
    <RouterLink to="/" class="name" aria-label="Fehler, to the register">
      <svg viewBox="0 0 28 24" width="30" height="26" aria-hidden="true">
        <path d="M2 2v20M2 3h11M2 12h6m6-5 7 10m-2-5h7" fill="none" stroke="currentColor" stroke-width="2.6" />
      </svg>
      <span class="word">Fehler</span>
    </RouterLink>
    <nav v-if="isIn">
      <RouterLink to="/">Register</RouterLink>
      <RouterLink v-if="can('jobs') || can('planning')" to="/set-up">Set up</RouterLink>
      <RouterLink to="/logbook" :class="{ part: $route.path === '/insight' }">Logbook</RouterLink>
      <RouterLink to="/plan" :class="{ part: $route.path.match(/^\/(plan|shutdowns|spares)/) }">Plan</RouterLink>
      <RouterLink to="/sums">Sums</RouterLink>
      <RouterLink to="/practice" :class="{ part: $route.path.startsWith('/practice') }">Practice</RouterLink>
    </nav>
    <span v-if="isDemo" class="demo" title="Whoever is on this machine is signed in">Demo</span>
    <Button
      v-if="isIn"
      :label="who || 'Who are you?'"
      icon="pi pi-user"
      text
      class="who"
      aria-label="Name, light and way of working"
      @click="asking = true"
    />
  </header>
  <RouterView v-slot="{ Component, route: shown }">
    <component :is="Component" :key="shown.path" />
  </RouterView>
  <Dialog v-model:visible="asking" modal header="You and this screen" :style="{ width: '30rem', maxWidth: '95vw' }">
    <div class="fields">
      <label for="who">Your name, as it goes into the journal</label>
      <InputText v-if="isDemo || !session" id="who" v-model="who" maxlength="60" />
      <p v-else>
        <strong id="who">{{ session.name }}</strong>
        <RouterLink to="/you" class="go" @click="asking = false">Password, PIN, tokens, sign out</RouterLink>
      </p>
      <template v-if="isDemo">
        <span id="role-label">This is the demo: whoever is on this machine is signed in. Try it as</span>
        <SelectButton
          :model-value="session?.rights.join(',') ?? ''"
          :options="roles"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          aria-labelledby="role-label"
          @update:model-value="tryRole"
        />
      </template>
      <template v-if="here.length">
        <span id="where-label"
          >Taken along: {{ here.map((a) => a.tag).join(', ') }}. Suspects and next tests are worked out</span
        >
        <SelectButton
          :model-value="first"
          :options="places"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          aria-labelledby="where-label"
          @update:model-value="choose"
        />
      </template>
      <RouterLink v-if="can('administration')" to="/people" class="go" @click="asking = false"
        >People, tablets, backup</RouterLink
      >
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
  <SecondPerson v-if="session?.needsSecond" />
</template>

<style scoped>
.skip {
  position: absolute;
  left: -999px;
  z-index: 20;
  padding: 0.7rem 1rem;
  background: var(--sheet);
}
.skip:focus {
  left: 0.5rem;
  top: 0.5rem;
}
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
  min-width: 0;
  overflow-x: auto;
  scrollbar-width: none;
}
nav a {
  padding: 0.7rem 0.6rem;
  min-height: 44px;
  text-decoration: none;
  color: var(--ink);
  font-weight: 500;
}
nav a.router-link-exact-active,
nav a.part,
nav a.router-link-active[href^='/sums'] {
  box-shadow: inset 0 -4px var(--petrol);
}
.demo {
  margin-left: auto;
  padding: 0.1rem 0.5rem;
  border: 1px solid var(--doubt);
  border-radius: 3px;
  color: var(--doubt);
  font-weight: 600;
}
.who {
  margin-left: auto;
}
.demo + .who {
  margin-left: 0;
}
.fields :deep(.p-selectbutton) {
  flex-wrap: wrap;
}
.go {
  display: inline-block;
  padding: 0.7rem 0.3rem;
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
  .word {
    display: none;
  }
  nav {
    gap: 0;
  }
  nav a {
    padding: 0.8rem 0.2rem;
    font-size: 0.84rem;
    white-space: nowrap;
  }
  .demo {
    position: absolute;
    right: 0.4rem;
    top: 1px;
    padding: 0 0.2rem;
    font-size: 0.6rem;
    background: var(--sheet);
  }
  .demo + .who {
    margin-left: auto;
  }
  .who :deep(.p-button-label) {
    display: none;
  }
}
</style>
