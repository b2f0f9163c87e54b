<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'
import type { Entry } from '@/api/client'
import { uuid } from '@/composables/uuid'
import { keepPicture } from '@/field/pictures'

/** Takes a photo or chooses one, makes it small in the browser and keeps it on the device until the service has it. */
const props = defineProps<{ caption: string }>()
const emit = defineEmits<{ entry: [entry: Entry] }>()
const chooser = ref<HTMLInputElement>()
const problem = ref('')
const busy = ref(false)

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
  busy.value = true
  try {
    const picture = uuid()
    const body = await small(file).catch(() => {
      throw new Error('That is no picture that this browser can open; take it again or choose another file.')
    })
    await keepPicture(picture, body).catch((error: Error) => {
      throw new Error(
        error.name === 'QuotaExceededError'
          ? 'There is no room left on this device; leave a circuit here that was taken along, then take it again.'
          : `The photo could not be kept here: ${error.message}`,
      )
    })
    emit('entry', { type: 'photo', picture, caption: props.caption } as Entry)
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
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
    :loading="busy"
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
