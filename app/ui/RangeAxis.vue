<script setup lang="ts">
import { useWidth } from '~/ui/width'

/**
 * Ranges on one axis, above the bands in which they would be right. Used for ratios and for what comes of the water.
 */
export interface Bar {
  readonly id: string
  readonly label: string
  readonly low: number
  readonly value: number
  readonly high: number
  readonly note?: string
  readonly strong?: boolean
}
export interface Band {
  readonly id: string
  readonly label: string
  readonly low: number
  readonly high: number
  readonly mark?: number
}

const { bars, bands, from, to, ticks, write, title } = defineProps<{
  title: string
  bars: readonly Bar[]
  bands: readonly Band[]
  from: number
  to: number
  ticks: readonly number[]
  write: (x: number) => string
}>()
const box = ref<HTMLElement>()
const measured = useWidth(box)
const width = computed(() => Math.max(320, measured.value))
const narrow = computed(() => width.value < 560)
const LEFT = computed(() => narrow.value ? 12 : 250), RIGHT = 18
const BAND = 20, BAR = computed(() => narrow.value ? 46 : 30)
const top = computed(() => bands.length * BAND + 30)
const height = computed(() => top.value + bars.length * BAR.value + 8)
const x = (v: number) =>
  LEFT.value
  + (width.value - LEFT.value - RIGHT) * Math.log(Math.max(from, Math.min(to, v)) / from) / Math.log(to / from)
/** Whether a band's name has room beside it, at about seven units a letter. */
const fitsRight = (b: Band) => x(b.high) + 5 + 7 * b.label.length < width.value
const spoken = computed(() =>
  `${title} ${bars.map(b => `${b.label}: ${write(b.low)} to ${write(b.high)}`).join('; ')}. Right where: ${
    bands.map(b => `${b.label} ${write(b.low)} to ${write(b.high)}`).join('; ')
  }.`,
)
</script>

<template>
  <div ref="box" class="axis">
    <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="spoken">
      <g v-for="(b, i) in bands" :key="b.id">
        <rect
          :x="x(b.low)"
          :y="i * BAND + 2"
          :width="Math.max(3, x(b.high) - x(b.low))"
          :height="BAND - 5"
          rx="4"
          class="band" />
        <line v-if="b.mark" :x1="x(b.mark)" :x2="x(b.mark)" :y1="i * BAND + 1" :y2="i * BAND + BAND - 2" class="mark" />
        <text v-if="!narrow" :x="LEFT - 12" :y="i * BAND + 14" text-anchor="end" class="name">{{ b.label }}</text>
        <text
          v-else
          :x="fitsRight(b) ? x(b.high) + 5 : x(b.low) - 5"
          :y="i * BAND + 14"
          :text-anchor="fitsRight(b) ? 'start' : 'end'"
          class="name">
          {{ b.label }}
        </text>
      </g>
      <line :x1="LEFT" :x2="width - RIGHT" :y1="bands.length * BAND + 6" :y2="bands.length * BAND + 6" class="rule" />
      <g v-for="t in ticks" :key="t">
        <line :x1="x(t)" :x2="x(t)" :y1="bands.length * BAND + 2" :y2="height" class="grid" />
        <text :x="x(t)" :y="bands.length * BAND + 21" text-anchor="middle" class="num tick">{{ write(t) }}</text>
      </g>
      <g v-for="(b, i) in bars" :key="b.id">
        <circle
          v-if="b.high <= b.low * 1.04"
          :cx="x(b.value)"
          :cy="top + i * BAR + (narrow ? 28.5 : 14.5)"
          r="6.5"
          :class="['bar', { strong: b.strong }]" />
        <rect
          v-else
          :x="x(b.low)"
          :y="top + i * BAR + (narrow ? 22 : 8)"
          :width="Math.max(4, x(b.high) - x(b.low))"
          height="13"
          rx="6.5"
          :class="['bar', { strong: b.strong }]" />
        <line
          v-if="b.high > b.low * 1.04"
          :x1="x(b.value)"
          :x2="x(b.value)"
          :y1="top + i * BAR + (narrow ? 19 : 5)"
          :y2="top + i * BAR + (narrow ? 38 : 24)"
          class="centre" />
        <text
          :x="narrow ? LEFT : LEFT - 12"
          :y="top + i * BAR + (narrow ? 15 : 19)"
          :text-anchor="narrow ? 'start' : 'end'"
          :class="['label', { said: b.strong }]">
          {{ b.label }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.axis { overflow: hidden; }
svg { display: block; }
.band { fill: var(--set-soft); }
.mark { stroke: var(--set); stroke-width: 2; }
.name { font-size: 12px; fill: var(--soft); }
.rule { stroke: var(--line-strong); }
.grid { stroke: var(--line); }
.tick { font-size: 11px; fill: var(--soft); }
.bar { fill: var(--powder-mid); }
.bar.strong { fill: var(--ink); }
.centre { stroke: var(--ink); stroke-width: 2.4; }
.label { font-size: 13px; }
.said { font-weight: 700; }
</style>
