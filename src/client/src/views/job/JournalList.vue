<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { Entry, Job } from '@/api/client'
import { when } from '@/components/format'
import type { Waiting } from '@/composables/useOutbox'
import PhotoShown from '@/components/PhotoShown.vue'
import PhotoButton from './PhotoButton.vue'
import WaitingEntry from './WaitingEntry.vue'

const props = defineProps<{ job: Job; waiting: Waiting[] }>()
const emit = defineEmits<{
  entry: [entry: Entry]
  mend: [waiting: Waiting, entry: Entry, label: string]
  letGo: [waiting: Waiting]
}>()
const striking = ref<Job['entries'][number]>()
const reason = ref('')
const note = ref('')
const rows = computed(() => [...props.job.entries].reverse())
/** Worked out on this device already, and still to be sent. */
const unsent = computed(() => new Set(props.waiting.map((w) => w.entry.id)))
const notInJob = computed(() => props.waiting.filter((w) => !props.job.entries.some((e) => e.entry.id === w.entry.id)))

function strike() {
  emit('entry', { type: 'struckOut', entry: striking.value!.entry.id!, reason: reason.value } as Entry)
  striking.value = undefined
  reason.value = ''
}

function addNote() {
  if (!note.value.trim()) return
  emit('entry', { type: 'note', text: note.value.trim() } as Entry)
  note.value = ''
}
function addPhoto(entry: Entry) {
  emit('entry', entry)
  note.value = ''
}
</script>

<template>
  <section class="sheet journal" aria-label="Journal">
    <h2 :class="{ 'visually-hidden': !job.isClosed }">Journal</h2>
    <p v-if="job.setAside.length" class="waiting" role="status">
      {{ job.setAside.length }} entr{{ job.setAside.length === 1 ? 'y' : 'ies' }} of this journal cannot be read any
      more (number {{ job.setAside.join(', ') }}) and do not count.
    </p>
    <form v-if="!job.isClosed" class="row" @submit.prevent="addNote">
      <InputText v-model="note" placeholder="Add a note" aria-label="Note" class="note" maxlength="1000" />
      <Button type="submit" label="Note" severity="secondary" variant="outlined" />
      <PhotoButton v-if="!job.exercise" :caption="note.trim()" @entry="addPhoto" />
    </form>
    <ol reversed>
      <WaitingEntry
        v-for="w in notInJob"
        :key="w.entry.id"
        :waiting="w"
        @mend="(entry, label) => emit('mend', w, entry, label)"
        @let-go="emit('letGo', w)"
      />
      <li v-for="row in rows" :key="row.entry.id">
        <div class="line">
          <span class="what">
            <span :class="{ struck: row.struck || row.void }" class="figures">{{ row.text }}</span>
            <span v-if="row.entry.origin" class="faint"> (from {{ row.entry.origin }})</span>
            <span v-if="row.void" class="faint"> ({{ row.void }})</span>
            <span v-if="row.struck" class="faint"> (struck out)</span>
            <em v-if="unsent.has(row.entry.id)" class="faint"> not yet sent</em>
            <PhotoShown v-if="row.entry.type === 'photo'" :picture="row.entry.picture" :caption="row.text" />
          </span>
          <span class="faint figures when">{{ when(row.entry.at) }} {{ row.entry.who }}</span>
          <Button
            v-if="row.canBeStruck"
            icon="pi pi-times"
            text
            severity="secondary"
            class="strike no-print"
            :aria-label="`Strike out: ${row.text}`"
            title="Strike out"
            @click="striking = row"
          />
        </div>
      </li>
    </ol>
    <Dialog
      :visible="!!striking"
      modal
      header="Strike out this entry?"
      :style="{ width: '28rem', maxWidth: '95vw' }"
      @update:visible="striking = undefined"
    >
      <p>{{ striking?.text }}</p>
      <p class="faint">It stays visible and no longer counts.</p>
      <label for="reason">Why is it wrong?</label>
      <InputText
        id="reason"
        v-model="reason"
        autofocus
        class="wide"
        maxlength="300"
        placeholder="slipped probe, wrong terminal…"
        @keydown.enter="strike"
      />
      <div class="row actions"><Button label="Strike out" @click="strike" /></div>
    </Dialog>
  </section>
</template>

<style scoped>
.journal {
  padding: 0.8rem;
}
.note {
  flex: 1;
  min-width: 8rem;
  min-height: 44px;
}
ol {
  padding-left: 2rem;
  margin: 0.5rem 0 0;
}
li {
  border-top: 1px solid var(--line);
  padding: 0.25rem 0;
}
.struck {
  text-decoration: line-through;
}
.waiting {
  color: var(--doubt);
}
.line {
  display: flex;
  align-items: center;
  gap: 0.2rem 0.8rem;
}
.what {
  flex: 1 1 auto;
}
.when {
  white-space: nowrap;
  font-size: 0.9rem;
}
.strike {
  margin: -0.3rem 0;
}
@media (max-width: 700px) {
  .line {
    flex-wrap: wrap;
  }
  .what {
    flex-basis: 75%;
  }
}
.wide {
  width: 100%;
}
.actions {
  margin-top: 0.7rem;
}
</style>
