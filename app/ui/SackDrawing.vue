<script setup lang="ts">
import { grainsOf } from '~core/drawing/bucket'
import { SACK, sackLevel } from '~core/drawing/sack'

/** A bag of powder with what is left in it; one that nobody weighed is an empty outline. The words are beside it. */
const { left, bulk, height = 66 } = defineProps<{
  /** kg; unknown where nobody said. */
  left: number | undefined
  /** As it lies in the sack, kg/m3. */
  bulk: number
  height?: number
}>()
const id = useId(), EDGE = 3
const scale = computed(() => (height - 2 * EDGE) / SACK.height)
const width = computed(() => Math.round(SACK.width * scale.value) + 2 * EDGE)
/** A full sack bulges; its corners are round and its mouth is sewn. */
const outline = computed(() => {
  const w = width.value, l = EDGE, r = w - EDGE, t = EDGE, b = height - EDGE, seam = t + 5
  return `M${l + 2} ${t}H${r - 2}V${seam}C${r + 2} ${height / 2} ${r + 1} ${b - 8} ${r - 3} ${b}H${l + 3}`
    + `C${l - 1} ${b - 8} ${l - 2} ${height / 2} ${l + 2} ${seam}Z`
})
const top = computed(() => height - EDGE - sackLevel(left ?? 0, bulk) * scale.value)
const grains = computed(() => grainsOf(60).map(({ x, y, r }) => ({ x: x * width.value, y: y * height, r: r * 0.8 })))
</script>

<template>
  <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true">
    <clipPath :id="id"><path :d="outline" /></clipPath>
    <path :d="outline" class="paper" />
    <g v-if="left" :clip-path="`url(#${id})`">
      <svg :y="top" :width="width" :height="height - top" :viewBox="`0 ${top} ${width} ${height - top}`">
        <rect :y="top" :width="width" :height="height - top" class="powder" />
        <circle v-for="(g, i) in grains" :key="i" :cx="g.x" :cy="g.y" :r="g.r" class="grain" />
      </svg>
    </g>
    <path :d="outline" :class="['edge', { unknown: left === undefined }]" />
    <path :d="`M${EDGE + 2} ${EDGE + 5}H${width - EDGE - 2}`" class="seam" />
  </svg>
</template>

<style scoped>
svg { display: block; }
.paper { fill: var(--sheet); }
.powder { fill: var(--powder-soft); }
.grain { fill: var(--powder-mid); }
.edge { fill: none; stroke: var(--ink); stroke-width: 2.5; stroke-linejoin: round; }
.unknown { stroke-dasharray: 4 4; }
.seam { stroke: var(--ink); stroke-width: 1.5; stroke-dasharray: 3 2; }
</style>
