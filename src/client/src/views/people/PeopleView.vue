<script setup lang="ts">
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { onMounted, ref } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { when } from '@/components/format'
import { usePagedList } from '@/composables/usePagedList'
import RightTicks from './RightTicks.vue'

/** People, the tablets on which a PIN is enough, what happened that matters for security, and how old the last backup is. */
type Person = Schemas['PersonView']
const people = usePagedList((query) => api.GET('/api/people', { params: { query } }), 'name')
const events = usePagedList((query) => api.GET('/api/security-events', { params: { query } }), 'at', true)
const devices = ref<Schemas['DeviceItem'][]>([])
const service = ref<Schemas['ServiceView']>()
const problem = ref('')
const refused = ref('')
const opened = ref<Partial<Person>>()
const name = ref('')
const password = ref('')
const rights = ref<string[]>([])
const needsSecond = ref(false)
const device = ref('')
const replace = ref('')
const removing = ref(false)

async function load() {
  devices.value = (await api.GET('/api/devices')).data ?? []
  service.value = (await api.GET('/api/service')).data
  await Promise.all([people.load(), events.load()])
}
onMounted(() => load().catch((e: Error) => (problem.value = e.message)))

function open(person: Partial<Person>) {
  opened.value = person
  name.value = person.name ?? ''
  password.value = refused.value = replace.value = ''
  rights.value = [...(person.rights ?? ['jobs'])]
  needsSecond.value = person.needsSecond ?? false
  removing.value = false
}

async function tried(work: () => Promise<{ error?: unknown }>, where = refused) {
  where.value = ''
  try {
    const answer = await work()
    if (answer.error) need(answer as never)
    opened.value = undefined
    await load()
  } catch (error) {
    where.value = (error as Error).message
  }
}

const keep = () => {
  const may = { rights: rights.value, needsSecond: needsSecond.value }
  const id = opened.value?.id
  return tried(() =>
    id
      ? api.PUT('/api/people/{id}', { params: { path: { id } }, body: may })
      : api.POST('/api/people', { body: { name: name.value, password: password.value, ...may } }),
  )
}
const path = () => ({ params: { path: { id: opened.value!.id! } } })
const reset = () => tried(() => api.PUT('/api/people/{id}/password', { ...path(), body: { password: password.value } }))
const end = () => tried(() => api.DELETE('/api/people/{id}/sessions', path()))
const remove = () =>
  tried(() =>
    api.DELETE('/api/people/{id}', {
      params: { path: { id: opened.value!.id! }, query: { replace: replace.value.trim() || undefined } },
    }),
  )
const trust = () => tried(() => api.POST('/api/devices', { body: { name: device.value } }), problem)
const distrust = (id: string) => tried(() => api.DELETE('/api/devices/{id}', { params: { path: { id } } }), problem)

const names: Record<string, string> = { jobs: 'electrician', planning: 'planner', administration: 'administrator' }
const does = (person: Person) =>
  [...person.rights.map((r) => names[r] ?? r), ...(person.needsSecond ? ['with a second person'] : [])].join(', ') ||
  'looks only'
</script>

<template>
  <main id="main" class="page">
    <div class="head">
      <h1>People</h1>
      <Button label="Add somebody" icon="pi pi-plus" @click="open({})" />
    </div>
    <PageProblem :text="problem || people.problem.value" />
    <p v-if="service" :class="service.isBackupOld ? 'wrong' : 'faint'">{{ service.backup }}</p>
    <DataTable v-bind="people.table.value" class="sheet list stacked" v-on="people.tableActs">
      <template #empty>Nobody yet.</template>
      <Column field="name" header="Name" sortable body-class="wide"
        ><template #body="{ data }"
          ><strong>{{ data.name }}</strong>
          <span v-if="data.lockedUntil" class="wrong"> locked until {{ when(data.lockedUntil) }}</span></template
        ></Column
      >
      <Column header="May"
        ><template #body="{ data }">{{ does(data) }}</template></Column
      >
      <Column header="Beside the password"
        ><template #body="{ data }">{{
          [data.hasPin ? 'PIN set' : 'no PIN', ...(data.hasCodes ? ['one-time codes'] : [])].join(', ')
        }}</template></Column
      >
      <Column header="Last seen"
        ><template #body="{ data }">{{
          data.lastSeen ? `${when(data.lastSeen)}, ${data.sessions} signed in` : 'not signed in'
        }}</template></Column
      >
      <Column header=""
        ><template #body="{ data }"
          ><Button
            label="Open"
            size="small"
            severity="secondary"
            outlined
            :aria-label="`Open ${data.name}`"
            @click="open(data)" /></template
      ></Column>
    </DataTable>
    <section aria-labelledby="devices-head">
      <h2 id="devices-head">Tablets of the crew</h2>
      <p class="faint">On these a name and a PIN are enough. This browser becomes one when you give it a name.</p>
      <ul>
        <li v-for="d in devices" :key="d.id" class="row">
          {{ d.name }} <span class="faint">by {{ d.trustedBy }}, {{ when(d.trustedAt) }}</span>
          <Button label="No longer" size="small" severity="secondary" outlined @click="distrust(d.id)" />
        </li>
      </ul>
      <form class="row" @submit.prevent="trust">
        <InputText v-model="device" maxlength="60" aria-label="Name of this device" placeholder="Tablet, hall 2" />
        <Button type="submit" label="Trust this device" severity="secondary" outlined :disabled="!device" />
      </form>
    </section>
    <section aria-labelledby="events-head">
      <h2 id="events-head">What happened</h2>
      <InputText
        v-model="events.search.value"
        placeholder="Name, or what happened"
        aria-label="Search what happened"
        maxlength="200"
      />
      <DataTable v-bind="events.table.value" class="sheet list stacked" v-on="events.tableActs">
        <template #empty>Nothing yet.</template>
        <Column field="at" header="When" sortable
          ><template #body="{ data }">{{ when(data.at) }}</template></Column
        >
        <Column field="kind" header="What" sortable />
        <Column field="who" header="Who" sortable
          ><template #body="{ data }"
            >{{ data.who }}<span v-if="data.by && data.by !== data.who" class="faint"> by {{ data.by }}</span></template
          ></Column
        >
        <Column header="Where"
          ><template #body="{ data }">{{ [data.device, data.address].filter(Boolean).join(', ') }}</template></Column
        >
        <Column header="" body-class="wide"
          ><template #body="{ data }">{{ data.detail }}</template></Column
        >
      </DataTable>
    </section>
    <Dialog
      :visible="!!opened"
      modal
      :header="opened?.name ?? 'Add somebody'"
      :style="{ width: '30rem', maxWidth: '96vw' }"
      @update:visible="opened = undefined"
    >
      <form v-if="opened" class="fields" @submit.prevent="keep">
        <template v-if="!opened.id">
          <label for="p-name">Name, as it goes into the journals</label>
          <InputText id="p-name" v-model="name" maxlength="60" autocomplete="off" />
          <label for="p-word">First password, 12 characters or more; the person changes it</label>
          <InputText id="p-word" v-model="password" maxlength="128" autocomplete="off" />
        </template>
        <RightTicks v-model="rights" />
        <label class="tick">
          <input v-model="needsSecond" type="checkbox" /> Apprentice: live tests and handing back need a second person
        </label>
        <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
        <Button type="submit" label="Keep" icon="pi pi-check" />
        <template v-if="opened.id">
          <h3>Password or phone lost</h3>
          <p class="faint">A new password takes PIN and one-time codes away.</p>
          <div class="row">
            <InputText v-model="password" maxlength="128" aria-label="New password" autocomplete="off" />
            <Button label="Give this one" severity="secondary" outlined :disabled="!password" @click="reset" />
          </div>
          <Button label="Sign out everywhere" severity="secondary" outlined @click="end" />
          <Button v-if="!removing" label="Take out…" severity="secondary" text @click="removing = true" />
          <template v-else>
            <p>
              {{ opened.name }} can sign in no more. The name stays in the journals, unless you put another in its
              place:
            </p>
            <InputText
              v-model="replace"
              maxlength="60"
              aria-label="Name in its place"
              placeholder="Former colleague 1"
            />
            <Button label="Take out" severity="danger" @click="remove" />
          </template>
        </template>
      </form>
    </Dialog>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1200px;
  margin: 0 auto;
  display: grid;
  gap: 0.8rem;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.8rem;
}
.list {
  overflow-x: auto;
}
.fields {
  display: grid;
  gap: 0.5rem;
}
.page ul {
  margin: 0.4rem 0;
  padding: 0;
}
.wrong {
  color: var(--live);
}
</style>
