<script setup lang="ts">
import { send } from '@/api/send'
import Button from 'primevue/button'
import { ref } from 'vue'
import { useSettings } from '@/composables/useSettings'

/** Takes a photo or chooses one, makes it small in the browser and keeps it with the job. */
const props = defineProps<{ job: string; caption: string }>()
const emit = defineEmits<{ kept: [] }>()
const { who } = useSettings()
const chooser = ref<HTMLInputElement>()
const problem = ref('')
const sending = ref(false)

/** Enough to read a label on a terminal, some hundred kilobytes. */
const mostPixels = 1600

async function small(file: File): Promise<Blob> {
  const picture = await createImageBitmap(file)
  const scale = Math.min(1, mostPixels / Math.max(picture.width, picture.height))
  const canvas = new OffscreenCanvas(Math.round(picture.width * scale), Math.round(picture.height * scale))
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.8 })
}

async function keep() {
  const file = chooser.value?.files?.[0]
  if (!file) return
  problem.value = ''
  sending.value = true
  try {
    const body = await small(file).catch(() => {
      throw new Error('That is no picture that this browser can open; take it again or choose another file.')
    })
    const query = new URLSearchParams({ caption: props.caption, who: who.value })
    const answer = await send(
      new Request(`/api/jobs/${props.job}/photos?${query}`, {
        method: 'POST',
        headers: { 'Content-Type': body.type },
        body,
      }),
    ).catch(() => {
      throw new Error('No connection: the photo is not kept. Take it again once the service is there.')
    })
    if (!answer.ok) throw new Error(((await answer.json()) as { detail?: string }).detail ?? 'The photo was not kept.')
    emit('kept')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    sending.value = false
    chooser.value!.value = ''
  }
}
</script>

<template>
  <Button
    type="button"
    icon="pi pi-camera"
    aria-label="Photo"
    title="Photo; what is typed becomes its caption"
    severity="secondary"
    variant="outlined"
    :loading="sending"
    @click="chooser?.click()"
  />
  <input
    ref="chooser"
    type="file"
    accept="image/*"
    capture="environment"
    class="visually-hidden"
    tabindex="-1"
    aria-label="Choose a photo"
    @change="keep"
  />
  <p v-if="problem" class="error" role="alert">{{ problem }}</p>
</template>

<style scoped>
.error {
  flex-basis: 100%;
  margin: 0;
  color: var(--live);
  font-weight: 600;
}
</style>
