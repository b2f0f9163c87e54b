<script setup lang="ts">
import {
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
  type ChartDataset,
} from 'chart.js'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

export interface Curve {
  name: string
  points: { x: number; y: number }[]
  /** Drawn as single values rather than as a line. */
  isValues?: boolean
  isDashed?: boolean
  tone?: 'petrol' | 'live' | 'faint' | 'doubt'
}

/** Curves and values over time or over a quantity; the numbers stand in a table or a sentence beside it. */
const props = defineProps<{
  curves: Curve[]
  across: string
  up: string
  isTime?: boolean
  isLogarithmic?: boolean
  says: string
}>()
Chart.defaults.font.family = 'Barlow, sans-serif'
Chart.defaults.font.size = 13
Chart.register(LineController, LineElement, PointElement, LinearScale, LogarithmicScale, Tooltip, Legend, Filler)
const canvas = ref<HTMLCanvasElement>()
let chart: Chart<'line', { x: number; y: number }[]> | undefined

const colour = (name: string) => getComputedStyle(canvas.value!).getPropertyValue(`--${name}`).trim()
const day = (time: number) => new Date(time).toLocaleDateString('sv-SE')
const short = (value: number) => String(Number(value.toPrecision(3)))

function dataset(curve: Curve): ChartDataset<'line', { x: number; y: number }[]> {
  const tone = colour(curve.tone ?? 'petrol')
  return {
    label: curve.name,
    data: curve.points,
    borderColor: tone,
    backgroundColor: tone,
    borderWidth: curve.isValues ? 0 : 2,
    borderDash: curve.isDashed ? [6, 5] : undefined,
    pointRadius: curve.isValues ? 5 : 0,
    pointHitRadius: 12,
    showLine: !curve.isValues,
    pointStyle: curve.isValues ? 'circle' : 'line',
  }
}

function draw() {
  chart?.destroy()
  if (!canvas.value) return
  const ink = { color: colour('ink') }
  const grid = { color: colour('line') }
  const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
  chart = new Chart<'line', { x: number; y: number }[]>(canvas.value, {
    type: 'line',
    data: { datasets: props.curves.map(dataset) },
    options: {
      animation: still ? false : { duration: 200 },
      maintainAspectRatio: false,
      parsing: false,
      scales: {
        x: {
          type: props.isLogarithmic ? 'logarithmic' : 'linear',
          title: { display: !props.isTime, text: props.across, ...ink },
          ticks: {
            ...ink,
            maxTicksLimit: 6,
            maxRotation: 0,
            callback: (v) => (props.isTime ? day(Number(v)) : short(Number(v))),
          },
          grid,
        },
        y: {
          type: props.isLogarithmic ? 'logarithmic' : 'linear',
          title: { display: true, text: props.up, ...ink },
          ticks: { ...ink, callback: (v) => short(Number(v)) },
          grid,
        },
      },
      plugins: {
        legend: { labels: { ...ink, usePointStyle: true, boxHeight: 7 } },
        tooltip: {
          callbacks: {
            title: (items) => items.map((i) => (props.isTime ? day(i.parsed.x!) : short(i.parsed.x!))).join(),
            label: (i) => `${i.dataset.label}: ${short(i.parsed.y!)} ${props.up}`,
          },
        },
      },
    },
  })
}
onMounted(draw)
watch(() => props.curves, draw, { deep: true })
onBeforeUnmount(() => chart?.destroy())
</script>

<template>
  <div class="plot"><canvas ref="canvas" role="img" :aria-label="says" /></div>
</template>

<style scoped>
.plot {
  position: relative;
  height: 15rem;
  min-width: 0;
}
</style>
