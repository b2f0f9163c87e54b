<script setup lang="ts">
import { computed } from 'vue'
import type { Circuit } from '@/api/client'
import LeadPin from './LeadPin.vue'
import type { PlacedPart, Plane, Sheet } from './plane'
import ReadingTag from './ReadingTag.vue'

// The terminals of a sheet, to be tapped, with the leads and readings that are on them; ends of the sheet and clamps of a strip too.
const props = defineProps<{
  circuit: Circuit
  sheet: Sheet
  plane: Plane
  parts: PlacedPart[]
  lead1?: string
  lead2?: string
  readings: { terminal: string; text: string }[]
  /** Whole parts can be tapped too, so that a terminal leaves them room. */
  isCrowded: boolean
}>()
const emit = defineEmits<{ terminal: [terminal: string] }>()

const leadOf = (t: string) => (t === props.lead1 ? 1 : t === props.lead2 ? 2 : 0)
const readingAt = (t: string) => props.readings.find((r) => r.terminal === t)?.text
const short = (t: string) => t.slice(t.lastIndexOf(':') + 1)

/** Marks at points that no sheet draws, the clamps of a strip: they stand on the first sheet with their wire. */
const clampMarks = computed(() => {
  const drawn = new Set(
    props.circuit.sheets.flatMap((s) => [
      ...s.parts.flatMap((p) => p.terminals.map((t) => t.terminal)),
      ...s.references.map((r) => r.terminal),
    ]),
  )
  const wanted = [props.lead1, props.lead2, ...props.readings.map((r) => r.terminal)].filter(
    (t): t is string => !!t && !drawn.has(t),
  )
  return [...new Set(wanted)].flatMap((terminal) => {
    const wire = props.circuit.conductors.find((c) => c.from === terminal || c.to === terminal)?.wire
    const sheet = props.circuit.sheets.find((s) => s.wires.some((w) => w.wire === wire))
    if (sheet?.type !== props.sheet.type) return []
    const line = sheet.wires.find((w) => w.wire === wire && w.label) ?? sheet.wires.find((w) => w.wire === wire)!
    const at = line.label ?? {
      x: (line.points[0]!.x + line.points.at(-1)!.x) / 2,
      y: (line.points[0]!.y + line.points.at(-1)!.y) / 2,
    }
    return [{ terminal, x: at.x, y: at.y }]
  })
})
</script>

<template>
  <g
    v-for="reference in sheet.references"
    :key="`r${reference.terminal}${reference.x}${reference.isTop}`"
    class="terminal"
    role="button"
    tabindex="0"
    :data-terminal="reference.terminal"
    :aria-label="`terminal ${reference.terminal}, wire ${reference.wire}`"
    :transform="plane.at(reference.x, reference.y)"
    @click="emit('terminal', reference.terminal)"
    @keydown.enter.prevent="emit('terminal', reference.terminal)"
  >
    <rect class="hit" x="-22" y="-30" width="44" height="36" />
    <path
      v-if="!plane.isLadder"
      class="flag"
      :d="`M0 0 m-5 ${reference.isTop ? -6 : 6} l5 ${reference.isTop ? 6 : -6} l5 ${reference.isTop ? -6 : 6}`"
    />
    <path v-else class="flag" d="M0 -5 v10" />
    <text class="ref" x="0" :y="plane.isLadder ? 18 : reference.isTop ? -10 : 20" text-anchor="middle">
      {{ reference.terminal }}
    </text>
    <LeadPin :lead="leadOf(reference.terminal)" :x="0" :y="0" />
  </g>
  <g
    v-for="mark in clampMarks"
    :key="`c${mark.terminal}`"
    class="clamp"
    :data-terminal="mark.terminal"
    :transform="plane.at(mark.x, mark.y)"
  >
    <rect x="-5" y="-5" width="10" height="10" />
    <text class="number" x="-16" y="4" text-anchor="end">{{ mark.terminal }}</text>
    <LeadPin :lead="leadOf(mark.terminal)" :x="0" :y="0" />
    <ReadingTag :text="readingAt(mark.terminal)" :x="-84" :y="0" />
  </g>
  <template v-for="part in parts" :key="`t${part.device}${part.left}${part.top}`">
    <g
      v-for="terminal in part.terminals"
      :key="terminal.terminal"
      class="terminal"
      role="button"
      tabindex="0"
      :data-terminal="terminal.terminal"
      :aria-label="`terminal ${terminal.terminal}`"
      :transform="plane.at(terminal.x, terminal.y)"
      @click="emit('terminal', terminal.terminal)"
      @keydown.enter.prevent="emit('terminal', terminal.terminal)"
    >
      <circle class="hit" :r="isCrowded ? 10 : 22" />
      <circle class="screw" r="4.5" />
      <text
        class="number"
        :x="plane.isLadder ? (terminal.y > part.y ? -2 : 2) : -8"
        :y="plane.isLadder ? 17 : terminal.y > part.y ? -2 : 11"
        :text-anchor="plane.isLadder ? (terminal.y > part.y ? 'end' : 'start') : 'end'"
      >
        {{ short(terminal.terminal) }}
      </text>
      <LeadPin :lead="leadOf(terminal.terminal)" :x="0" :y="0" />
      <ReadingTag :text="readingAt(terminal.terminal)" :x="plane.isLadder ? 0 : -40" :y="plane.isLadder ? 28 : 0" />
    </g>
  </template>
</template>

<style scoped>
.number {
  font: 11px 'Barlow';
  fill: var(--faint);
}
.ref {
  font: 600 11px 'Barlow Semi Condensed';
  fill: var(--faint);
}
.flag {
  fill: none;
  stroke: var(--faint);
  stroke-width: 1.6;
}
.clamp > rect {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.screw {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.hit {
  fill: transparent;
}
.terminal {
  cursor: pointer;
}
.terminal:hover .screw,
.terminal:focus-visible .screw {
  fill: var(--petrol);
}
.terminal:focus-visible {
  outline: none;
}
.terminal:focus-visible .hit {
  stroke: var(--petrol);
  stroke-width: 2;
}
</style>
