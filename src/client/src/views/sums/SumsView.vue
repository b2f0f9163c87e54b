<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, defineAsyncComponent, onMounted, ref, watch } from 'vue'
import Select from 'primevue/select'
import Button from 'primevue/button'
import { useRoute, useRouter } from 'vue-router'
import { api, need, type Schemas } from '@/api/client'
import CircuitPicker from '@/components/CircuitPicker.vue'
import OptionField from '@/components/OptionField.vue'
import PageProblem from '@/components/PageProblem.vue'
import type { Curve } from '@/components/ValuePlot.vue'
import { useSession } from '@/composables/useSession'

/**
 * The trade's sums: what is given on one side, what it comes to with its formula on the other; worked out as one types. For a circuit what
 * its plates and settings know is filled in, and what belongs there is put back.
 */
const props = defineProps<{ sum?: string }>()
const ValuePlot = defineAsyncComponent(() => import('@/components/ValuePlot.vue'))
const router = useRouter()
const route = useRoute()
const { can } = useSession()
const sums = ref<Schemas['SumDescription'][]>([])
const given = ref<Record<string, unknown>>({})
const result = ref<Schemas['SumResult']>()
const put = ref<Schemas['ProposedEdit'] | null>()
/** What was put into the circuit last. */
const done = ref('')
const circuit = ref<{ id: string; tag: string; title: string }>()
const askedHere = ref<Schemas['AskedSum'][]>([])
const device = ref('')
const refused = ref('')
const problem = ref('')
const chosen = computed(() => sums.value.find((s) => s.id === props.sum) ?? sums.value[0])
const groups = computed(() => [...new Set(sums.value.map((s) => s.group))])
const parts = computed(() => [...new Set(chosen.value?.given.map((o) => o.group) ?? [])])

/** The devices of the circuit that the chosen sum is asked of. */
const devices = computed(() => askedHere.value.filter((a) => a.sum === chosen.value?.id))

onMounted(async () => {
  try {
    sums.value = need(await api.GET('/api/sums'))
  } catch (error) {
    problem.value = (error as Error).message
  }
})
watch(
  () => route.query.circuit,
  async (id) => {
    circuit.value = undefined
    askedHere.value = []
    try {
      if (typeof id === 'string') {
        const path = { path: { id } }
        askedHere.value = need(await api.GET('/api/circuits/{id}/sums', { params: path }))
        circuit.value = need(await api.GET('/api/circuits/{id}', { params: path }))
        if (!props.sum && askedHere.value[0]) await router.replace(to(askedHere.value[0].sum))
      }
      begin()
    } catch (error) {
      problem.value = (error as Error).message
    }
  },
  { immediate: true },
)
const to = (sum: string) => ({ path: `/sums/${sum}`, query: route.query })
const isAsked = (sum: string) => askedHere.value.some((a) => a.sum === sum)

/** What is given begins with what the circuit knows. */
function begin(tag?: string) {
  const asked = devices.value.find((a) => a.device === tag) ?? devices.value[0]
  device.value = asked?.device ?? ''
  given.value = { ...(asked?.given as Record<string, unknown> | undefined) }
  result.value = undefined
  put.value = undefined
  done.value = ''
  void work()
}

async function putIn() {
  try {
    need(
      await api.POST('/api/circuits/{id}/edits', {
        params: { path: { id: circuit.value!.id } },
        body: put.value!.edit,
      }),
    )
    done.value = put.value!.text
  } catch (error) {
    problem.value = (error as Error).message
  }
}

async function work() {
  const sum = chosen.value
  if (!sum) return
  refused.value = ''
  try {
    const where = circuit.value && device.value ? { circuit: circuit.value.id, device: device.value } : {}
    const answer = need(
      await api.POST('/api/sums/{sum}', {
        params: { path: { sum: sum.id }, query: where },
        body: given.value as never,
      }),
    )
    if (sum === chosen.value) {
      result.value = answer.result
      put.value = answer.put
    }
  } catch (error) {
    if (sum !== chosen.value) return
    result.value = undefined
    refused.value = (error as Error).message
  }
}
const tones = ['petrol', 'faint', 'faint', 'doubt'] as const
const curves = computed<Curve[]>(() => {
  const plot = result.value?.plot
  if (!plot) return []
  const mark = plot.mark ? [{ x: plot.mark.across, y: plot.mark.up }] : []
  return [
    ...plot.curves.map((c, i) => ({
      name: c.name,
      points: c.points.map((p) => ({ x: p.across, y: p.up })),
      isDashed: i > 0,
      tone: tones[i],
    })),
    ...(mark.length ? [{ name: 'here', points: mark, isValues: true, tone: 'live' } as Curve] : []),
  ]
})
const soon = useDebounceFn(work, 200)
watch(chosen, () => begin())
function set(name: string, value: unknown) {
  given.value = { ...given.value, [name]: value }
  done.value = ''
  void soon()
}
</script>

<template>
  <main class="page">
    <h1>Sums</h1>
    <p v-if="circuit" class="for">
      For
      <RouterLink :to="{ path: `/circuits/${circuit.id}`, query: { tab: 'parts' } }"
        >{{ circuit.tag }} {{ circuit.title }}</RouterLink
      >: its plates and settings are filled in.
      <RouterLink :to="`/sums/${chosen?.id ?? ''}`" replace>For no circuit</RouterLink>
    </p>
    <CircuitPicker
      v-else
      :model-value="undefined"
      placeholder="Fill in the plates and settings of a circuit"
      class="picker"
      @update:model-value="router.replace({ path: route.path, query: { circuit: $event } })"
      @problem="problem = $event"
    />
    <Select
      v-if="chosen"
      class="narrow"
      :model-value="chosen.id"
      :options="groups.map((group) => ({ group, sums: sums.filter((s) => s.group === group) }))"
      option-group-label="group"
      option-group-children="sums"
      option-value="id"
      option-label="name"
      aria-label="Which sum"
      fluid
      @update:model-value="router.replace(to($event))"
    />
    <PageProblem :text="problem" />
    <div v-if="chosen" class="grid">
      <nav aria-label="Sums" class="sheet list">
        <section v-for="group in groups" :key="group">
          <h2>{{ group }}</h2>
          <RouterLink
            v-for="s in sums.filter((x) => x.group === group)"
            :key="s.id"
            :to="to(s.id)"
            replace
            :class="{ chosen: s === chosen, unasked: circuit && !isAsked(s.id) }"
            >{{ s.name }}</RouterLink
          >
        </section>
      </nav>
      <section class="sheet asked" :aria-label="chosen.name">
        <h2>{{ chosen.name }}</h2>
        <Select
          v-if="devices.length > 1"
          :model-value="device"
          :options="devices"
          option-value="device"
          option-label="title"
          aria-label="Of which device"
          fluid
          @update:model-value="begin($event)"
        />
        <p v-else-if="devices.length">{{ devices[0]!.title }}</p>
        <p v-else-if="circuit" class="faint">This circuit knows nothing of what is asked here.</p>
        <fieldset v-for="part in parts" :key="chosen.id + part">
          <legend>{{ part }}</legend>
          <OptionField
            v-for="option in chosen.given.filter((o) => o.group === part)"
            :key="chosen.id + option.name"
            :option="option"
            :value="given[option.name]"
            @change="set(option.name, $event)"
          />
        </fieldset>
      </section>
      <section class="sheet result" aria-live="polite" aria-label="Result">
        <p v-if="refused" class="error">{{ refused }}</p>
        <template v-if="result">
          <dl>
            <template v-for="(line, i) in result.lines" :key="line.name">
              <dt>{{ line.name }}</dt>
              <dd :class="{ first: i === 0 }">
                <strong class="figures">{{ line.shown }}</strong>
                <span class="figures faint">= {{ line.formula }}</span>
              </dd>
            </template>
          </dl>
          <ValuePlot
            v-if="result.plot"
            :curves="curves"
            :across="result.plot.across"
            :up="result.plot.up"
            :is-logarithmic="result.plot.isLogarithmic"
            :says="`${chosen.name}: ${result.lines[0]?.name} ${result.lines[0]?.shown}`"
          />
          <p v-for="sentence in result.says" :key="sentence">{{ sentence }}</p>
          <p v-if="done" class="done" role="status">Written into {{ circuit?.tag }}: {{ done }}.</p>
          <template v-else-if="put && circuit && can('planning')">
            <Button :label="put.text" icon="pi pi-check" outlined @click="putIn" />
            <p class="faint">Writes it into the description of {{ circuit.tag }}, once it is so in the panel.</p>
          </template>
        </template>
        <p class="faint source">{{ chosen.source }}. Local codes and the maker’s data come first.</p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1rem;
  max-width: 1400px;
  margin: 0 auto;
}
.grid {
  display: grid;
  grid-template-columns: 15rem minmax(15rem, 20rem) minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.sheet {
  padding: 0.7rem;
}
h1 {
  margin-bottom: 0.6rem;
}
.narrow {
  display: none;
  margin-bottom: 0.6rem;
}
.list {
  max-height: calc(100vh - 7.5rem);
  overflow-y: auto;
}
.list a {
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 0 0.5rem;
  color: inherit;
  text-decoration: none;
  border-left: 4px solid transparent;
}
.picker {
  margin-bottom: 0.6rem;
  max-width: 100%;
}
.list a.unasked {
  color: var(--faint);
}
.done {
  font-weight: 600;
}
.list a.chosen {
  border-color: var(--petrol);
  font-weight: 600;
}
h2 {
  margin: 0.4rem 0;
  font-size: 1.05rem;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  margin: 0;
  padding: 0.3rem 0;
}
legend {
  padding-right: 0.5rem;
  font-weight: 600;
}
dl {
  margin: 0;
}
dt {
  margin-top: 0.6rem;
}
dd {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: baseline;
}
dd.first strong {
  font-size: 1.8rem;
}
.error {
  color: var(--live);
  font-weight: 600;
}
.source {
  margin-top: 1rem;
}
@media (max-width: 900px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
  .list {
    display: none;
  }
  .narrow {
    display: flex;
  }
}
</style>
