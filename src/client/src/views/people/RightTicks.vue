<script setup lang="ts">
/** What somebody may do beyond looking. */
const rights = defineModel<string[]>({ required: true })
const known = [
  ['jobs', 'Electrician: jobs, readings, repairs'],
  ['planning', 'Planner: circuits, register, plan, spares'],
  ['administration', 'Administrator: people, devices, backup'],
] as const
</script>

<template>
  <fieldset>
    <legend>May do, besides looking</legend>
    <label v-for="[right, words] in known" :key="right" class="tick">
      <input v-model="rights" type="checkbox" :value="right" /> {{ words }}
    </label>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  border: 1px solid var(--line);
  border-radius: 3px;
}
</style>
