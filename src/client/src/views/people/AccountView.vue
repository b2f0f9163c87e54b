<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { when } from '@/components/format'
import { useSession } from '@/composables/useSession'
import OneTimeCodes from './OneTimeCodes.vue'
import RightTicks from './RightTicks.vue'

/** What is one's own: password, PIN, where one is signed in, and tokens for programs. */
const { session, signOut } = useSession()
const router = useRouter()
const sessions = ref<Schemas['SessionItem'][]>([])
const tokens = ref<Schemas['TokenView'][]>([])
const problem = ref('')
const done = ref('')
const now = ref('')
const then = ref('')
const pin = ref('')
const program = ref('')
const days = ref('365')
const rights = ref<string[]>([])
const key = ref('')
const isDemo = computed(() => session.value?.isDemo)

async function load() {
  sessions.value = (await api.GET('/api/session/all')).data ?? []
  tokens.value = (await api.GET('/api/tokens')).data ?? []
}
onMounted(() => load().catch((e: Error) => (problem.value = e.message)))

async function tried(work: () => Promise<{ error?: unknown }>, words: string) {
  problem.value = done.value = ''
  try {
    const answer = await work()
    if (answer.error) need(answer as never)
    done.value = words
    now.value = then.value = pin.value = ''
    await load()
  } catch (error) {
    problem.value = (error as Error).message
  }
}

async function change() {
  await tried(() => api.PUT('/api/session/password', { body: { now: now.value, then: then.value } }), 'Changed.')
  if (!problem.value) await out(false)
}
const setPin = () =>
  tried(() => api.PUT('/api/session/pin', { body: { password: now.value, pin: pin.value } }), 'The PIN is set.')
const make = () =>
  tried(async () => {
    const answer = await api.POST('/api/tokens', {
      body: { name: program.value, rights: rights.value, days: days.value ? Number(days.value) : null },
    })
    if (answer.data) key.value = answer.data.key
    return answer
  }, '')
const revoke = (id: string) => tried(() => api.DELETE('/api/tokens/{id}', { params: { path: { id } } }), 'Taken back.')

async function out(everywhere: boolean) {
  await signOut(everywhere)
  await router.push('/sign-in')
}
</script>

<template>
  <main id="main" class="page">
    <h1>{{ session?.name }}</h1>
    <PageProblem :text="problem" />
    <p v-if="done" role="status">{{ done }}</p>
    <p v-if="isDemo">In the demo whoever is on this machine is signed in; there is no password to change.</p>
    <div v-else class="cards">
      <section class="sheet card" aria-labelledby="word-head">
        <h2 id="word-head">Password and PIN</h2>
        <label for="now">Present password</label>
        <InputText id="now" v-model="now" type="password" maxlength="128" autocomplete="current-password" />
        <label for="then">New password, 12 characters or more</label>
        <InputText id="then" v-model="then" type="password" maxlength="128" autocomplete="new-password" />
        <Button label="Change it and sign in anew" :disabled="!now || !then" @click="change" />
        <label for="pin">PIN for the crew’s tablets, 4 to 12 digits</label>
        <InputText id="pin" v-model="pin" type="password" inputmode="numeric" maxlength="12" autocomplete="off" />
        <Button label="Set the PIN" severity="secondary" outlined :disabled="!now || !pin" @click="setPin" />
      </section>
      <OneTimeCodes />
      <section class="sheet card" aria-labelledby="here-head">
        <h2 id="here-head">Signed in</h2>
        <ul>
          <li v-for="s in sessions" :key="s.beganAt">
            {{ s.device }} <span class="faint">since {{ when(s.beganAt) }}, last seen {{ when(s.lastSeen) }}</span>
          </li>
        </ul>
        <Button label="Sign out here" icon="pi pi-sign-out" @click="out(false)" />
        <Button label="Sign out everywhere" severity="secondary" outlined @click="out(true)" />
      </section>
      <section class="sheet card" aria-labelledby="token-head">
        <h2 id="token-head">Tokens for programs</h2>
        <p class="faint">A program acts for you with one, within what you tick, until you take it back.</p>
        <ul>
          <li v-for="t in tokens" :key="t.id" class="token">
            <span>
              <strong>{{ t.name }}</strong> {{ t.rights.join(', ') || 'reads only' }}
              <span class="faint">{{ t.lastUsed ? `last used ${when(t.lastUsed)}` : 'never used' }}</span>
            </span>
            <Button label="Take back" size="small" severity="secondary" outlined @click="revoke(t.id)" />
          </li>
        </ul>
        <label for="program">Program</label>
        <InputText id="program" v-model="program" maxlength="60" />
        <RightTicks v-model="rights" />
        <label for="days">Runs out after days; empty: never</label>
        <InputText id="days" v-model="days" inputmode="numeric" maxlength="4" />
        <Button label="Make a token" severity="secondary" outlined :disabled="!program" @click="make" />
        <p v-if="key" class="key">
          Shown this once; keep it where the program finds it: <code>{{ key }}</code>
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1200px;
  margin: 0 auto;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
  gap: 0.8rem;
  align-items: start;
}
.card {
  display: grid;
  gap: 0.5rem;
  padding: 0.9rem;
}
.card ul {
  margin: 0;
  padding-left: 1.1rem;
}
.token {
  display: flex;
  justify-content: space-between;
  gap: 0.5rem;
}
.key code {
  word-break: break-all;
}
</style>
