<script setup lang="ts">
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js'

/** A chart with its figures as a table beneath, for whoever cannot see it or wants the numbers. */
Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
)
const { config, label, head, rows, height = 220 } = defineProps<
  {
    config: ChartConfiguration<'bar' | 'line'>
    label: string
    head: readonly string[]
    rows: readonly (readonly (string | number)[])[]
    height?: number
  }
>()
const canvas = useTemplateRef('canvas')
let chart: Chart<'bar' | 'line'> | undefined

function draw() {
  chart?.destroy()
  if (!canvas.value) return
  const style = getComputedStyle(canvas.value),
    ink = style.getPropertyValue('--ink'),
    line = style.getPropertyValue('--line')
  Chart.defaults.font.family = style.getPropertyValue('--words')
  Chart.defaults.font.size = 13
  Chart.defaults.color = ink
  Chart.defaults.borderColor = line
  chart = new Chart(canvas.value, {
    ...config,
    options: { ...config.options, animation: false, responsive: true, maintainAspectRatio: false },
  })
}
onMounted(() => {
  draw()
  // Letters on a canvas stay in whatever face was there when they were drawn.
  void document.fonts.load('13px "Archivo Variable"').then(draw)
})
watch(() => config, draw)
onBeforeUnmount(() => chart?.destroy())
</script>

<template>
  <figure>
    <div :style="{ height: `${height}px` }"><canvas ref="canvas" role="img" :aria-label="label" /></div>
    <details>
      <summary class="small">Its figures</summary>
      <div class="scroll" tabindex="0" role="region" :aria-label="`Figures: ${label}`">
        <table class="small">
          <thead><tr><th v-for="h in head" :key="h" scope="col">{{ h }}</th></tr></thead>
          <tbody>
            <tr v-for="(row, i) in rows" :key="i">
              <td v-for="(cell, j) in row" :key="j" :class="{ num: j > 0 }">{{ cell }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </figure>
</template>

<style scoped>
canvas { max-width: 100%; }
summary { padding: 6px 0; cursor: pointer; min-height: 28px; color: var(--action); }
.scroll { max-height: 260px; overflow: auto; }
table { border-collapse: collapse; }
th, td { text-align: left; padding: 4px 16px 4px 0; border-bottom: 1px solid var(--line); }
</style>
