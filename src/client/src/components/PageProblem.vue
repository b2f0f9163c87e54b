<script setup lang="ts">
import Message from 'primevue/message'
defineProps<{ text: string }>()
</script>

<template>
  <Message v-if="text" severity="error" role="alert" class="page-problem">{{ text }}</Message>
</template>
