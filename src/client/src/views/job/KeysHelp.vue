<script setup lang="ts">
import Dialog from 'primevue/dialog'

/** Shortcuts of the job screen, and how its drawing is read. */
defineProps<{ moving: 1 | 2 }>()
const visible = defineModel<boolean>('visible', { required: true })
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Keys" :style="{ width: '24rem', maxWidth: '95vw' }">
    <dl class="keys">
      <dt>V, O, B</dt>
      <dd>volts, ohms, beep</dd>
      <dt>Arrows</dt>
      <dd>the lead to the next terminal that way, while nothing is typed</dd>
      <dt>L</dt>
      <dd>the other lead</dd>
      <dt>Tab, Enter</dt>
      <dd>to a terminal in the drawing, and put the lead there</dd>
      <dt>number, Enter</dt>
      <dd>record the reading; also OL, full, beep, stray, 4k7</dd>
      <dt>N</dt>
      <dd>the next proposed test</dd>
      <dt>Esc</dt>
      <dd>back to the proposed test</dd>
      <dt>S, T, J</dt>
      <dd>suspects, tried and seen, journal</dd>
      <dt>C</dt>
      <dd>repair and close out</dd>
    </dl>
    <h3>In the drawing</h3>
    <p>
      Thick broken line: live in a good circuit as it now stands. Shaded: suspected, with its share. Tap a terminal to
      move lead {{ moving }}; tap a wire number for its route, to lift it or to measure at the strip.
    </p>
  </Dialog>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.4rem 1rem;
}
.keys dt {
  font-weight: 600;
}
.keys dd {
  margin: 0;
}
</style>
