<script setup lang="ts">
import Select from 'primevue/select'
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { api, need, type Schemas } from '@/api/client'
import type { Curve } from '@/components/ValuePlot.vue'

/** What was measured on a circuit over the years: what heads for its limit first, each plotted with its values beside it. */
const props = defineProps<{ id: string }>()
const ValuePlot = defineAsyncComponent(() => import('@/components/ValuePlot.vue'))
type Trend = Schemas['TrendView']
const trends = ref<Trend[]>()
const problem = ref('')
const chosen = ref(0)

onMounted(async () => {
  try {
    trends.value = need(await api.GET('/api/circuits/{id}/trends', { params: { path: { id: props.id } } }))
  } catch (error) {
    problem.value = (error as Error).message
  }
})

const time = (iso: string) => new Date(iso).getTime()
const rank = (t: Trend) => (t.isBeyond ? 0 : t.isHeading ? time(t.line.at(-1)!.at) : Infinity)
const sorted = computed(() => [...(trends.value ?? [])].sort((a, b) => (rank(a) === rank(b) ? 0 : rank(a) - rank(b))))
const shown = computed(() => sorted.value[chosen.value])
const name = (t: Trend) => [t.name, t.where, t.state].filter(Boolean).join(', ')
const figure = (value: number) => String(Number(value.toPrecision(3)))

const curves = computed<Curve[]>(() => {
  const t = shown.value
  if (!t) return []
  const ends = [...t.points, ...t.line].map((p) => time(p.at))
  const [from, to] = [Math.min(...ends), Math.max(...ends)]
  const limit = (y: number | null | undefined, text: string): Curve[] =>
    y == null
      ? []
      : [
          {
            name: text,
            points: [
              { x: from, y },
              { x: to, y },
            ],
            isDashed: true,
            tone: 'live',
          },
        ]
  return [
    { name: t.name, points: t.points.map((p) => ({ x: time(p.at), y: p.value })), isValues: true },
    ...(t.line.length
      ? [{ name: 'goes on so', points: t.line.map((p) => ({ x: time(p.at), y: p.value })) } as Curve]
      : []),
    ...limit(t.least, 'least'),
    ...limit(t.most, 'most'),
    ...(t.twins.length
      ? [
          {
            name: 'twins, last',
            points: t.twins.map((w) => ({ x: time(w.at), y: w.value })),
            isValues: true,
            tone: 'faint',
          } as Curve,
        ]
      : []),
  ]
})
</script>

<template>
  <p v-if="problem" class="error" role="alert">{{ problem }}</p>
  <p v-else-if="!trends">Fetching what was measured…</p>
  <p v-else-if="!trends.length">
    Nothing is followed here yet. Currents of a function test, bench checks and rounds become trends by themselves.
  </p>
  <div v-else class="trends">
    <nav class="sheet list" aria-label="What is followed">
      <button
        v-for="(t, i) in sorted"
        :key="name(t)"
        type="button"
        :class="{ chosen: i === chosen, beyond: t.isBeyond, heading: t.isHeading }"
        @click="chosen = i"
      >
        <span>{{ name(t) }}</span>
        <span class="figures">{{ figure(t.points.at(-1)!.value) }} {{ t.unit }}</span>
        <small v-if="t.isBeyond"><i class="pi pi-times" aria-hidden="true" /> beyond its limit</small>
        <small v-else-if="t.isHeading"
          ><i class="pi pi-exclamation-triangle" aria-hidden="true" /> heads for its limit</small
        >
      </button>
    </nav>
    <Select
      v-model="chosen"
      class="narrow"
      :options="sorted.map((t, i) => ({ label: name(t), value: i }))"
      option-label="label"
      option-value="value"
      aria-label="What is followed"
      fluid
    />
    <section v-if="shown" class="sheet one" :aria-label="name(shown)">
      <h2>{{ name(shown) }}</h2>
      <p :class="{ beyond: shown.isBeyond, heading: shown.isHeading }">{{ shown.says }}</p>
      <p v-if="shown.limit" class="faint">Limit: {{ shown.limit }}</p>
      <ValuePlot :curves="curves" across="" :up="shown.unit" is-time :says="`${name(shown)}: ${shown.says}`" />
      <div class="tables">
        <table>
          <caption>
            Measured
          </caption>
          <tbody>
            <tr v-for="p in [...shown.points].reverse()" :key="p.at">
              <td class="figures">{{ p.at.slice(0, 10) }}</td>
              <td class="figures">{{ figure(p.value) }} {{ shown.unit }}</td>
              <td>{{ shown.replaced && p.at < shown.replaced ? 'before it was replaced' : '' }}</td>
            </tr>
          </tbody>
        </table>
        <table v-if="shown.twins.length">
          <caption>
            The same part elsewhere
          </caption>
          <tbody>
            <tr v-for="w in shown.twins" :key="w.tag + w.device">
              <td>
                <RouterLink :to="`/circuits/${w.circuit}?tab=trends`">{{ w.tag }}</RouterLink> {{ w.device }}
              </td>
              <td class="figures">{{ w.at.slice(0, 10) }}</td>
              <td class="figures">{{ figure(w.value) }} {{ shown.unit }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <a :href="`/api/circuits/${id}/trends.csv`"><i class="pi pi-table" aria-hidden="true" /> All values, CSV</a>
    </section>
  </div>
</template>

<style scoped>
.trends {
  display: grid;
  grid-template-columns: 19rem minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.list {
  max-height: 70vh;
  overflow-y: auto;
}
.list button {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.1rem 0.6rem;
  width: 100%;
  min-height: 48px;
  padding: 0.4rem 0.6rem;
  border: 0;
  border-left: 4px solid transparent;
  border-bottom: 1px solid var(--line);
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.list button.chosen {
  border-left-color: var(--petrol);
  font-weight: 600;
}
.list small {
  flex-basis: 100%;
}
.beyond,
.beyond small {
  color: var(--live);
}
.heading small,
p.heading {
  color: var(--doubt);
}
p.beyond,
p.heading {
  font-weight: 600;
}
.one {
  padding: 0.8rem;
}
.narrow {
  display: none;
}
.tables {
  display: flex;
  flex-wrap: wrap;
  gap: 2rem;
  align-items: start;
  max-height: 22rem;
  overflow-y: auto;
  margin: 0.6rem 0;
}
caption {
  text-align: left;
  font-weight: 600;
}
td {
  padding: 0.15rem 0.8rem 0.15rem 0;
}
.error {
  color: var(--live);
  font-weight: 600;
}
@media (max-width: 800px) {
  .trends {
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
