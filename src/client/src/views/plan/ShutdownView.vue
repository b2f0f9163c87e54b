<script setup lang="ts">
import Button from 'primevue/button'
import { useTitle } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import SubNav from '@/components/SubNav.vue'
import { when } from '@/components/format'
import WorkDialog from './WorkDialog.vue'

/** A shutdown list: who goes where, what is done there, ticked off on the spot. */
const props = defineProps<{ id: string }>()
const packed = ref<Schemas['PackedShutdown']>()
const problem = ref('')
const doing = ref<Schemas['PlanItem']>()
useTitle(computed(() => `${packed.value?.wish.title ?? 'Shutdown'} · Fehler`))

async function load() {
  try {
    packed.value = need(await api.GET('/api/shutdowns/{id}', { params: { path: { id: props.id } } }))
  } catch (error) {
    problem.value = (error as Error).message
  }
}
onMounted(load)

const item = (id: string) => packed.value?.items.find((i) => i.id === id)
const isDone = (id: string) => packed.value?.done.includes(id) ?? false
const clock = (minute: number) =>
  when(new Date(new Date(packed.value!.wish.begins).getTime() + 60_000 * minute).toISOString()).slice(11)
const enclosures = (visits: Schemas['ShutdownVisit'][]) => [...new Set(visits.map((v) => v.enclosure))]
const counted = computed(() => {
  const pieces = packed.value?.list.people.flatMap((p) => p.visits).flatMap((v) => [...v.dead, ...v.live]) ?? []
  return { all: pieces.length, done: pieces.filter((p) => isDone(p.id)).length }
})
const hours = (minutes = 0) => `${Math.floor(minutes / 60)} h ${Math.round(minutes % 60)} min`
async function done() {
  doing.value = undefined
  await load()
}
</script>

<template>
  <main class="page">
    <SubNav part="plan" />
    <PageProblem :text="problem" />
    <template v-if="packed">
      <div class="head">
        <div>
          <h1>{{ packed.wish.title }}</h1>
          <div class="faint">
            {{ when(packed.wish.begins) }}, {{ packed.wish.hours }} h, {{ packed.wish.people }}
            {{ packed.wish.people === 1 ? 'person' : 'people' }} · drawn up {{ when(packed.createdAt) }}
            {{ packed.who }}
          </div>
        </div>
        <a class="quiet" :href="`/api/shutdowns/${id}/print`" target="_blank"
          ><i class="pi pi-print" aria-hidden="true" /> On paper</a
        >
      </div>
      <p>
        <strong class="figures">{{ counted.done }} of {{ counted.all }}</strong> done. What was taken is worth
        <span class="figures">{{ Math.round((100 * packed.list.worth) / packed.list.bound) }} %</span> of the most that
        any choice could be.
      </p>
      <section v-for="person in packed.list.people" :key="person.number" class="sheet person">
        <h2>
          Person {{ person.number }}
          <span class="faint">{{ person.visits.length ? hours(person.minutes) : 'nothing left to do' }}</span>
        </h2>
        <div v-for="enclosure in enclosures(person.visits)" :key="enclosure">
          <h3>{{ enclosure }}</h3>
          <div
            v-for="visit in person.visits.filter((v) => v.enclosure === enclosure)"
            :key="visit.circuit"
            class="visit"
          >
            <div class="when figures">{{ clock(visit.startMinute) }}</div>
            <div class="what">
              <strong>{{ visit.circuit }}</strong>
              <span v-if="visit.dead.length" class="state dead"
                ><i class="pi pi-lock" aria-hidden="true" /> {{ visit.isolation }} off, locked, proved dead</span
              >
              <ul>
                <li
                  v-for="piece in [...visit.dead, ...visit.live]"
                  :key="piece.id"
                  :class="{ ticked: isDone(piece.id) }"
                >
                  <span
                    >{{ piece.title }}
                    <span v-if="item(piece.id)?.devices.length" class="faint"
                      >({{ item(piece.id)!.devices.join(', ') }})</span
                    >
                    <span class="faint figures"
                      >&nbsp;{{ Math.round(piece.minutes) }} min{{ piece.state === 'live' ? ', supply on' : '' }}</span
                    >
                  </span>
                  <strong v-if="isDone(piece.id)"><i class="pi pi-check" aria-hidden="true" /> done</strong>
                  <Button
                    v-else
                    label="Do it"
                    size="small"
                    severity="secondary"
                    outlined
                    class="no-print"
                    @click="doing = item(piece.id)"
                  />
                </li>
                <li v-if="visit.dead.length" class="faint">On again, function test of {{ visit.circuit }}</li>
              </ul>
            </div>
          </div>
        </div>
      </section>
      <details v-if="packed.parts.length" class="sheet person">
        <summary>Fitted in what is worked on: bring what may be needed ({{ packed.parts.length }})</summary>
        <ul>
          <li v-for="p in packed.parts" :key="p.part">
            <span class="figures">{{ p.count }} ×</span> {{ p.part }}
          </li>
        </ul>
      </details>
      <details v-if="packed.list.leftOut.length" class="sheet person">
        <summary>Left out ({{ packed.list.leftOut.length }})</summary>
        <ul>
          <li v-for="l in packed.list.leftOut" :key="l.piece.id">
            <strong>{{ l.piece.circuit }}</strong> {{ l.piece.title }} <span class="faint">{{ l.why }}</span>
          </li>
        </ul>
      </details>
      <p class="faint">A competent person decides. Local codes, site rules and licensed practice come first.</p>
    </template>
    <p v-else-if="!problem">Fetching the list…</p>
    <WorkDialog :item="doing" @done="done" @close="doing = undefined" />
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1100px;
  margin: 0 auto;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.8rem;
}
.person {
  padding: 0.6rem 0.8rem;
  margin-bottom: 0.8rem;
}
.person h3 {
  margin: 0.6rem 0 0.2rem;
}
.visit {
  display: grid;
  grid-template-columns: 4rem minmax(0, 1fr);
  gap: 0.6rem;
  padding: 0.3rem 0;
  border-top: 1px solid var(--line);
}
.state {
  margin-left: 0.6rem;
  color: var(--dead);
}
.what ul {
  list-style: none;
  margin: 0.2rem 0;
  padding: 0;
}
.what li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
}
.ticked {
  color: var(--dead);
}
summary {
  min-height: 44px;
  padding-top: 0.5rem;
  font-weight: 600;
  cursor: pointer;
}
</style>
