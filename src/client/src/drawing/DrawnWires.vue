<script setup lang="ts">
import type { Plane, Sheet } from './plane'

// The wires of a sheet: live or dead, suspected or not, and what is coupled mechanically.
const props = defineProps<{ sheet: Sheet; plane: Plane; shares: Record<string, number>; live: Set<string> }>()

type Coupling = Sheet['couplings'][number]
const isSideBySide = (c: Coupling) => c.fromY === c.toY
function couplingPath(c: Coupling): string {
  const [fromX, fromY] = [props.plane.x(c.fromX, c.fromY), props.plane.y(c.fromX, c.fromY)]
  const [toX, toY] = [props.plane.x(c.toX, c.toY), props.plane.y(c.toX, c.toY)]
  return isSideBySide(c) ? `M${fromX} ${fromY} L${toX} ${toY}` : `M${fromX} ${fromY} h26 M${toX} ${toY} h-26`
}
</script>

<template>
  <g v-for="(wire, i) in sheet.wires" :key="`w${i}`">
    <path
      v-if="(shares[wire.wire] ?? 0) > 0.02"
      class="halo"
      :style="{ opacity: 0.25 + 0.6 * shares[wire.wire]! }"
      :d="plane.path(wire.points)"
    />
    <path class="wire" :class="{ live: live.has(wire.wire) }" :d="plane.path(wire.points)" />
    <path v-if="live.has(wire.wire)" class="spark" :d="plane.path(wire.points)" />
  </g>
  <g v-for="c in sheet.couplings" :key="`k${c.from}${c.to}`">
    <path class="coupling" :d="couplingPath(c)" />
    <!-- Only contactors side by side are joined by a line; elsewhere each end says what it is coupled to. -->
    <template v-if="!isSideBySide(c)">
      <text class="coupled" :x="plane.x(c.fromX, c.fromY) + 30" :y="plane.y(c.fromX, c.fromY) + 4"
        >with {{ c.to }}</text
      >
      <text class="coupled" :x="plane.x(c.toX, c.toY) - 30" :y="plane.y(c.toX, c.toY) + 4" text-anchor="end">
        with {{ c.from }}
      </text>
    </template>
  </g>
</template>

<style scoped>
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
.coupled {
  font: 600 11px 'Barlow Semi Condensed';
  fill: var(--faint);
}
</style>
