<script setup lang="ts">
import { onUnmounted, ref, watch } from 'vue'
import { pictureOf } from '@/field/pictures'

/** A photo of a job, from this device where it is here; touched, it fills the window. */
const props = defineProps<{ picture: string; caption: string; large?: boolean }>()
const source = ref<string>()

function release() {
  if (source.value?.startsWith('blob:')) URL.revokeObjectURL(source.value)
}

watch(
  () => props.picture,
  async (picture) => {
    const here = await pictureOf(picture).catch(() => undefined)
    if (picture !== props.picture) return
    release()
    source.value = here ? URL.createObjectURL(here) : `/api/photos/${picture}`
  },
  { immediate: true },
)
onUnmounted(release)
</script>

<template>
  <a v-if="source" :href="source" target="_blank" class="photo" :class="{ large }">
    <img :src="source" :alt="caption" loading="lazy" />
  </a>
</template>

<style scoped>
.photo {
  display: block;
  width: fit-content;
  margin: 0.3rem 0;
}
img {
  display: block;
  height: 96px;
  max-width: 100%;
  object-fit: contain;
  border: 1px solid var(--line);
}
.large img {
  height: auto;
  max-height: 360px;
}
</style>
