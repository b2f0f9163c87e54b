<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import MultiSelect from 'primevue/multiselect'
import Select from 'primevue/select'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, need, type Schemas } from '@/api/client'
import DayField from '@/components/DayField.vue'
import PageProblem from '@/components/PageProblem.vue'
import SubNav from '@/components/SubNav.vue'
import { when } from '@/components/format'
import { useSettings } from '@/composables/useSettings'

/** Shutdown lists that were drawn up, and a window for the next. */
const router = useRouter()
const { who } = useSettings()
const kept = ref<Schemas['ShutdownListItem'][]>()
const choices = ref<Schemas['CircuitChoices']>()
const problem = ref('')
const busy = ref(false)
const day = ref(new Date(Date.now() + 86_400_000).toLocaleDateString('sv-SE'))
const wish = ref({
  title: '',
  time: '06:00',
  hours: '4',
  people: '2',
  area: null as string | null,
  enclosures: [] as string[],
  ahead: '90',
})

onMounted(async () => {
  try {
    kept.value = need(await api.GET('/api/shutdowns', { params: { query: { take: 50 } } })).items
    choices.value = (await api.GET('/api/circuits/choices')).data
  } catch (error) {
    problem.value = (error as Error).message
  }
})

async function pack() {
  busy.value = true
  problem.value = ''
  try {
    const begins = new Date(`${day.value}T${wish.value.time}`)
    const number = (text: string) => Number(text.replace(',', '.'))
    const [hours, people, ahead] = [
      number(wish.value.hours),
      number(wish.value.people),
      number(wish.value.ahead),
    ] as const
    if (Number.isNaN(begins.getTime())) throw new Error('Give the day and the time at which it begins, like 06:00.')
    if ([hours, people, ahead].some((n) => Number.isNaN(n)) || !Number.isInteger(people) || !Number.isInteger(ahead))
      throw new Error('Hours are a number; people and days ahead whole ones.')
    const packed = need(
      await api.POST('/api/shutdowns', {
        body: {
          who: who.value,
          wish: {
            title: wish.value.title,
            begins: begins.toISOString(),
            hours,
            people,
            area: wish.value.area,
            enclosures: wish.value.enclosures.length ? wish.value.enclosures : null,
            daysAhead: ahead,
          },
        },
      }),
    )
    await router.push(`/shutdowns/${packed.id}`)
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="page">
    <SubNav part="plan" />
    <h1>Shutdowns</h1>
    <form class="sheet window" @submit.prevent="pack">
      <h2>What fits into a window</h2>
      <label>Name <InputText v-model="wish.title" maxlength="120" placeholder="Saturday, kilns" /></label>
      <label>Day <DayField v-model="day" label="Day of the shutdown" /></label>
      <label>Begins at <InputText v-model="wish.time" maxlength="5" class="short" /></label>
      <label>Hours <InputText v-model="wish.hours" inputmode="decimal" maxlength="6" class="short" /></label>
      <label>People <InputText v-model="wish.people" inputmode="numeric" maxlength="3" class="short" /></label>
      <div class="field">
        Area
        <Select
          v-model="wish.area"
          :options="choices?.areas ?? []"
          placeholder="Any area"
          show-clear
          aria-label="Area"
        />
      </div>
      <div class="field">
        Enclosures
        <MultiSelect
          v-model="wish.enclosures"
          :options="choices?.enclosures ?? []"
          placeholder="All"
          filter
          aria-label="Enclosures"
          :max-selected-labels="2"
        />
      </div>
      <label
        >Days ahead of what is due <InputText v-model="wish.ahead" inputmode="numeric" maxlength="4" class="short"
      /></label>
      <Button type="submit" label="Pack it" icon="pi pi-list-check" :loading="busy" />
    </form>
    <PageProblem :text="problem" />
    <h2 v-if="kept?.length">Drawn up</h2>
    <ul v-if="kept" class="kept">
      <li v-for="k in kept" :key="k.id" class="sheet">
        <RouterLink :to="`/shutdowns/${k.id}`"
          ><span class="figures">{{ when(k.begins) }}</span> {{ k.title }}</RouterLink
        >
        <span class="faint">{{ k.who }}</span>
      </li>
    </ul>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1100px;
  margin: 0 auto;
}
.window {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: end;
  padding: 0.8rem;
  margin-bottom: 1rem;
}
.window h2 {
  flex-basis: 100%;
  margin: 0;
}
label,
.field {
  display: grid;
  gap: 0.2rem;
}
.short {
  width: 5.5rem;
}
.kept {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 0.4rem;
}
.kept li {
  display: flex;
  gap: 1rem;
  align-items: center;
  min-height: 48px;
  padding: 0 0.8rem;
}
</style>
