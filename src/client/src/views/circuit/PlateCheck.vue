<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import { api, need, type Circuit, type Schemas } from '@/api/client'

/** Plates and settings against motor and supply: what does not fit first, what fits folded away. */
const props = defineProps<{ circuit: Circuit }>()
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
    <p v-else-if="!rows">Working it out…</p>
    <p v-else-if="!rows.some((r) => r.fit !== 'fits')">Everything that can be compared fits.</p>
    <template v-for="folded in [false, true]" :key="String(folded)">
      <component :is="folded ? 'details' : 'div'" v-if="rows?.some((r) => (r.fit === 'fits') === folded)">
        <summary v-if="folded">What fits ({{ rows.filter((r) => r.fit === 'fits').length }})</summary>
        <ul>
          <li v-for="r in rows.filter((x) => (x.fit === 'fits') === folded)" :key="r.device + r.says" :class="r.fit">
            <i class="pi" :class="words[r.fit].icon" aria-hidden="true" />
            <span
              ><strong>{{ name(r.device) }}, {{ words[r.fit].text }}:</strong> {{ r.says }}</span
            >
          </li>
        </ul>
      </component>
    </template>
    <p class="faint">
      Taken from the description, not from the panel: read the plates. Local codes and makers’ data come first.
    </p>
  </section>
</template>

<style scoped>
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
