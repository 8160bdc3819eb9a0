<script setup lang="ts">
import { computed, useId } from 'vue'
import { grainsOf, insideBetween, mixLevel, siftedLevels } from '~core/drawing/bucket'
import type { Vessel } from '~core/mould/gauge/vessel'

/**
 * A bucket cut through, to its true section, with what stands in it: water, the bed of powder that grows in it with
 * islands above, or the mix.
 */
const { vessel, water, mix, settled, sifted, mixed = false, width, height, label } = defineProps<{
  vessel: Vessel
  /** m3 */
  water: number
  mix: number
  settled: number
  /** Share of the powder that is in. */
  sifted: number
  mixed?: boolean
  width: number
  height: number
  /** Nothing where the words beside it say what it is. */
  label: string
}>()
const EDGE = 4, id = useId()
const levels = computed(() => mixed
  ? { water: mixLevel(vessel, mix), mound: 0, islands: 'none' as const }
  : siftedLevels(vessel, { water, solid: mix - water, settled }, sifted))
const scale = computed(() =>
  Math.min((width - 2 * EDGE) / Math.max(vessel.top, vessel.bottom), (height - 2 * EDGE) / vessel.height))
const at = ({ x, y }: { x: number, y: number }) =>
  `${(width / 2 + x * scale.value).toFixed(1)} ${(height - EDGE - y * scale.value).toFixed(1)}`
const part = (low: number, high: number) => `M${insideBetween(vessel, low, high).map(at).join('L')}Z`
const wall = computed(() => {
  const [a, b, c, d] = insideBetween(vessel, 0, vessel.height)
  return `M${[b, a, d, c].map(p => at(p!)).join('L')}`
})
const surface = computed(() => {
  const [, b, c] = insideBetween(vessel, 0, levels.value.water)
  return { left: b!, right: c! }
})
const islands = computed(() => levels.value.islands === 'none'
  ? []
  : [-0.5, 0.05, 0.55].map(x => ({
      x: width / 2 + x * surface.value.right.x * scale.value, y: height - EDGE - levels.value.water * scale.value,
    })))
const grains = computed(() => grainsOf(60).map(({ x, y, r }) => ({
  x: EDGE + x * (width - 2 * EDGE), y: y * height, r,
})))
</script>

<template>
  <svg
    :width="width"
    :height="height"
    :viewBox="`0 0 ${width} ${height}`"
    :role="label ? 'img' : undefined"
    :aria-label="label || undefined"
    :aria-hidden="label ? undefined : true"
  >
    <clipPath :id="id"><path :d="part(0, levels.mound)" /></clipPath>
    <path :d="part(0, levels.water)" :class="mixed ? 'mix' : 'water'" />
    <g v-if="levels.mound > 0" :clip-path="`url(#${id})`">
      <rect :width="width" :height="height" class="bed" />
      <circle v-for="(g, i) in grains" :key="i" :cx="g.x" :cy="g.y" :r="g.r" class="grain" />
    </g>
    <path :d="`M${at(surface.left)}L${at(surface.right)}`" :class="['line', { mixed }]" />
    <ellipse
      v-for="i in islands" :key="i.x" :cx="i.x" :cy="i.y" rx="11" ry="4" class="island" />
    <path :d="wall" class="wall" />
  </svg>
</template>

<style scoped>
svg { display: block; }
.wall { fill: none; stroke: var(--ink); stroke-width: 4.5; stroke-linejoin: round; stroke-linecap: round; }
.water { fill: var(--water-soft); }
.mix { fill: var(--warmth-0); }
.bed { fill: var(--powder-soft); }
.grain { fill: var(--powder-mid); }
.line { stroke: var(--water); stroke-width: 2.5; }
.line.mixed { stroke: var(--ink); }
.island { fill: var(--dry); stroke: var(--powder-mid); stroke-width: 1.5; }
</style>
