<script setup lang="ts">
import { computed } from 'vue'
import type { Circuit, Schemas } from '@/api/client'
import { useSettings } from '@/composables/useSettings'
import DrawingFrame from './DrawingFrame.vue'
import DrawnPart from './DrawnPart.vue'
import LeadPin from './LeadPin.vue'
import { percent, placed, Plane, type Part, type Sheet } from './plane'
import ReadingTag from './ReadingTag.vue'
import { download, svgFile } from './saveSvg'

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
  /** What the circuit is doing: contacts, coils, motors as they are at this moment. */
  operation?: Schemas['OperationView']
  /** Which parts can be tapped as a whole. */
  tappable?: 'operable' | 'all'
  /** Device or part that is being worked on. */
  marked?: string
}>()
const emit = defineEmits<{ terminal: [terminal: string]; wire: [wire: string]; part: [device: string, part: string] }>()

const { school } = useSettings()
const sheets = computed(() =>
  props.circuit.sheets.map((sheet) => {
    const plane = new Plane(sheet, school.value)
    return { ...sheet, plane, parts: sheet.parts.map((part) => placed(plane, part)) }
  }),
)

/** Share of the suspects that sit in this part; what concerns the whole device shades its first part with a load, or all. */
function shareOf(part: Part): number {
  let share = 0
  for (const [at, probability] of Object.entries(props.suspicion ?? {})) {
    if (at === `${part.device}:`) share += wholeIn(part) ? probability : 0
    else if (at.split(' ').every((t) => part.terminals.some((x) => x.terminal === t))) share += probability
  }
  return share
}

function wholeIn(part: Part): boolean {
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

const isLive = (wire: string) =>
  props.operation ? (props.operation.wires[wire] ?? 0) > 10 : (props.liveWires?.[wire] ?? 0) > 25
const leadOf = (t: string) => (t === props.lead1 ? 1 : t === props.lead2 ? 2 : 0)
const readingAt = (t: string) => props.readings?.find((r) => r.terminal === t)?.text
const short = (t: string) => t.slice(t.lastIndexOf(':') + 1)
const referenceWords = (r: Part['references'][number]) =>
  `${r.contact}  ${r.column === 0 ? 'spare' : `${r.sheet === 'power' ? 'P' : 'C'}${r.column}`}`

function columns(sheet: (typeof sheets.value)[number]) {
  const at = new Map(sheet.parts.map((p) => [p.column, p.x]))
  return [...at].map(([column, x]) => ({ column, x }))
}

type Coupling = Sheet['couplings'][number]
const isSideBySide = (c: Coupling) => c.fromY === c.toY
function couplingPath(plane: Plane, c: Coupling): string {
  const [fromX, fromY] = [plane.x(c.fromX, c.fromY), plane.y(c.fromX, c.fromY)]
  const [toX, toY] = [plane.x(c.toX, c.toY), plane.y(c.toX, c.toY)]
  return isSideBySide(c) ? `M${fromX} ${fromY} L${toX} ${toY}` : `M${fromX} ${fromY} h26 M${toX} ${toY} h-26`
}

function save(event: Event, type: string) {
  const svg = (event.currentTarget as Element).closest('figure')!.querySelector<SVGSVGElement>('svg.drawing')!
  download(
    `${props.circuit.tag}-${type}.svg`,
    'image/svg+xml',
    svgFile(svg, `${props.circuit.tag} ${props.circuit.title}: ${type} circuit`),
  )
}
</script>

<template>
  <DrawingFrame v-slot="{ scale }" :shown="lead1">
    <figure v-for="sheet in sheets" :key="sheet.type" :style="{ '--natural': sheet.plane.width }">
      <figcaption>
        {{ sheet.type === 'power' ? 'Power circuit' : 'Control circuit' }}
        <button
          type="button"
          class="save no-print"
          :aria-label="`Save the ${sheet.type} circuit as SVG`"
          @click="save($event, sheet.type)"
        >
          <i class="pi pi-download" /> SVG
        </button>
      </figcaption>
      <svg
        class="drawing"
        :viewBox="`0 0 ${sheet.plane.width} ${sheet.plane.height}`"
        :width="sheet.plane.width * scale"
        :height="sheet.plane.height * scale"
        role="group"
        :aria-label="`${sheet.type} circuit of ${circuit.tag}; tap a terminal to put a lead on it`"
      >
        <g v-for="(wire, i) in sheet.wires" :key="`w${i}`">
          <path
            v-if="(wireShare[wire.wire] ?? 0) > 0.02"
            class="halo"
            :style="{ opacity: 0.25 + 0.6 * wireShare[wire.wire]! }"
            :d="sheet.plane.path(wire.points)"
          />
          <path class="wire" :class="{ live: isLive(wire.wire) }" :d="sheet.plane.path(wire.points)" />
          <path v-if="isLive(wire.wire)" class="spark" :d="sheet.plane.path(wire.points)" />
        </g>
        <g v-for="c in sheet.couplings" :key="`k${c.from}${c.to}`">
          <path class="coupling" :d="couplingPath(sheet.plane, c)" />
          <!-- Only contactors side by side are joined by a line; elsewhere each end says what it is coupled to. -->
          <template v-if="!isSideBySide(c)">
            <text class="coupled" :x="sheet.plane.x(c.fromX, c.fromY) + 30" :y="sheet.plane.y(c.fromX, c.fromY) + 4">
              with {{ c.to }}
            </text>
            <text
              class="coupled"
              :x="sheet.plane.x(c.toX, c.toY) - 30"
              :y="sheet.plane.y(c.toX, c.toY) + 4"
              text-anchor="end"
            >
              with {{ c.from }}
            </text>
          </template>
        </g>
        <text
          v-for="c in sheet.plane.referenceLines ? columns(sheet) : []"
          :key="`n${c.column}`"
          class="column"
          :x="sheet.plane.isLadder ? 4 : sheet.plane.x(c.x, 0)"
          :y="sheet.plane.isLadder ? sheet.plane.y(c.x, 0) + 4 : 10"
          text-anchor="middle"
        >
          {{ c.column }}
        </text>
        <DrawnPart
          v-for="part in sheet.parts"
          :key="part.device + part.element + part.left + part.top"
          :part="part"
          :circuit="circuit"
          :school="school"
          :is-ladder="sheet.plane.isLadder"
          :share="shareOf(part)"
          :is-whole="wholeIn(part)"
          :operation="operation"
          :tappable="tappable"
          :marked="marked"
          @part="(device, text) => emit('part', device, text)"
        />
        <g
          v-for="part in sheet.parts.filter((p) => p.references.length)"
          :key="`x${part.device}${part.left}`"
          class="cross"
        >
          <template v-if="sheet.plane.isLadder">
            <text
              v-for="(reference, i) in part.references"
              :key="reference.contact"
              :x="sheet.plane.width - 120"
              :y="part.top - 8 + 12 * i"
            >
              {{ referenceWords(reference) }}
            </text>
          </template>
          <template v-else>
            <text
              v-for="(reference, i) in part.references"
              :key="reference.contact"
              :x="part.left"
              :y="sheet.plane.height - (sheet.plane.referenceLines - i) * 13 + 6"
              text-anchor="middle"
            >
              {{ referenceWords(reference) }}
            </text>
          </template>
        </g>
        <g v-for="(wire, i) in sheet.wires.filter((w) => w.label)" :key="`l${i}`">
          <g
            class="wire-number"
            role="button"
            tabindex="-1"
            :data-wire="wire.wire"
            :aria-label="`wire ${wire.wire}: show its route`"
            :transform="sheet.plane.at(wire.label!.x, wire.label!.y)"
            @click="emit('wire', wire.wire)"
          >
            <rect
              :x="sheet.plane.isLadder ? -12 : 3"
              :y="sheet.plane.isLadder ? -20 : -9"
              :width="sheet.plane.isLadder ? 24 : 30"
              height="18"
              rx="2"
            />
            <text :x="sheet.plane.isLadder ? 0 : 18" :y="sheet.plane.isLadder ? -6 : 4" text-anchor="middle">
              {{ wire.wire }}{{ liftedWires.has(wire.wire) ? ' ⤒' : '' }}
            </text>
            <text
              v-if="sheet.type === 'control' && (wireShare[wire.wire] ?? 0) > 0.02"
              class="share"
              :x="sheet.plane.isLadder ? 14 : 36"
              y="5"
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
          :transform="sheet.plane.at(reference.x, reference.y)"
          @click="emit('terminal', reference.terminal)"
          @keydown.enter.prevent="emit('terminal', reference.terminal)"
        >
          <rect class="hit" x="-22" y="-30" width="44" height="36" />
          <path
            v-if="!sheet.plane.isLadder"
            class="flag"
            :d="`M0 0 m-5 ${reference.isTop ? -6 : 6} l5 ${reference.isTop ? 6 : -6} l5 ${reference.isTop ? -6 : 6}`"
          />
          <path v-else class="flag" d="M0 -5 v10" />
          <text class="ref" x="0" :y="sheet.plane.isLadder ? 18 : reference.isTop ? -10 : 20" text-anchor="middle">
            {{ reference.terminal }}
          </text>
          <LeadPin :lead="leadOf(reference.terminal)" :x="0" :y="0" />
        </g>
        <g
          v-for="mark in clampMarks.filter((m) => m.sheet === sheet.type)"
          :key="`c${mark.terminal}`"
          class="clamp"
          :data-terminal="mark.terminal"
          :transform="sheet.plane.at(mark.x, mark.y)"
        >
          <rect x="-5" y="-5" width="10" height="10" />
          <text class="number" x="-16" y="4" text-anchor="end">{{ mark.terminal }}</text>
          <LeadPin :lead="leadOf(mark.terminal)" :x="0" :y="0" />
          <ReadingTag :text="readingAt(mark.terminal)" :x="-84" :y="0" />
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
            :transform="sheet.plane.at(terminal.x, terminal.y)"
            @click="emit('terminal', terminal.terminal)"
            @keydown.enter.prevent="emit('terminal', terminal.terminal)"
          >
            <circle class="hit" :r="tappable ? 10 : 22" />
            <circle class="screw" r="4.5" />
            <text
              class="number"
              :x="sheet.plane.isLadder ? (terminal.y > part.y ? -2 : 2) : -8"
              :y="sheet.plane.isLadder ? 17 : terminal.y > part.y ? -2 : 11"
              :text-anchor="sheet.plane.isLadder ? (terminal.y > part.y ? 'end' : 'start') : 'end'"
            >
              {{ short(terminal.terminal) }}
            </text>
            <LeadPin :lead="leadOf(terminal.terminal)" :x="0" :y="0" />
            <ReadingTag
              :text="readingAt(terminal.terminal)"
              :x="sheet.plane.isLadder ? 0 : -40"
              :y="sheet.plane.isLadder ? 28 : 0"
            />
          </g>
        </template>
      </svg>
    </figure>
  </DrawingFrame>
</template>

<style scoped>
.save {
  min-height: 40px;
  min-width: 40px;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
.save {
  min-height: 32px;
  border: 0;
  color: var(--petrol);
}
/* Fitted to the window, but never smaller than can be read: then it scrolls. */
figure {
  margin: 0;
  flex: 1 1 calc(var(--natural) * 0.82px);
  min-width: calc(var(--natural) * 0.82px);
  max-width: calc(var(--natural) * 1px);
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
  /* A thumb needs the drawing at its full size; it scrolls in its own frame. */
  figure {
    flex: none;
    max-width: 100%;
    min-width: 0;
    overflow-x: auto;
  }
  svg {
    max-width: none;
  }
}
.wire {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-linejoin: round;
}
.coupling {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 5 3 1 3;
}
.column,
.cross text {
  font: 600 11px 'Barlow Semi Condensed';
  fill: var(--faint);
}
@media print {
  @page {
    size: landscape;
  }
  figure {
    min-width: 0;
    break-inside: avoid;
  }
  svg {
    max-width: 100%;
    max-height: 17cm;
  }
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
.share {
  font: 600 14px 'Barlow Semi Condensed';
  fill: var(--doubt);
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
.coupled {
  font: 600 11px 'Barlow Semi Condensed';
  fill: var(--faint);
}
</style>
