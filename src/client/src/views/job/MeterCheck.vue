<script setup lang="ts">
import Button from 'primevue/button'
import type { Entry } from '@/api/client'

// The meter tried on a known source: good, or wrong, which takes its readings out of the evidence.
const emit = defineEmits<{ entry: [entry: Entry] }>()
const checked = (good: boolean) => emit('entry', { type: 'meterChecked', good, meter: '' } as Entry)
</script>

<template>
  <details>
    <summary>The meter</summary>
    <p>Tried on a known source, leads against each other, unit and setting read again:</p>
    <div class="row">
      <Button label="Meter is good" severity="secondary" variant="outlined" @click="checked(true)" />
      <Button label="Meter was wrong" severity="secondary" variant="outlined" @click="checked(false)" />
    </div>
    <p class="faint">Wrong: its readings since the check before stay in the journal and no longer count.</p>
  </details>
</template>
