<script setup lang="ts">
import { ref } from 'vue'
import { when } from '@/components/format'
import { useField } from '@/field/field'

/** A circuit is taken along to where there is no connection: with it its jobs can be done on this device alone. */
const props = defineProps<{ id: string; tag: string; title: string }>()
const { isHere, busy, takeAlong, leave } = useField()
const along = isHere(props.id)
const problem = ref('')

async function tried(work: () => Promise<void>) {
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <button type="button" class="quiet" :disabled="!!busy" @click="tried(() => takeAlong({ id, tag, title }))">
    <i class="pi pi-download" aria-hidden="true" />
    {{ busy || (along ? `Taken along ${when(along.at)}: renew` : 'Take along') }}
  </button>
  <button v-if="along && !busy" type="button" class="quiet" @click="tried(() => leave(id))">
    <i class="pi pi-times" aria-hidden="true" /> Leave it here
  </button>
  <span v-if="problem" class="wrong" role="alert">{{ problem }}</span>
</template>

<style scoped>
.wrong {
  color: var(--live);
}
</style>
