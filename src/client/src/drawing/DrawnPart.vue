<script setup lang="ts">
import { computed } from 'vue'
import type { Circuit, Schemas } from '@/api/client'
import { symbolOf } from '@/symbols'
import LadderDevice from './LadderDevice.vue'
import LadderSymbol from './LadderSymbol.vue'
import { percent } from '@/components/format'
import type { PlacedPart, School } from './plane'

// One part of a sheet: its symbol, what it is called, what it does now, and how far it is suspected.
const props = defineProps<{
  part: PlacedPart
  circuit: Circuit
  school: School
  /** It lies along a rung. */
  isLadder: boolean
  /** Share of the suspects that sit in it, 0 to 1. */
  share: number
  /** It stands for the whole device: what is seen of the device is written here. */
  isWhole: boolean
  operation?: Schemas['OperationView']
  tappable?: 'operable' | 'all'
  marked?: string
}>()
const emit = defineEmits<{ part: [device: string, part: string] }>()

const device = computed(() => props.circuit.devices.find((d) => d.tag === props.part.device))
const edge = computed(() => Math.max(...props.part.xs))
const made = computed(() => props.operation?.made[`${props.part.device}:${props.part.name.split(',')[0]}`])
const seen = computed(() =>
  props.isWhole || props.part.kind === 'motor' ? props.operation?.seen[props.part.device] : undefined,
)
const isActive = computed(() =>
  /^(in|on|flashes|dim|runs|heats|timing|lifted|run|good|DC OK|buzzes|chatters|hums)/.test(seen.value ?? ''),
)
const isOperable = computed(
  () =>
    props.tappable === 'all' ||
    (props.tappable === 'operable' && (device.value?.actuations.some((a) => !a.deadOnly) ?? false)),
)
const isHeld = computed(() => {
  const position = props.operation?.positions[props.part.device]
  return (
    position !== undefined &&
    position !== device.value?.rest &&
    !!device.value?.actuations.some((a) => a.position === position)
  )
})

/** A text in lines that fit between two branches. */
function lines(text: string): string[] {
  const found: string[] = []
  for (const word of text.split(' ')) {
    if (found.length && `${found.at(-1)} ${word}`.length <= 21) found[found.length - 1] += ` ${word}`
    else if (word) found.push(word)
  }
  return found.slice(0, 3)
}
const isInPanel = computed(
  () => props.circuit.locations.find((l) => l.name === props.part.location)?.type === 'enclosure',
)
const functionLines = computed(() => lines(props.part.function))
const under = computed(() => [
  ...functionLines.value,
  ...(isInPanel.value ? [] : lines(props.part.location).slice(0, 1)),
])
</script>

<template>
  <g :transform="`translate(${part.left} ${part.top})`">
    <rect
      v-if="share > 0.02"
      class="suspect"
      :x="isLadder ? 2 : -26"
      :y="isLadder ? -17 : 2"
      :width="isLadder ? part.length - 4 : edge + 52"
      :height="isLadder ? 34 : part.length - 4"
      :style="{ opacity: 0.2 + 0.5 * share }"
    />
    <rect
      v-if="isOperable"
      class="operable"
      :class="{ quiet: tappable === 'all', held: isHeld, marked: marked === part.text || marked === part.device }"
      :x="isLadder ? 6 : -30"
      :y="isLadder ? -22 : 6"
      :width="isLadder ? part.length - 12 : edge + 60"
      :height="isLadder ? 44 : part.length - 12"
      rx="4"
      role="button"
      tabindex="0"
      :data-part="part.text"
      :aria-label="`${part.device} ${part.function} ${part.name}`"
      @click="emit('part', part.device, part.text)"
      @keydown.enter.prevent="emit('part', part.device, part.text)"
    />
    <g class="symbol" :class="{ active: isActive }">
      <LadderDevice
        v-if="isLadder && part.element === ''"
        :shape="part.ladder"
        :letters="part.letters"
        :rows="part.rows"
        :length="part.length"
      />
      <template v-else-if="school === 'ladder' && part.element !== '' && part.kind !== 'heater-bank'">
        <g
          v-for="at in isLadder ? part.rows : part.xs"
          :key="at"
          :transform="isLadder ? `translate(0 ${at})` : `translate(${at} 0) rotate(90)`"
        >
          <LadderSymbol :shape="part.ladder" :role="part.element" :length="part.length" :made="made" />
        </g>
      </template>
      <component
        :is="symbolOf(part.kind)"
        v-else
        :xs="part.xs"
        :height="part.length"
        :role="part.element"
        :name="part.name"
        :delayed="part.isDelayed"
        :made="made"
      />
    </g>
    <template v-if="isLadder">
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
      <text v-if="seen" class="seen" :x="part.length / 2 + 17" y="-8">{{ seen }}</text>
      <text v-if="share > 0.02" class="share" :x="part.length / 2 + 22" y="-19">{{ percent(share) }}</text>
    </template>
    <template v-else>
      <text class="tag" :x="edge + 26" :y="part.length / 2 + 4">{{ part.device }}</text>
      <text
        v-for="(line, i) in part.xs.length === 1 ? under : []"
        :key="i"
        :class="i < functionLines.length ? 'function' : 'place'"
        :x="edge + 26"
        :y="part.length / 2 + 17 + 11 * i"
      >
        {{ line }}
      </text>
      <text v-if="seen" class="seen" :x="edge + 26" :y="part.length / 2 - 10">{{ seen }}</text>
      <text v-if="share > 0.02" class="share" :x="edge + 26" :y="part.length / 2 - 10">{{ percent(share) }}</text>
    </template>
  </g>
</template>

<style scoped>
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
</style>
