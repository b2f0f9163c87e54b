<script setup lang="ts">
import type { Schemas } from '@/api/client'

defineProps<{ guide: Schemas['RepairGuideView'] }>()
const emit = defineEmits<{ cause: [what: string] }>()
</script>

<template>
  <section class="guide" aria-label="Repair guide">
    <p><strong>Proved by</strong> {{ guide.provedBy }}</p>
    <ul v-if="guide.cautions.length" class="cautions">
      <li v-for="c in guide.cautions" :key="c"><i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ c }}</li>
    </ul>
    <p v-if="guide.parts.length"><strong>Bring</strong> {{ guide.parts.join('; ') }}</p>
    <h3>What to do</h3>
    <ol>
      <li v-for="s in guide.steps" :key="s">{{ s }}</li>
    </ol>
    <template v-if="guide.choices.length">
      <h3>Practitioners differ</h3>
      <dl>
        <template v-for="c in guide.choices" :key="c.way">
          <dt>{{ c.way }}</dt>
          <dd>{{ c.for }}</dd>
        </template>
      </dl>
    </template>
    <h3>Check afterwards</h3>
    <ul>
      <li v-for="s in guide.afterCheck" :key="s">{{ s }}</li>
    </ul>
    <h3>Why it may have failed</h3>
    <dl>
      <template v-for="c in guide.causes" :key="c.what">
        <dt>
          {{ c.what }}
          <button
            type="button"
            class="pick no-print"
            :title="`Write down as the cause: ${c.what}`"
            @click="emit('cause', c.what)"
          >
            it was this
          </button>
        </dt>
        <dd>{{ c.check }}</dd>
      </template>
    </dl>
    <p class="faint"><strong>For the log:</strong> {{ guide.record.join(' ') }}</p>
  </section>
</template>

<style scoped>
.guide {
  display: grid;
  gap: 0.4rem;
}
.guide p,
.guide h3 {
  margin: 0;
}
.cautions {
  list-style: none;
  padding: 0;
  margin: 0;
}
.cautions .pi {
  color: var(--doubt);
}
ol,
ul {
  margin: 0;
  padding-left: 1.3rem;
}
dl {
  margin: 0;
}
dt {
  font-weight: 600;
}
dd {
  margin: 0 0 0.4rem 1rem;
}
.pick {
  min-height: 44px;
  border: 0;
  padding: 0 0.5rem;
  background: transparent;
  color: var(--petrol);
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
}
</style>
