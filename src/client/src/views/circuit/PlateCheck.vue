<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref, watch } from 'vue'
import { api, need, type Circuit, type Schemas } from '@/api/client'
import { useSession } from '@/composables/useSession'

/** Plates and settings against motor and supply: what does not fit first, what fits folded away. */
const props = defineProps<{ circuit: Circuit }>()
const emit = defineEmits<{ changed: [] }>()
const { can } = useSession()
const rows = ref<Schemas['PlateRow'][]>()
const problem = ref('')

async function load() {
  problem.value = ''
  try {
    rows.value = need(await api.GET('/api/circuits/{id}/plate-check', { params: { path: { id: props.circuit.id } } }))
  } catch (error) {
    problem.value = (error as Error).message
  }
}
onMounted(load)
watch(() => [props.circuit.id, props.circuit.version], load)

const busy = ref(false)
async function change(edit: Schemas['CircuitEdit']) {
  problem.value = ''
  busy.value = true
  try {
    need(await api.POST('/api/circuits/{id}/edits', { params: { path: { id: props.circuit.id } }, body: edit }))
    emit('changed')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}

const words = {
  doesNotFit: { icon: 'pi-times', text: 'does not fit' },
  mind: { icon: 'pi-exclamation-triangle', text: 'look at it' },
  fits: { icon: 'pi-check', text: 'fits' },
} as const
const name = (tag: string) => {
  const device = props.circuit.devices.find((d) => d.tag === tag)
  return device ? `${tag} ${device.function || device.term}` : tag
}
</script>

<template>
  <section class="sheet check" aria-label="Plate check">
    <h2>Plates and settings against motor and supply</h2>
    <p v-if="problem" class="error" role="alert">{{ problem }}</p>
    <p v-if="!rows && !problem">Working it out…</p>
    <p v-else-if="rows && !rows.some((r) => r.fit !== 'fits')">Everything that can be compared fits.</p>
    <template v-for="folded in [false, true]" :key="String(folded)">
      <component :is="folded ? 'details' : 'div'" v-if="rows?.some((r) => (r.fit === 'fits') === folded)">
        <summary v-if="folded">What fits ({{ rows.filter((r) => r.fit === 'fits').length }})</summary>
        <ul>
          <li v-for="r in rows.filter((x) => (x.fit === 'fits') === folded)" :key="r.device + r.says" :class="r.fit">
            <i class="pi" :class="words[r.fit].icon" aria-hidden="true" />
            <span
              ><strong>{{ name(r.device) }}, {{ words[r.fit].text }}:</strong> {{ r.says }}
              <span v-if="r.changes?.length && can('planning')" class="changes">
                <Button
                  v-for="c in r.changes"
                  :key="c.text"
                  :label="c.text"
                  size="small"
                  outlined
                  :disabled="busy"
                  @click="change(c.edit)"
                />
                <small class="faint">Write it into the description once it is so in the panel.</small>
              </span></span
            >
          </li>
        </ul>
      </component>
    </template>
    <RouterLink :to="{ path: '/sums', query: { circuit: circuit.id } }" class="sums no-print"
      >Sums with the plates and settings of this circuit</RouterLink
    >
    <p class="faint">
      Taken from the description, not from the panel: read the plates. Local codes and makers’ data come first.
    </p>
  </section>
</template>

<style scoped>
.changes {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem;
  margin: 0.3rem 0;
}
.sums {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.check {
  padding: 0.7rem;
  margin-bottom: 0.8rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0.4rem 0;
}
li {
  display: flex;
  gap: 0.6rem;
  padding: 0.25rem 0;
}
.doesNotFit {
  color: var(--live);
}
.mind i {
  color: var(--doubt);
}
.fits i {
  color: var(--dead);
}
.error {
  color: var(--live);
  font-weight: 600;
}
</style>
