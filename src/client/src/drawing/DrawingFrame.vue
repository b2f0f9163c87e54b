<script setup lang="ts">
import Select from 'primevue/select'
import { computed, nextTick, ref, watch } from 'vue'
import { useSettings } from '@/composables/useSettings'
import DrawingOverview from './DrawingOverview.vue'
import { useViewport } from './useViewport'

// What is around the sheets: size, school, and moving about with the mouse. The sheets get the factor they are drawn with.
const { school } = useSettings()
const schools = [
  { id: 'iec', name: 'IEC' },
  { id: 'ladder', name: 'Ladder' },
]
/** 0: fitted, but never smaller than can be read; -1: all of it in the window. */
const zoom = ref(0)
const frame = ref<HTMLElement>()
const tools = ref<HTMLElement>()

const props = defineProps<{
  /** Terminals that are asked about: they are brought into the frame. */
  shown: string[]
  /** The frame is a window of fixed size that goes to what is asked about. */
  isViewport?: boolean
  /** What is drawn in it: when that changes it goes again to what is asked about. */
  drawn?: unknown
  /** Whether idle branches are folded away; absent where that is not offered. */
  folding?: 'folded' | 'open' | undefined
}>()
const emit = defineEmits<{ fold: [] }>()
const viewport = useViewport(
  frame,
  () => props.shown,
  () => !!props.isViewport,
  zoom,
  () => props.drawn,
  () => tools.value?.offsetHeight ?? 0,
)

/** On a wide drawing the point that is asked about is brought into the frame; what is in it already stays where it is. */
watch(
  () => props.shown[0],
  async (terminal) => {
    if (props.isViewport) return
    await nextTick()
    const box = frame.value?.getBoundingClientRect()
    const at =
      terminal && frame.value?.querySelector(`[data-terminal='${CSS.escape(terminal)}']`)?.getBoundingClientRect()
    if (!box || !at) return
    const calm = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    if (at.left < box.left + 40 || at.right > box.right - 40)
      frame.value!.scrollBy({ left: at.left - box.left - box.width / 2, behavior: calm ? 'instant' : 'smooth' })
  },
  { immediate: true, flush: 'post' },
)

function scaleBy(factor: number) {
  viewport.chosen.value = true
  zoom.value = Math.min(4, Math.max(0.3, (zoom.value > 0 ? zoom.value : 1) * factor))
  if (props.isViewport) void viewport.go()
}

const isFitted = computed(() => (props.isViewport ? !viewport.chosen.value : zoom.value < 0))
function fit() {
  if (!props.isViewport) return (zoom.value = zoom.value < 0 ? 0 : -1)
  viewport.chosen.value = false
  return viewport.go()
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
</script>

<template>
  <div :class="{ viewport: isViewport }">
    <div ref="tools" class="tools no-print" role="toolbar" aria-label="Size of the drawing">
      <button type="button" aria-label="Smaller" @click="scaleBy(1 / 1.25)"><i class="pi pi-search-minus" /></button>
      <button
        type="button"
        :aria-label="isViewport ? 'To the test' : 'All of it'"
        :aria-pressed="isFitted"
        @click="fit"
      >
        <i class="pi" :class="isViewport ? 'pi-bullseye' : 'pi-window-maximize'" />
      </button>
      <button type="button" aria-label="Larger" @click="scaleBy(1.25)"><i class="pi pi-search-plus" /></button>
      <button
        v-if="folding"
        type="button"
        class="fold"
        :aria-pressed="folding === 'folded'"
        :title="folding === 'folded' ? 'Show every branch' : 'Fold what neither a suspect nor the test touches'"
        @click="emit('fold')"
      >
        {{ folding === 'folded' ? 'Unfold all' : 'Fold the rest' }}
      </button>
      <Select
        v-model="school"
        :options="schools"
        option-value="id"
        option-label="name"
        aria-label="Symbols of the drawing"
      />
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
      <slot :scale="zoom > 0 ? zoom : 1" />
    </div>
    <DrawingOverview
      v-if="isViewport && !viewport.isWhole.value"
      v-bind="viewport.content.value"
      :points="viewport.points.value"
      :view="viewport.view.value"
      @go="viewport.moveTo"
    />
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  gap: 0.25rem;
  align-items: center;
}
.tools button {
  min-height: 40px;
  min-width: 40px;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
.tools .fold {
  padding: 0 0.6rem;
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
.sheets.whole :deep(figure) {
  flex: 0 1 auto;
  min-width: 0;
}
.sheets.zoomed {
  overflow: auto;
  max-height: 75vh;
  cursor: grab;
}
.sheets.zoomed :deep(figure) {
  flex: none;
}
.sheets.zoomed :deep(svg) {
  max-width: none;
}
.sheets {
  overflow-x: auto;
}
.viewport {
  position: relative;
  display: flex;
  flex-direction: column;
  height: 100%;
}
.viewport .tools {
  position: absolute;
  z-index: 1;
  left: 0;
  bottom: 0;
}
@media (max-width: 700px) {
  /* The window is small; the symbols are chosen on the circuit's page as well. */
  .viewport .tools .p-select {
    display: none;
  }
  /* What stands lowest can be moved out from under them. */
  .viewport .sheets {
    padding-bottom: 3rem;
  }
}
.viewport .sheets {
  flex: 1;
  min-height: 0;
  max-height: none;
  flex-wrap: nowrap;
  overflow: auto;
  overscroll-behavior: contain;
}
@media (max-width: 700px) {
  :not(.viewport) > .sheets {
    flex-flow: column nowrap;
  }
}
@media print {
  .sheets {
    flex-direction: column;
    overflow: visible;
  }
}
</style>
