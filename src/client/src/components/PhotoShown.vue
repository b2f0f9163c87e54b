<script setup lang="ts">
/** A photo of a job; touched, it fills the window. */
defineProps<{ picture: string; caption: string; large?: boolean }>()
</script>

<template>
  <a :href="`/api/photos/${picture}`" target="_blank" class="photo" :class="{ large }">
    <img :src="`/api/photos/${picture}`" :alt="caption" loading="lazy" />
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
