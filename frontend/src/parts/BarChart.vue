<script setup lang="ts">
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js'
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'

import { hatchOf, type Ink } from './hatch'

const props = defineProps<{
  /** What each bar stands for. */
  labels: string[]
  /** The pieces that are stacked in each bar. */
  bars: Bars[]
  /** What the picture shows, in words; its numbers stand in a table beside it. */
  said: string
  /** Whether the bars lie. */
  lying?: boolean
}>()

Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale, Tooltip)

export interface Bars {
  name: string
  ink: Ink
  values: number[]
}
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
let chart: Chart<'bar'> | null = null

const data = () => ({
  labels: props.labels,
  datasets: props.bars.map((one) => ({
    label: one.name,
    data: one.values,
    backgroundColor: hatchOf(one.ink),
    borderColor: '#1d2a33',
    borderWidth: 0.6,
    maxBarThickness: 26,
  })),
})

onMounted(() => {
  if (!canvas.value) return
  const font = { family: 'Andika', size: 13 }
  const counted = { stacked: true, ticks: { font, color: '#1d2a33', precision: 0 }, grid: { color: '#dfe7ea' } }
  const named = { stacked: true, ticks: { font, color: '#1d2a33' }, grid: { display: false } }
  chart = new Chart(canvas.value, {
    type: 'bar',
    data: data(),
    options: {
      animation: false,
      maintainAspectRatio: false,
      indexAxis: props.lying ? 'y' : 'x',
      scales: props.lying ? { x: counted, y: named } : { x: named, y: counted },
      plugins: {
        legend: { labels: { font, color: '#1d2a33', boxWidth: 22 } },
        tooltip: { titleFont: font, bodyFont: font },
      },
    },
  })
})
watch(
  () => [props.labels, props.bars],
  () => {
    if (!chart) return
    chart.data = data()
    chart.update()
  },
  { deep: true },
)
onBeforeUnmount(() => chart?.destroy())
</script>

<template>
  <div class="chart" :class="{ lying }" :style="{ '--bars': labels.length }">
    <canvas ref="canvas" role="img" :aria-label="said"></canvas>
  </div>
</template>

<style scoped>
.chart {
  position: relative;
  height: 210px;
  width: 100%;
}
.lying {
  height: calc(70px + 36px * var(--bars));
}
@media print {
  .chart {
    max-width: 17cm;
  }
}
</style>
