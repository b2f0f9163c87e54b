<script setup lang="ts">
import { computed } from 'vue'
import type { Circuit, Schemas } from '@/api/client'
import { useSettings } from '@/composables/useSettings'
import DrawingFrame from './DrawingFrame.vue'
import DrawnNumbers from './DrawnNumbers.vue'
import DrawnPart from './DrawnPart.vue'
import DrawnStubs from './DrawnStubs.vue'
import DrawnTerminals from './DrawnTerminals.vue'
import DrawnWires from './DrawnWires.vue'
import { placed, Plane } from './plane'
import { download, svgFile } from './saveSvg'
import { shareOf, sharesOfWires, standsForAll, type Suspicion } from './suspicionShares'

const props = defineProps<{
  circuit: Circuit
  lead1?: string
  lead2?: string
  suspicion?: Suspicion
  /** Readings shown at their terminals. */
  readings?: { terminal: string; text: string }[]
  lifted?: string[]
  /** What the circuit is doing: contacts, coils, motors as they are at this moment. */
  operation?: Schemas['OperationView']
  /** Which parts can be tapped as a whole. */
  tappable?: 'operable' | 'all'
  /** It stands in a window of fixed size and goes to the leads, or to these terminals. */
  isViewport?: boolean
  attention?: string[]
  /** Whether idle branches are folded away; absent where that is not offered. */
  folding?: 'folded' | 'open' | undefined
  /** Device or part that is being worked on. */
  marked?: string
}>()
const emit = defineEmits<{
  fold: []
  terminal: [terminal: string]
  wire: [wire: string]
  part: [device: string, part: string]
}>()

const { school } = useSettings()
const sheets = computed(() =>
  props.circuit.sheets.map((sheet) => {
    const plane = new Plane(sheet, school.value)
    return { sheet, plane, parts: sheet.parts.map((part) => placed(plane, part)) }
  }),
)
const leads = computed(() => props.attention ?? [props.lead1, props.lead2].filter((t): t is string => !!t))
const suspicion = computed(() => props.suspicion ?? {})
const wireShares = computed(() => sharesOfWires(props.circuit, suspicion.value))
const liftedWires = computed(
  () => new Set(props.circuit.conductors.filter((c) => props.lifted?.includes(c.id)).map((c) => c.wire)),
)
const live = computed(() => new Set(props.operation?.liveWires ?? []))

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
  <DrawingFrame
    v-slot="{ scale }"
    :shown="leads"
    :is-viewport="isViewport"
    :folding="folding"
    :drawn="circuit.sheets"
    @fold="emit('fold')"
  >
    <figure
      v-for="{ sheet, plane, parts } in sheets"
      :key="sheet.type"
      :class="{ free: isViewport }"
      :style="{ '--natural': plane.width }"
    >
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
        :viewBox="`0 0 ${plane.width} ${plane.height}`"
        :width="plane.width * scale"
        :height="plane.height * scale"
        role="group"
        :aria-label="`${sheet.type} circuit of ${circuit.tag}; tap a terminal to put a lead on it`"
      >
        <DrawnStubs :sheet="sheet" :plane="plane" />
        <DrawnWires :sheet="sheet" :plane="plane" :shares="wireShares" :live="live" />
        <DrawnPart
          v-for="part in parts"
          :key="part.device + part.element + part.left + part.top"
          :part="part"
          :circuit="circuit"
          :school="school"
          :is-ladder="plane.isLadder"
          :share="shareOf(circuit, part, suspicion)"
          :is-whole="standsForAll(circuit, part)"
          :operation="operation"
          :tappable="tappable"
          :marked="marked"
          @part="(device, text) => emit('part', device, text)"
        />
        <DrawnNumbers
          :sheet="sheet"
          :plane="plane"
          :parts="parts"
          :shares="wireShares"
          :lifted="liftedWires"
          @wire="emit('wire', $event)"
        />
        <DrawnTerminals
          :circuit="circuit"
          :sheet="sheet"
          :plane="plane"
          :parts="parts"
          :lead1="lead1"
          :lead2="lead2"
          :readings="readings ?? []"
          :is-crowded="!!tappable"
          @terminal="emit('terminal', $event)"
        />
      </svg>
    </figure>
  </DrawingFrame>
</template>

<style scoped>
.save {
  min-height: 32px;
  min-width: 40px;
  border: 0;
  border-radius: 3px;
  background: var(--sheet);
  color: var(--petrol);
  font: inherit;
  cursor: pointer;
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
  /* A reading's tag may stand beside the leftmost column. */
  overflow: visible;
}
@media (max-width: 700px) {
  /* A thumb needs the drawing at its full size; it scrolls in its own frame. */
  figure:not(.free) {
    flex: none;
    max-width: 100%;
    min-width: 0;
    overflow-x: auto;
  }
  svg {
    max-width: none;
  }
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
</style>
