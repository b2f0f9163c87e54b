<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Circuit, Schemas } from '@/api/client'
import { useSettings } from '@/composables/useSettings'
import { symbolOf } from '@/symbols'
import LadderDevice from './LadderDevice.vue'
import LadderSymbol from './LadderSymbol.vue'
import LeadPin from './LeadPin.vue'
import ReadingTag from './ReadingTag.vue'
import { download, svgFile } from './saveSvg'

type Part = Circuit['sheets'][number]['parts'][number]

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
const margin = 26
/** 0: fitted, but never smaller than can be read; -1: all of it in the window. */
const zoom = ref(0)
const frame = ref<HTMLElement>()

/** A sheet's own axes: a ladder is the control sheet with its axes exchanged. */
class Plane {
  readonly isLadder: boolean
  constructor(readonly sheet: Circuit['sheets'][number]) {
    this.isLadder = school.value === 'ladder' && sheet.type === 'control'
  }
  x = (x: number, y: number) => (this.isLadder ? y * 38 + margin + 14 : x * 46 + margin)
  y = (x: number, y: number) => (this.isLadder ? x * 24 + 6 : y * 26 + 14)
  get referenceLines() {
    return Math.max(0, ...this.sheet.parts.map((p) => p.references.length))
  }
  get width() {
    return this.isLadder
      ? this.sheet.height * 38 + margin + (this.referenceLines ? 150 : 20)
      : this.sheet.width * 46 + margin + 34
  }
  get height() {
    return this.isLadder ? this.sheet.width * 24 + 20 : this.sheet.height * 26 + 24 + this.referenceLines * 13
  }
}

const sheets = computed(() =>
  props.circuit.sheets.map((sheet) => {
    const plane = new Plane(sheet)
    return {
      ...sheet,
      plane,
      parts: sheet.parts.map((part) => ({
        ...part,
        xs: [...new Set(part.terminals.map((t) => (t.x - part.x) * 46))],
        // Rows that a part with several poles takes in a ladder.
        rows: [...new Set(part.terminals.map((t) => (t.x - part.x) * 24))],
        left: plane.x(part.x, part.y),
        top: plane.y(part.x, part.y),
        // Along the current: down the page, or along the rung.
        length: part.height * (plane.isLadder ? 38 : 26),
        share: shareOf(part),
        text: textOf(part),
      })),
    }
  }),
)

/** The part as its path writes it. */
const textOf = (part: Part) => `${part.device}:${part.name}`

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

const path = (plane: Plane, points: { x: number; y: number }[]) =>
  'M' + points.map((p) => `${plane.x(p.x, p.y)} ${plane.y(p.x, p.y)}`).join('L')
const percent = (share: number) => `${Math.round(share * 100)} %`
const isLive = (wire: string) =>
  props.operation ? (props.operation.wires[wire] ?? 0) > 10 : (props.liveWires?.[wire] ?? 0) > 25
const leadOf = (t: string) => (t === props.lead1 ? 1 : t === props.lead2 ? 2 : 0)
const readingAt = (t: string) => props.readings?.find((r) => r.terminal === t)?.text
const short = (t: string) => t.slice(t.lastIndexOf(':') + 1)
const device = (tag: string) => props.circuit.devices.find((d) => d.tag === tag)
const madeOf = (part: Part) =>
  props.operation ? props.operation.made[`${part.device}:${part.name.split(',')[0]}`] : undefined
/** What is seen of a device stands beside the part that shows it. */
const seenAt = (part: Part) =>
  props.operation && (wholeIn(part) || part.kind === 'motor') ? props.operation.seen[part.device] : undefined
const isActive = (part: Part) =>
  /^(in|on|flashes|dim|runs|heats|timing|lifted|run|good|DC OK|buzzes|chatters|hums)/.test(seenAt(part) ?? '')
const isOperable = (part: Part) =>
  props.tappable === 'all' ||
  (props.tappable === 'operable' && (device(part.device)?.actuations.some((a) => !a.deadOnly) ?? false))
const isHeld = (part: Part) => {
  const d = device(part.device)
  const position = props.operation?.positions[part.device]
  return d && position !== undefined && d.actuations.some((a) => a.position === position) && position !== d.rest
}
/** A text in lines that fit between two branches. */
function lines(text: string): string[] {
  const found: string[] = []
  for (const word of text.split(' ')) {
    if (found.length && `${found.at(-1)} ${word}`.length <= 21) found[found.length - 1] += ` ${word}`
    else if (word) found.push(word)
  }
  return found.slice(0, 3)
}
const under = (part: Part) => [...lines(part.function), ...(isPanel(part) ? [] : lines(part.location).slice(0, 1))]
const isPanel = (part: Part) => props.circuit.locations.find((l) => l.name === part.location)?.type === 'enclosure'
const referenceWords = (r: Part['references'][number]) =>
  `${r.contact}  ${r.column === 0 ? 'spare' : `${r.sheet === 'power' ? 'P' : 'C'}${r.column}`}`

function columns(sheet: (typeof sheets.value)[number]) {
  const at = new Map(sheet.parts.map((p) => [p.column, p.x]))
  return [...at].map(([column, x]) => ({ column, x }))
}

function scaleBy(factor: number) {
  zoom.value = Math.min(4, Math.max(0.3, (zoom.value > 0 ? zoom.value : 1) * factor))
}

let grabbed: { x: number; y: number } | undefined
function grab(event: PointerEvent) {
  if (event.pointerType === 'mouse' && (event.target as Element).closest('.terminal, .wire-number, .operable') === null)
    grabbed = { x: event.clientX, y: event.clientY }
}
function drag(event: PointerEvent) {
  if (!grabbed || !frame.value) return
  frame.value.scrollBy(grabbed.x - event.clientX, grabbed.y - event.clientY)
  grabbed = { x: event.clientX, y: event.clientY }
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
  <div>
    <div class="tools no-print" role="toolbar" aria-label="Size of the drawing">
      <button type="button" aria-label="Smaller" @click="scaleBy(1 / 1.25)"><i class="pi pi-search-minus" /></button>
      <button type="button" aria-label="All of it" :aria-pressed="zoom < 0" @click="zoom = zoom < 0 ? 0 : -1">
        <i class="pi pi-window-maximize" />
      </button>
      <button type="button" aria-label="Larger" @click="scaleBy(1.25)"><i class="pi pi-search-plus" /></button>
      <label
        >Symbols
        <select v-model="school" aria-label="Symbols of the drawing">
          <option value="iec">IEC</option>
          <option value="ladder">Ladder</option>
        </select>
      </label>
    </div>
    <div
      ref="frame"
      class="sheets"
      :class="{ zoomed: zoom > 0, whole: zoom < 0 }"
      @pointerdown="grab"
      @pointermove="drag"
      @pointerup="grabbed = undefined"
      @pointerleave="grabbed = undefined"
    >
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
          :width="sheet.plane.width * (zoom > 0 ? zoom : 1)"
          :height="sheet.plane.height * (zoom > 0 ? zoom : 1)"
          role="group"
          :aria-label="`${sheet.type} circuit of ${circuit.tag}; tap a terminal to put a lead on it`"
        >
          <g v-for="(wire, i) in sheet.wires" :key="`w${i}`">
            <path
              v-if="(wireShare[wire.wire] ?? 0) > 0.02"
              class="halo"
              :style="{ opacity: 0.25 + 0.6 * wireShare[wire.wire]! }"
              :d="path(sheet.plane, wire.points)"
            />
            <path class="wire" :class="{ live: isLive(wire.wire) }" :d="path(sheet.plane, wire.points)" />
            <path v-if="isLive(wire.wire)" class="spark" :d="path(sheet.plane, wire.points)" />
          </g>
          <path
            v-for="c in sheet.couplings"
            :key="`k${c.from}${c.to}`"
            class="coupling"
            :d="`M${sheet.plane.x(c.fromX, c.fromY)} ${sheet.plane.y(c.fromX, c.fromY)} L${sheet.plane.x(c.toX, c.toY)} ${sheet.plane.y(c.toX, c.toY)}`"
          />
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
          <g
            v-for="part in sheet.parts"
            :key="part.device + part.element + part.left + part.top"
            :transform="`translate(${part.left} ${part.top})`"
          >
            <rect
              v-if="part.share > 0.02"
              class="suspect"
              :x="sheet.plane.isLadder ? 2 : -26"
              :y="sheet.plane.isLadder ? -17 : 2"
              :width="sheet.plane.isLadder ? part.length - 4 : Math.max(...part.xs) + 52"
              :height="sheet.plane.isLadder ? 34 : part.length - 4"
              :style="{ opacity: 0.2 + 0.5 * part.share }"
            />
            <rect
              v-if="isOperable(part)"
              class="operable"
              :class="{
                quiet: tappable === 'all',
                held: isHeld(part),
                marked: marked === part.text || marked === part.device,
              }"
              :x="sheet.plane.isLadder ? 6 : -30"
              :y="sheet.plane.isLadder ? -22 : 6"
              :width="sheet.plane.isLadder ? part.length - 12 : Math.max(...part.xs) + 60"
              :height="sheet.plane.isLadder ? 44 : part.length - 12"
              rx="4"
              role="button"
              tabindex="0"
              :data-part="part.text"
              :aria-label="`${part.device} ${part.function} ${part.name}`"
              @click="emit('part', part.device, part.text)"
              @keydown.enter.prevent="emit('part', part.device, part.text)"
            />
            <g class="symbol" :class="{ active: isActive(part) }">
              <LadderDevice
                v-if="sheet.plane.isLadder && part.element === ''"
                :kind="part.kind"
                :rows="part.rows"
                :length="part.length"
              />
              <template v-else-if="school === 'ladder' && part.element !== '' && part.kind !== 'heater-bank'">
                <g
                  v-for="at in sheet.plane.isLadder ? part.rows : part.xs"
                  :key="at"
                  :transform="sheet.plane.isLadder ? `translate(0 ${at})` : `translate(${at} 0) rotate(90)`"
                >
                  <LadderSymbol
                    :kind="part.kind"
                    :role="part.element"
                    :name="part.name"
                    :length="part.length"
                    :made="madeOf(part)"
                  />
                </g>
              </template>
              <component
                :is="symbolOf(part.kind)"
                v-else
                :xs="part.xs"
                :height="part.length"
                :role="part.element"
                :name="part.name"
                :made="madeOf(part)"
              />
            </g>
            <template v-if="sheet.plane.isLadder">
              <text class="tag" :x="part.length / 2" y="-19" text-anchor="middle">{{ part.device }}</text>
              <text
                v-if="part.function"
                class="function"
                :x="part.length / 2"
                :y="27 + Math.max(...part.rows)"
                text-anchor="middle"
              >
                {{ part.function }}
              </text>
              <text v-if="seenAt(part)" class="seen" :x="part.length / 2 + 17" y="-8">{{ seenAt(part) }}</text>
              <text v-if="part.share > 0.02" class="share" :x="part.length / 2 + 22" y="-19">
                {{ percent(part.share) }}
              </text>
            </template>
            <template v-else>
              <text class="tag" :x="Math.max(...part.xs) + 26" :y="part.length / 2 + 4">{{ part.device }}</text>
              <text
                v-for="(line, i) in part.xs.length === 1 ? under(part) : []"
                :key="i"
                :class="i < lines(part.function).length ? 'function' : 'place'"
                :x="Math.max(...part.xs) + 26"
                :y="part.length / 2 + 17 + 11 * i"
              >
                {{ line }}
              </text>
              <text v-if="seenAt(part)" class="seen" :x="Math.max(...part.xs) + 26" :y="part.length / 2 - 10">
                {{ seenAt(part) }}
              </text>
              <text v-if="part.share > 0.02" class="share" :x="Math.max(...part.xs) + 26" :y="part.length / 2 - 10">
                {{ percent(part.share) }}
              </text>
            </template>
          </g>
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
              :transform="`translate(${sheet.plane.x(wire.label!.x, wire.label!.y)} ${sheet.plane.y(wire.label!.x, wire.label!.y)})`"
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
            :transform="`translate(${sheet.plane.x(reference.x, reference.y)} ${sheet.plane.y(reference.x, reference.y)})`"
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
            :transform="`translate(${sheet.plane.x(mark.x, mark.y)} ${sheet.plane.y(mark.x, mark.y)})`"
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
              :transform="`translate(${sheet.plane.x(terminal.x, terminal.y)} ${sheet.plane.y(terminal.x, terminal.y)})`"
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
    </div>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  gap: 0.25rem;
  align-items: center;
}
.tools button,
.tools select,
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
.tools label {
  margin-left: 0.6rem;
}
.save {
  min-height: 32px;
  border: 0;
  color: var(--petrol);
}
.sheets {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: flex-start;
}
.sheets.whole {
  flex-wrap: nowrap;
}
.sheets.whole figure {
  flex: 0 1 auto;
  min-width: 0;
}
.sheets.zoomed {
  overflow: auto;
  max-height: 75vh;
  cursor: grab;
}
.sheets.zoomed figure {
  flex: none;
}
.sheets.zoomed svg {
  max-width: none;
}
.sheets {
  overflow-x: auto;
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
  .sheets {
    flex-flow: column nowrap;
  }
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
.symbol :deep(.bridge) {
  fill: var(--live);
  stroke: none;
}
.symbol.active :deep(.body) {
  fill: var(--live-fill);
  stroke-width: 2.6;
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
.place {
  font: italic 10px 'Barlow';
  fill: var(--faint);
}
.seen {
  font: 600 13px 'Barlow Semi Condensed';
  fill: var(--petrol);
}
.operable {
  fill: transparent;
  stroke: var(--petrol);
  stroke-width: 1;
  stroke-dasharray: 2 4;
  cursor: pointer;
}
.operable.quiet {
  stroke: none;
}
.operable:hover,
.operable:focus-visible {
  fill: var(--live-fill);
  stroke: var(--petrol);
  outline: none;
  stroke-dasharray: none;
  stroke-width: 2;
}
.operable.held {
  fill: var(--live-fill);
  stroke-dasharray: none;
  stroke-width: 2;
}
.operable.marked {
  stroke: var(--petrol);
  stroke-dasharray: none;
  stroke-width: 3;
}
@media print {
  @page {
    size: landscape;
  }
  .sheets {
    flex-direction: column;
    overflow: visible;
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
