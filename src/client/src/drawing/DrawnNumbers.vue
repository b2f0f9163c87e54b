<script setup lang="ts">
import { percent } from '@/components/format'
import type { PlacedPart, Plane, Sheet } from './plane'

// What is written beside a sheet's symbols: wire numbers, current paths, and where the contacts of a coil are.
const props = defineProps<{
  sheet: Sheet
  plane: Plane
  parts: PlacedPart[]
  shares: Record<string, number>
  lifted: Set<string>
}>()
const emit = defineEmits<{ wire: [wire: string] }>()

const referenceWords = (r: PlacedPart['references'][number]) =>
  `${r.contact}  ${r.column === 0 ? 'spare' : `${r.sheet === 'power' ? 'P' : 'C'}${r.column}`}`

function columns() {
  const at = new Map(props.parts.map((p) => [p.column, p.x]))
  return [...at].map(([column, x]) => ({ column, x }))
}
</script>

<template>
  <text
    v-for="c in plane.referenceLines ? columns() : []"
    :key="`n${c.column}`"
    class="column"
    :x="plane.isLadder ? 4 : plane.x(c.x, 0)"
    :y="plane.isLadder ? plane.y(c.x, 0) + 4 : 10"
    text-anchor="middle"
  >
    {{ c.column }}
  </text>
  <g v-for="part in parts.filter((p) => p.references.length)" :key="`x${part.device}${part.left}`" class="cross">
    <text
      v-for="(reference, i) in part.references"
      :key="reference.contact"
      :x="plane.isLadder ? plane.width - 120 : part.left"
      :y="plane.isLadder ? part.top - 8 + 12 * i : plane.height - (plane.referenceLines - i) * 13 + 6"
      :text-anchor="plane.isLadder ? 'start' : 'middle'"
    >
      {{ referenceWords(reference) }}
    </text>
  </g>
  <g
    v-for="(wire, i) in sheet.wires.filter((w) => w.label)"
    :key="`l${i}`"
    class="wire-number"
    role="button"
    tabindex="-1"
    :data-wire="wire.wire"
    :aria-label="`wire ${wire.wire}: show its route`"
    :transform="plane.at(wire.label!.x, wire.label!.y)"
    @click="emit('wire', wire.wire)"
  >
    <rect
      :x="plane.isLadder ? -12 : 3"
      :y="plane.isLadder ? -20 : -9"
      :width="plane.isLadder ? 24 : 30"
      height="18"
      rx="2"
    />
    <text :x="plane.isLadder ? 0 : 18" :y="plane.isLadder ? -6 : 4" text-anchor="middle">
      {{ wire.wire }}{{ lifted.has(wire.wire) ? ' ⤒' : '' }}
    </text>
    <text
      v-if="sheet.type === 'control' && (shares[wire.wire] ?? 0) > 0.02"
      class="share"
      :x="plane.isLadder ? 14 : 36"
      y="5"
    >
      {{ percent(shares[wire.wire]!) }}
    </text>
  </g>
</template>

<style scoped>
.column,
.cross text {
  font: 600 11px 'Barlow Semi Condensed';
  fill: var(--faint);
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
.share {
  font: 600 14px 'Barlow Semi Condensed';
  fill: var(--doubt);
}
</style>
