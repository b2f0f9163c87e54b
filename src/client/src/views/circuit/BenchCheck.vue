<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { useDebounceFn } from '@vueuse/core'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { api, need, type Schemas } from '@/api/client'
import PageProblem from '@/components/PageProblem.vue'
import { when } from '@/components/format'
import { useSettings } from '@/composables/useSettings'

type Item = Schemas['BenchCheckItem']

// Each device as a grid: a pair of terminals a row, a position of the device a column. Readings are judged as they are typed.
const props = defineProps<{ id: string; openJob?: string }>()
const { who } = useSettings()
const route = useRoute()
const items = ref<Item[]>()
const done = ref<Schemas['BenchCheckView'][]>([])
const readings = reactive<Record<string, string>>({})
const looks = reactive<Record<string, boolean | undefined>>({})
const judged = ref<Record<string, Schemas['BenchCheckResult']>>({})
const unclear = ref('')
const problem = ref('')
const notice = ref('')
const intoJob = ref(route.query.job !== undefined)

const devices = computed(() =>
  [...new Set((items.value ?? []).map((i) => i.device))].map((tag) => {
    const own = items.value!.filter((i) => i.device === tag)
    const measured = own.filter((i) => i.isMeasured)
    const positions = [...new Set(measured.map((i) => i.position))]
    const rows = [...new Set(measured.map((i) => i.leads))].map((leads) => ({
      leads,
      what: nameOf(measured.find((i) => i.leads === leads)!),
      cells: positions.map((p) => measured.find((i) => i.leads === leads && i.position === p)),
    }))
    return { tag, positions, rows, looks: own.filter((i) => !i.isMeasured) }
  }),
)
/** What it is, without the terminals that stand beside it. */
function nameOf(item: Item) {
  const name = item.what.split(',')[0]!
  const terminals = item.leads.replace(' – ', '-')
  return name.endsWith(` ${terminals}`) ? name.slice(0, -terminals.length - 1) : name
}
const filled = computed(
  () =>
    Object.values(readings).filter((r) => r.trim()).length + Object.values(looks).filter((l) => l !== undefined).length,
)
const body = () => ({
  who: who.value,
  job: intoJob.value ? (props.openJob ?? null) : null,
  items: (items.value ?? [])
    .filter((i) => (i.isMeasured ? readings[i.id]?.trim() : looks[i.id] !== undefined))
    .map((i) => ({ id: i.id, reading: readings[i.id]?.trim() ?? '', good: looks[i.id] ?? null })),
})

async function load() {
  try {
    const path = { path: { id: props.id } }
    items.value = need(await api.GET('/api/circuits/{id}/bench-check', { params: path }))
    done.value = need(await api.GET('/api/circuits/{id}/bench-checks', { params: path }))
  } catch (error) {
    problem.value = (error as Error).message
  }
}

const judge = useDebounceFn(async () => {
  unclear.value = ''
  const sent = body()
  if (!sent.items.length) return void (judged.value = {})
  const answer = await api.POST('/api/circuits/{id}/bench-check/judged', {
    params: { path: { id: props.id } },
    body: sent,
  })
  if (answer.data) judged.value = Object.fromEntries(answer.data.map((r) => [r.id, r]))
  else unclear.value = (answer.error as { detail?: string }).detail ?? ''
}, 300)
watch(readings, judge)

/** Enter goes on to the next field: down the column that is being filled, then to the next one. */
function onward(event: KeyboardEvent) {
  const fields = [...document.querySelectorAll<HTMLInputElement>('input.ohms')]
  const here = event.target as HTMLInputElement
  const column = fields.filter(
    (f) => f.dataset.device === here.dataset.device && f.dataset.column === here.dataset.column,
  )
  const next = column[column.indexOf(here) + 1] ?? fields.find((f, i) => i > fields.indexOf(column[0]!) && !f.value)
  next?.focus()
}

async function record() {
  problem.value = notice.value = ''
  try {
    const result = need(
      await api.POST('/api/circuits/{id}/bench-checks', { params: { path: { id: props.id } }, body: body() }),
    )
    notice.value = `Recorded: ${result.passed} good, ${result.failed} not good.${
      intoJob.value && props.openJob ? ' The readings stand in the job as well.' : ''
    }${result.notInJob?.length ? ` Left out of the job: ${result.notInJob.join(' ')}` : ''}`
    for (const key of Object.keys(readings)) delete readings[key]
    for (const key of Object.keys(looks)) delete looks[key]
    judged.value = {}
    await load()
  } catch (error) {
    problem.value = (error as Error).message
  }
}

onMounted(load)
</script>

<template>
  <p>
    Every component by itself, before use or after a repair: isolated, proved dead, wires off. Write ohms as 0.3, 460,
    4.7k or OL; Enter goes on down the column. A contact that passes by hand may still be worn: the armature
    over-travels.
  </p>
  <section v-if="done.length" class="sheet past">
    <h2>Recorded</h2>
    <details v-for="check in done" :key="check.id">
      <summary class="figures">
        {{ when(check.at) }} {{ check.who }}: {{ check.passed }} good<strong v-if="check.failed"
          >, {{ check.failed }} not good</strong
        >
      </summary>
      <ul>
        <li v-for="item in check.items" :key="item.id" :class="{ bad: !item.good }">
          {{ item.device }} {{ item.what }}: {{ item.reading || 'looked at' }} – {{ item.good ? 'good' : 'NOT GOOD' }}
        </li>
      </ul>
    </details>
  </section>
  <p v-if="!items && !problem">Working out the checks…</p>
  <form v-if="items" @submit.prevent="record">
    <div class="devices">
      <section v-for="device in devices" :key="device.tag" class="sheet device" :aria-label="device.tag">
        <h2>{{ device.tag }}</h2>
        <table v-if="device.rows.length">
          <thead>
            <tr>
              <th scope="col">Leads</th>
              <th v-for="p in device.positions" :key="p" scope="col">{{ p || 'ohms' }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in device.rows" :key="row.leads">
              <th scope="row">
                <span class="figures">{{ row.leads }}</span> <span class="faint">{{ row.what }}</span>
              </th>
              <td v-for="(item, column) in row.cells" :key="column">
                <template v-if="item">
                  <InputText
                    v-model="readings[item.id]"
                    class="figures ohms"
                    :class="{ bad: judged[item.id] && !judged[item.id]!.good }"
                    :data-device="device.tag"
                    :data-column="column"
                    placeholder="Ω"
                    autocomplete="off"
                    maxlength="20"
                    :aria-label="`${device.tag} ${item.what}, ohms`"
                    @keydown.enter.prevent="onward"
                  />
                  <span v-if="judged[item.id]" :class="{ bad: !judged[item.id]!.good }">
                    {{
                      judged[item.id]!.good
                        ? 'good'
                        : `NOT GOOD: ${judged[item.id]!.reading === readings[item.id]?.trim() ? `good is ${item.good}` : judged[item.id]!.reading}`
                    }}
                  </span>
                  <span v-else class="faint figures">{{ item.good }}</span>
                </template>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-for="item in device.looks" :key="item.id" class="choice">
          {{ item.what }}:
          <label><input v-model="looks[item.id]" type="radio" :name="item.id" :value="true" /> good</label>
          <label><input v-model="looks[item.id]" type="radio" :name="item.id" :value="false" /> not good</label>
        </p>
      </section>
    </div>
    <div class="foot no-print">
      <p v-if="unclear" class="bad" role="alert">{{ unclear }}</p>
      <label v-if="openJob" class="choice">
        <input v-model="intoJob" type="checkbox" /> also as evidence in the open job (isolated and proved dead there)
      </label>
      <Button type="submit" :label="`Record (${filled} done)`" icon="pi pi-check" :disabled="!filled" />
      <PageProblem :text="problem" />
      <p v-if="notice" role="status">{{ notice }}</p>
    </div>
  </form>
  <PageProblem v-else :text="problem" />
</template>

<style scoped>
.devices {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(27rem, 100%), 1fr));
  gap: 0.6rem;
  align-items: start;
}
.device {
  padding: 0.4rem 0.8rem;
  overflow-x: auto;
}
h2 {
  font-size: 1.05rem;
}
table {
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 0.25rem 0.6rem 0.25rem 0;
  border-top: 1px solid var(--line);
  font-weight: 400;
}
thead th {
  border-top: 0;
  font-weight: 600;
}
tbody th {
  width: 7.5rem;
}
tbody th span,
td span {
  display: block;
  max-width: 12rem;
}
td span {
  font-size: 0.9rem;
}
.ohms {
  width: 7rem;
  min-height: 44px;
}
.ohms.bad {
  border-color: var(--live);
}
.past {
  padding: 0.4rem 0.8rem;
}
.bad {
  color: var(--live);
  font-weight: 600;
}
.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
  min-height: 44px;
}
.choice label {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 44px;
}
.choice input {
  width: 1.3rem;
  height: 1.3rem;
}
/* What there is to record stays in reach under a hundred fields. */
.foot {
  position: sticky;
  bottom: 0;
  padding: 0.6rem 0;
  background: var(--paper);
}
@media (max-width: 600px) {
  tbody th {
    width: 5rem;
  }
  .ohms {
    width: 5.6rem;
  }
}
</style>
