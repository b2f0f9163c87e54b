<script setup lang="ts">
import { computed } from 'vue'
import type { Circuit } from '@/api/client'
import { symbolOf } from '@/symbols'
import LeadPin from './LeadPin.vue'
import ReadingTag from './ReadingTag.vue'

/** A reading shown at a terminal. */
export interface ShownReading {
  terminal: string
  text: string
}

const props = defineProps<{
  circuit: Circuit
  lead1?: string
  lead2?: string
  /** Probability by conductor id, and by the two points of a device's element or "tag:" for the device as a whole; 0 to 1. */
  suspicion?: Record<string, number>
  readings?: ShownReading[]
  /** Volts to earth by wire number where a good circuit would now be live. */
  liveWires?: Record<string, number | null>
  lifted?: string[]
}>()
const emit = defineEmits<{ terminal: [terminal: string]; wire: [wire: string] }>()

const X = 46
const Y = 26
const margin = 26

const sheets = computed(() =>
  props.circuit.sheets.map((sheet) => ({
    ...sheet,
    width: sheet.width * X + margin,
    height: sheet.height * Y + 10,
    parts: sheet.parts.map((part) => ({
      ...part,
      xs: [...new Set(part.terminals.map((t) => (t.x - part.x) * X))],
      left: part.x * X + margin,
      top: part.y * Y,
      h: part.height * Y,
      share: shareOf(part),
    })),
  })),
)

/** Share of the suspects that sit in this part; what concerns the whole device shades its first part with a load, or all. */
function shareOf(part: Circuit['sheets'][number]['parts'][number]): number {
  let share = 0
  for (const [at, probability] of Object.entries(props.suspicion ?? {})) {
    if (at === `${part.device}:`) share += wholeIn(part) ? probability : 0
    else if (at.split(' ').every((t) => part.terminals.some((x) => x.terminal === t))) share += probability
  }
  return share
}

function wholeIn(part: Circuit['sheets'][number]['parts'][number]): boolean {
  const all = props.circuit.sheets.flatMap((s) => s.parts.filter((p) => p.device === part.device))
  const load = all.find((p) => p.element === 'load')
  return load ? part.element === 'load' : true
}

const wireShare = computed(() => {
  const shares: Record<string, number> = {}
  for (const conductor of props.circuit.conductors)
    shares[conductor.wire] = (shares[conductor.wire] ?? 0) + (props.suspicion?.[conductor.id] ?? 0)
  return shares
})

const liftedWires = computed(
  () => new Set(props.circuit.conductors.filter((c) => props.lifted?.includes(c.id)).map((c) => c.wire)),
)

/** Marks at points that the sheet does not draw, the clamps of a strip: they stand on their wire. */
const clampMarks = computed(() => {
  const drawn = new Set(
    props.circuit.sheets.flatMap((s) => [
      ...s.parts.flatMap((p) => p.terminals.map((t) => t.terminal)),
      ...s.references.map((r) => r.terminal),
    ]),
  )
  const wanted = [props.lead1, props.lead2, ...(props.readings ?? []).map((r) => r.terminal)].filter(
    (t): t is string => !!t && !drawn.has(t),
  )
  return [...new Set(wanted)].flatMap((terminal) => {
    const wire = props.circuit.conductors.find((c) => c.from === terminal || c.to === terminal)?.wire
    for (const sheet of props.circuit.sheets) {
      const line = sheet.wires.find((w) => w.wire === wire && w.label) ?? sheet.wires.find((w) => w.wire === wire)
      if (!line) continue
      const at = line.label ?? {
        x: (line.points[0]!.x + line.points.at(-1)!.x) / 2,
        y: (line.points[0]!.y + line.points.at(-1)!.y) / 2,
      }
      return [{ terminal, sheet: sheet.type, x: at.x, y: at.y }]
    }
    return []
  })
})

const px = (x: number) => x * X + margin
const py = (y: number) => y * Y
const path = (points: { x: number; y: number }[]) => 'M' + points.map((p) => `${px(p.x)} ${py(p.y)}`).join('L')
const percent = (share: number) => `${Math.round(share * 100)} %`
const isLive = (wire: string) => (props.liveWires?.[wire] ?? 0) > 25
const leadOf = (t: string) => (t === props.lead1 ? 1 : t === props.lead2 ? 2 : 0)
const readingAt = (t: string) => props.readings?.find((r) => r.terminal === t)?.text
const short = (t: string) => t.slice(t.lastIndexOf(':') + 1)
</script>

<template>
  <div class="sheets">
    <figure v-for="sheet in sheets" :key="sheet.type">
      <figcaption>{{ sheet.type === 'power' ? 'Power circuit' : 'Control circuit' }}</figcaption>
      <svg
        :viewBox="`0 0 ${sheet.width} ${sheet.height}`"
        :width="sheet.width"
        :height="sheet.height"
        role="group"
        :aria-label="`${sheet.type} circuit of ${circuit.tag}; tap a terminal to put a lead on it`"
      >
        <g v-for="(wire, i) in sheet.wires" :key="`w${i}`">
          <path
            v-if="(wireShare[wire.wire] ?? 0) > 0.02"
            class="halo"
            :style="{ opacity: 0.25 + 0.6 * wireShare[wire.wire]! }"
            :d="path(wire.points)"
          />
          <path class="wire" :class="{ live: isLive(wire.wire) }" :d="path(wire.points)" />
          <path v-if="isLive(wire.wire)" class="spark" :d="path(wire.points)" />
        </g>
        <g
          v-for="part in sheet.parts"
          :key="part.device + part.element + part.left + part.top"
          :transform="`translate(${part.left} ${part.top})`"
        >
          <rect
            v-if="part.share > 0.02"
            class="suspect"
            :x="-26"
            :y="2"
            :width="Math.max(...part.xs) + 52"
            :height="part.h - 4"
            :style="{ opacity: 0.2 + 0.5 * part.share }"
          />
          <g class="symbol">
            <component :is="symbolOf(part.kind)" :xs="part.xs" :height="part.h" :role="part.element" />
          </g>
          <text class="tag" :x="Math.max(...part.xs) + 26" :y="part.h / 2 + 4">{{ part.device }}</text>
          <text
            v-if="part.function && part.xs.length === 1"
            class="function"
            :x="Math.max(...part.xs) + 26"
            :y="part.h / 2 + 17"
          >
            {{ part.function }}
          </text>
          <text v-if="part.share > 0.02" class="share" :x="Math.max(...part.xs) + 26" :y="part.h / 2 - 10">
            {{ percent(part.share) }}
          </text>
        </g>
        <g v-for="(wire, i) in sheet.wires.filter((w) => w.label)" :key="`l${i}`">
          <g
            class="wire-number"
            role="button"
            tabindex="-1"
            :aria-label="`wire ${wire.wire}: show its route`"
            @click="emit('wire', wire.wire)"
          >
            <rect :x="px(wire.label!.x) + 3" :y="py(wire.label!.y) - 9" width="30" height="18" rx="2" />
            <text :x="px(wire.label!.x) + 18" :y="py(wire.label!.y) + 4" text-anchor="middle">
              {{ wire.wire }}{{ liftedWires.has(wire.wire) ? ' ⤒' : '' }}
            </text>
            <text
              v-if="sheet.type === 'control' && (wireShare[wire.wire] ?? 0) > 0.02"
              class="share"
              :x="px(wire.label!.x) + 36"
              :y="py(wire.label!.y) + 5"
            >
              {{ percent(wireShare[wire.wire]!) }}
            </text>
          </g>
        </g>
        <g
          v-for="reference in sheet.references"
          :key="`r${reference.terminal}${reference.x}${reference.isTop}`"
          class="terminal"
          role="button"
          tabindex="0"
          :data-terminal="reference.terminal"
          :aria-label="`terminal ${reference.terminal}, wire ${reference.wire}`"
          @click="emit('terminal', reference.terminal)"
          @keydown.enter.prevent="emit('terminal', reference.terminal)"
        >
          <rect class="hit" :x="px(reference.x) - 22" :y="py(reference.y) - 30" width="44" height="36" />
          <path
            class="flag"
            :d="`M${px(reference.x)} ${py(reference.y)} m-5 ${reference.isTop ? -6 : 6} l5 ${reference.isTop ? 6 : -6} l5 ${reference.isTop ? -6 : 6}`"
          />
          <text
            class="ref"
            :x="px(reference.x)"
            :y="py(reference.y) + (reference.isTop ? -10 : 20)"
            text-anchor="middle"
          >
            {{ reference.terminal }}
          </text>
          <LeadPin :lead="leadOf(reference.terminal)" :x="px(reference.x)" :y="py(reference.y)" />
        </g>
        <g v-for="mark in clampMarks.filter((m) => m.sheet === sheet.type)" :key="`c${mark.terminal}`" class="clamp">
          <rect :x="px(mark.x) - 5" :y="py(mark.y) - 5" width="10" height="10" />
          <text class="number" :x="px(mark.x) - 16" :y="py(mark.y) + 4" text-anchor="end">{{ mark.terminal }}</text>
          <LeadPin :lead="leadOf(mark.terminal)" :x="px(mark.x)" :y="py(mark.y)" />
          <ReadingTag :text="readingAt(mark.terminal)" :x="px(mark.x) - 84" :y="py(mark.y)" />
        </g>
        <template v-for="part in sheet.parts" :key="`t${part.device}${part.left}${part.top}`">
          <g
            v-for="terminal in part.terminals"
            :key="terminal.terminal"
            class="terminal"
            role="button"
            tabindex="0"
            :data-terminal="terminal.terminal"
            :aria-label="`terminal ${terminal.terminal}`"
            @click="emit('terminal', terminal.terminal)"
            @keydown.enter.prevent="emit('terminal', terminal.terminal)"
          >
            <circle class="hit" :cx="px(terminal.x)" :cy="py(terminal.y)" r="22" />
            <circle class="screw" :cx="px(terminal.x)" :cy="py(terminal.y)" r="4.5" />
            <text
              class="number"
              :x="px(terminal.x) - 8"
              :y="py(terminal.y) + (terminal.y > part.y ? -2 : 11)"
              text-anchor="end"
            >
              {{ short(terminal.terminal) }}
            </text>
            <LeadPin :lead="leadOf(terminal.terminal)" :x="px(terminal.x)" :y="py(terminal.y)" />
            <ReadingTag :text="readingAt(terminal.terminal)" :x="px(terminal.x) - 40" :y="py(terminal.y)" />
          </g>
        </template>
      </svg>
    </figure>
  </div>
</template>

<style scoped>
.sheets {
  display: flex;
  gap: 0.5rem;
  align-items: flex-start;
}
figure {
  margin: 0;
  flex: 0 1 auto;
  min-width: 0;
}
figcaption {
  font:
    600 0.9rem 'Barlow Semi Condensed',
    sans-serif;
  color: var(--faint);
}
svg {
  display: block;
  max-width: 100%;
  height: auto;
}
@media (max-width: 700px) {
  .sheets {
    flex-direction: column;
  }
  /* A thumb needs the drawing at its full size; it scrolls in its own frame. */
  figure {
    max-width: 100%;
    overflow-x: auto;
  }
  svg {
    max-width: none;
  }
}
.wire,
.symbol :deep(path),
.symbol :deep(rect),
.symbol :deep(circle) {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-linejoin: round;
}
.symbol :deep(.hollow) {
  fill: var(--sheet);
}
.symbol :deep(.hollow + path) {
  stroke-width: 1;
}
.symbol :deep(.mechanical) {
  stroke-dasharray: 4 3;
  stroke-width: 1.2;
}
.symbol :deep(.letter) {
  font: 600 20px 'Barlow Semi Condensed';
  fill: var(--ink);
}
.symbol :deep(.small) {
  font-size: 13px;
}
.wire.live {
  stroke: var(--live);
  stroke-width: 3.2;
}
.spark {
  fill: none;
  stroke: var(--sheet);
  stroke-width: 1;
  stroke-dasharray: 7 5;
}
.halo {
  fill: none;
  stroke: var(--doubt);
  stroke-width: 13;
  stroke-linecap: round;
}
.suspect {
  fill: var(--doubt);
  rx: 8px;
}
.share {
  font: 600 14px 'Barlow Semi Condensed';
  fill: var(--doubt);
}
.tag {
  font: 600 14px 'Barlow Semi Condensed';
  fill: var(--ink);
}
.function {
  font: 11px 'Barlow';
  fill: var(--faint);
}
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
.wire-number {
  cursor: pointer;
}
.wire-number rect {
  fill: var(--sheet);
  stroke: none;
}
.wire-number text:not(.share) {
  font: 600 12px 'Barlow Semi Condensed';
  fill: var(--petrol);
}
</style>
