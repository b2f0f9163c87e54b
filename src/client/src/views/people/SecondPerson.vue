<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { ref } from 'vue'
import { api, need } from '@/api/client'
import { secondPerson } from '@/api/send'

/** Somebody may not do this alone: a colleague stands by and says so with a PIN or password of their own. */
const names = ref<string[]>([])
const name = ref('')
const word = ref('')
const problem = ref('')
const asking = ref<{ job: string; entry: string; done: (stands: boolean) => void }>()

secondPerson.ask = async (request) => {
  const job = /\/api\/jobs\/([^/]+)\/entries/.exec(request.url)?.[1]
  const entry = ((await request.json()) as { id?: string }).id
  if (!job || !entry || asking.value) return false
  names.value = (await api.GET('/api/people/names').catch(() => undefined))?.data ?? []
  name.value = names.value[0] ?? ''
  word.value = problem.value = ''
  return new Promise((done) => (asking.value = { job, entry, done }))
}

async function stand() {
  problem.value = ''
  const now = asking.value!
  try {
    const answer = await api.POST('/api/jobs/{id}/second-person', {
      params: { path: { id: now.job } },
      body: { entry: now.entry, name: name.value, password: word.value },
    })
    if (answer.error) need(answer as never)
    end(true)
  } catch (error) {
    problem.value = (error as Error).message
  }
}

function end(stands: boolean) {
  asking.value?.done(stands)
  asking.value = undefined
}
</script>

<template>
  <Dialog
    :visible="!!asking"
    modal
    header="A second person stands by"
    :style="{ width: '26rem', maxWidth: '95vw' }"
    @update:visible="end(false)"
  >
    <form class="fields" @submit.prevent="stand">
      <p>For live tests and for handing a circuit back a colleague stands by, and says so here.</p>
      <label for="second-name">Who</label>
      <Select v-model="name" input-id="second-name" :options="names" />
      <label for="second-word">Their PIN or password</label>
      <InputText id="second-word" v-model="word" type="password" maxlength="128" autocomplete="off" />
      <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
      <Button type="submit" label="Stands by" icon="pi pi-check" :disabled="!name || !word" />
    </form>
  </Dialog>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 0.5rem;
}
.wrong {
  color: var(--live);
}
</style>
