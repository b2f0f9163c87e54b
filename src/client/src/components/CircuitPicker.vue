<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import Select from 'primevue/select'
import { onMounted, ref } from 'vue'
import { api, need } from '@/api/client'

/** One circuit of the register, found by what is typed of its designation or title. */
defineProps<{ placeholder: string }>()
const model = defineModel<string>()
const emit = defineEmits<{ problem: [text: string] }>()
type Option = { id: string; label: string }
const options = ref<Option[]>([])
const most = 50

async function find(search = '') {
  try {
    const found = need(await api.GET('/api/circuits', { params: { query: { search, take: most, sort: 'tag' } } })).items
    const chosen = options.value.filter((o) => o.id === model.value && !found.some((c) => c.id === o.id))
    options.value = [...chosen, ...found.map((c) => ({ id: c.id, label: `${c.tag} ${c.title}` }))]
  } catch (error) {
    emit('problem', (error as Error).message)
  }
}
const soon = useDebounceFn(find, 200)
onMounted(() => find())
</script>

<template>
  <Select
    v-model="model"
    :options="options"
    option-label="label"
    option-value="id"
    filter
    :placeholder="placeholder"
    aria-label="Circuit"
    @filter="soon(String($event.value ?? ''))"
  />
</template>
