<script setup lang="ts">
/** A drawing that is larger than its window, small: its terminals, the leads, and the part that is in the window. */
defineProps<{
  width: number
  height: number
  points: { x: number; y: number; isLead: boolean }[]
  view: { x: number; y: number; width: number; height: number }
}>()
const emit = defineEmits<{ go: [x: number, y: number] }>()

function go(event: PointerEvent) {
  if (event.type === 'pointermove' && event.buttons === 0) return
  const svg = event.currentTarget as SVGSVGElement
  const box = svg.getBoundingClientRect()
  const { width, height } = svg.viewBox.baseVal
  emit('go', ((event.clientX - box.left) / box.width) * width, ((event.clientY - box.top) / box.height) * height)
}
</script>

<template>
  <svg
    class="overview no-print"
    :viewBox="`0 0 ${width} ${height}`"
    aria-hidden="true"
    @pointerdown="go"
    @pointermove="go"
  >
    <circle
      v-for="(p, i) in points"
      :key="i"
      :cx="p.x"
      :cy="p.y"
      :r="width * (p.isLead ? 0.022 : 0.007)"
      :class="{ lead: p.isLead }"
    />
    <rect :x="view.x" :y="view.y" :width="view.width" :height="view.height" :stroke-width="width * 0.008" />
  </svg>
</template>

<style scoped>
.overview {
  position: absolute;
  right: 0.6rem;
  bottom: 0.6rem;
  width: min(150px, 24%);
  max-height: 26%;
  background: color-mix(in srgb, var(--sheet) 92%, transparent);
  border: 1px solid var(--line);
  cursor: move;
  touch-action: none;
}
@media (max-width: 700px) {
  .overview {
    display: none;
  }
}
circle {
  fill: var(--faint);
}
.lead {
  fill: var(--lead-1);
}
rect {
  fill: none;
  stroke: var(--petrol);
}
</style>
