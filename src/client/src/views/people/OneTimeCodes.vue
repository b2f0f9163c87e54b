<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import { useSession } from '@/composables/useSession'

/** A one-time code beside the password: the key is shown as a picture and in letters, a first code puts it in force. */
const { session, load } = useSession()
const password = ref('')
const code = ref('')
const key = ref<Schemas['KeyView']>()
const spare = ref<readonly string[]>([])
const problem = ref('')

async function tried(work: () => Promise<void>) {
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
const begin = () =>
  tried(async () => {
    key.value = need(await api.POST('/api/session/codes', { body: { password: password.value } }))
    password.value = ''
    spare.value = []
  })
const confirm = () =>
  tried(async () => {
    spare.value = need(await api.PUT('/api/session/codes', { body: { code: code.value } })).codes
    key.value = undefined
    code.value = ''
    await load()
  })
const end = () =>
  tried(async () => {
    const answer = await api.POST('/api/session/codes/off', { body: { password: password.value } })
    if (answer.error) need(answer as never)
    password.value = ''
    spare.value = []
    await load()
  })
</script>

<template>
  <section class="sheet card" aria-labelledby="codes-head">
    <h2 id="codes-head">One-time codes</h2>
    <p v-if="session?.hasCodes">In force: signing in with the password asks for a code as well.</p>
    <p v-else class="faint">
      Beside the password a code of six digits from your phone. On a tablet of the crew name and PIN go on being enough.
    </p>
    <template v-if="spare.length">
      <p>
        <strong>Spare codes, each for one time when the phone is not at hand. Shown this once: write them down.</strong>
      </p>
      <ul class="spare">
        <li v-for="s in spare" :key="s">
          <code>{{ s }}</code>
        </li>
      </ul>
    </template>
    <template v-if="key">
      <p>Let the phone’s authenticator read this picture, or type the key. Then give the code that it shows.</p>
      <img :src="key.picture" alt="The key as a QR code" class="qr" />
      <p>
        <code class="qr-key">{{ key.key }}</code>
      </p>
      <label for="first-code">Code</label>
      <InputText
        id="first-code"
        v-model="code"
        inputmode="numeric"
        maxlength="7"
        autocomplete="one-time-code"
        @keydown.enter="confirm"
      />
      <Button label="Put in force" :disabled="!code" @click="confirm" />
    </template>
    <template v-else>
      <label for="codes-word">Present password</label>
      <InputText
        id="codes-word"
        v-model="password"
        type="password"
        maxlength="128"
        autocomplete="current-password"
        @keydown.enter="session?.hasCodes ? end() : begin()"
      />
      <Button
        :label="session?.hasCodes ? 'Turn them off' : 'Set them up'"
        severity="secondary"
        outlined
        :disabled="!password"
        @click="session?.hasCodes ? end() : begin()"
      />
    </template>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: 0.5rem;
  padding: 0.9rem;
}
.card p {
  margin: 0;
}
.qr {
  width: 12rem;
  height: 12rem;
  background: #fff;
}
.spare {
  margin: 0;
  padding-left: 1.1rem;
}
.wrong {
  color: var(--live);
}
</style>
