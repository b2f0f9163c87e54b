<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, nextTick, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, need } from '@/api/client'
import { useSession } from '@/composables/useSession'

/** Who works here: name and password; on a tablet of the crew a name is touched and a PIN typed; at the very first the first administrator. */
const { session, load } = useSession()
const route = useRoute()
const router = useRouter()
const name = ref('')
const password = ref('')
const code = ref('')
const pin = ref('')
const problem = ref('')
const busy = ref(false)
const withPassword = ref(false)
const oneTime = ref('')
const needsCode = ref(false)
const state = computed(() => session.value?.state)
const crew = computed(() => (withPassword.value ? [] : (session.value?.withPin ?? [])))

onMounted(() =>
  load()
    .then(onwards)
    .catch((e: Error) => (problem.value = e.message)),
)

/** Back to where one wanted to go; never to another site. */
function onwards() {
  if (session.value?.state !== 'signedIn') return
  const to = String(route.query.to ?? '/')
  void router.replace(to.startsWith('/') && !to.startsWith('//') ? to : '/')
}

/** The password stays while a code is asked for beside it, whatever else is typed anew after a refusal. */
async function tried(work: () => Promise<{ error?: unknown }>) {
  problem.value = ''
  busy.value = true
  try {
    const answer = await work()
    const asked = (answer.error as { needsCode?: boolean } | undefined)?.needsCode === true
    if (asked && !needsCode.value) {
      needsCode.value = true
      await nextTick()
      document.getElementById('one-time')?.focus()
      return
    }
    if (answer.error) need(answer as never)
    await load()
    onwards()
  } catch (error) {
    problem.value = (error as Error).message
    password.value = pin.value = oneTime.value = ''
    needsCode.value = false
  } finally {
    busy.value = false
  }
}

const signIn = () =>
  tried(() =>
    api.POST('/api/session', { body: { name: name.value, password: password.value, code: oneTime.value || null } }),
  )
const first = () =>
  tried(() =>
    api.POST('/api/session/first', { body: { code: code.value, name: name.value, password: password.value } }),
  )
const signInWithPin = () => tried(() => api.POST('/api/session/pin', { body: { name: name.value, pin: pin.value } }))
</script>

<template>
  <main id="main" class="page">
    <form v-if="state === 'first'" class="sheet card" @submit.prevent="first">
      <h1>The first administrator</h1>
      <p>
        Nobody can sign in yet. The service showed a code on its console when it started; with it the first
        administrator is made, who then adds the others.
      </p>
      <label for="code">Code from the console</label>
      <InputText id="code" v-model="code" maxlength="20" autocomplete="off" placeholder="XXXX-XXXX-XXXX" />
      <label for="name">Name, as it goes into the journals</label>
      <InputText id="name" v-model="name" maxlength="60" autocomplete="username" />
      <label for="password">Password, 12 characters or more: a few words in a row</label>
      <InputText id="password" v-model="password" type="password" maxlength="128" autocomplete="new-password" />
      <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
      <Button type="submit" label="Begin" :disabled="busy || !code || !name || !password" />
    </form>
    <form v-else-if="crew.length" class="sheet card" @submit.prevent="signInWithPin">
      <h1>Who works here?</h1>
      <p class="faint">{{ session?.device }}</p>
      <div class="crew" role="group" aria-label="Who">
        <button
          v-for="person in crew"
          :key="person"
          type="button"
          class="touch"
          :aria-pressed="name === person"
          @click="name = person"
        >
          {{ person }}
        </button>
      </div>
      <label for="pin">PIN</label>
      <InputText
        id="pin"
        v-model="pin"
        type="password"
        inputmode="numeric"
        maxlength="12"
        autocomplete="off"
        class="pin"
      />
      <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
      <Button type="submit" label="Begin" :disabled="busy || !name || !pin" />
      <Button label="Name and password instead" text @click="withPassword = true" />
    </form>
    <form v-else-if="state === 'signedOut'" class="sheet card" @submit.prevent="signIn">
      <h1>Sign in</h1>
      <label for="name">Name</label>
      <InputText id="name" v-model="name" maxlength="60" autocomplete="username" />
      <label for="password">Password</label>
      <InputText id="password" v-model="password" type="password" maxlength="128" autocomplete="current-password" />
      <template v-if="needsCode">
        <label for="one-time">One-time code, from your phone or a spare one</label>
        <InputText id="one-time" v-model="oneTime" maxlength="40" autocomplete="one-time-code" />
      </template>
      <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
      <Button type="submit" label="Sign in" :disabled="busy || !name || !password || (needsCode && !oneTime)" />
      <p class="faint">Forgotten, or the phone is lost? An administrator gives you a new password.</p>
    </form>
    <p v-else-if="problem" class="wrong" role="alert">{{ problem }}</p>
  </main>
</template>

<style scoped>
.page {
  display: grid;
  place-items: start center;
  padding: 2rem 0.8rem;
}
.card {
  display: grid;
  gap: 0.5rem;
  width: min(26rem, 100%);
  padding: 1.2rem;
}
.crew {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
  gap: 0.5rem;
}
.crew button {
  min-height: 56px;
}
.pin {
  font-size: 1.4rem;
  letter-spacing: 0.3em;
}
.wrong {
  color: var(--live);
}
</style>
