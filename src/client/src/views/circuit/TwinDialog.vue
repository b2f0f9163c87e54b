<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, need } from '@/api/client'

/** The circuit under another designation: the start of its twin, changed from there. */
const props = defineProps<{ visible: boolean; id: string; tag: string; title: string }>()
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const ownTag = ref('')
const ownTitle = ref('')
const problem = ref('')
const sending = ref(false)
watch(
  () => props.visible,
  () => ([ownTag.value, ownTitle.value, problem.value] = ['', props.title, '']),
)

async function copy() {
  problem.value = ''
  sending.value = true
  try {
    const twin = need(
      await api.POST('/api/circuits/{id}/copies', {
        params: { path: { id: props.id } },
        body: { tag: ownTag.value, title: ownTitle.value },
      }),
    )
    emit('close')
    await router.push(`/circuits/${twin.id}/set-up`)
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    sending.value = false
  }
}
</script>

<template>
  <Dialog
    :visible="visible"
    modal
    :header="`A twin of ${tag}`"
    :style="{ width: '28rem', maxWidth: '96vw' }"
    @update:visible="emit('close')"
  >
    <form class="twin" @submit.prevent="copy">
      <p class="faint">The same devices, wires and settings; history stays with {{ tag }}.</p>
      <label for="twin-tag">Its designation</label>
      <InputText id="twin-tag" v-model="ownTag" maxlength="40" autofocus />
      <label for="twin-title">What it drives</label>
      <InputText id="twin-title" v-model="ownTitle" maxlength="120" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <Button type="submit" label="Copy, and change what differs" :disabled="!ownTag.trim()" :loading="sending" />
    </form>
  </Dialog>
</template>

<style scoped>
.twin {
  display: grid;
  gap: 0.4rem;
}
.problem {
  color: var(--live);
  font-weight: 600;
}
</style>
