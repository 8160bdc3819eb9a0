<script setup lang="ts">
import { formatLength } from '~core/units/format'
import type { Point } from '~core/mould/gauge/shapes'
import { useSession } from '~/sync/session'

/**
 * Corners that can be dragged, or moved with the arrow keys by a millimetre: a traced outline, or half of a turned
 * profile mirrored.
 */
const { points, mirrored = false, label } = defineProps<
  { points: readonly Point[], mirrored?: boolean, label: string }
>()
const emit = defineEmits<{ move: [index: number, to: Point] }>()
const session = useSession()
const SIZE = 272, EDGE = 26
const svg = ref<SVGSVGElement>()
const held = ref<number>()
/** Frozen while a corner is held, so that the drawing does not run away under the finger. */
const frame = ref({ left: 0, bottom: 0, scale: 1 })
function fit() {
  const xs = points.flatMap(p => mirrored ? [p.x, -p.x] : [p.x]), ys = points.map(p => p.y)
  const left = Math.min(...xs),
    bottom = Math.min(...ys),
    span = Math.max(0.02, Math.max(...xs) - left, Math.max(...ys) - bottom)
  frame.value = { left, bottom, scale: (SIZE - 2 * EDGE) / span }
}
watch(() => points, () => held.value === undefined && fit(), { immediate: true, deep: true })
const at = (p: Point) => ({
  x: EDGE + (p.x - frame.value.left) * frame.value.scale,
  y: SIZE - EDGE - (p.y - frame.value.bottom) * frame.value.scale,
})
const line = (list: readonly Point[]) =>
  list.map((p, i) => `${i ? 'L' : 'M'}${at(p).x.toFixed(1)} ${at(p).y.toFixed(1)}`).join('')
const path = computed(() =>
  mirrored ? `${line([...points, ...[...points].reverse().map(p => ({ x: -p.x, y: p.y }))])}Z` : `${line(points)}Z`,
)

function drag(event: PointerEvent) {
  if (held.value === undefined || !svg.value) return
  const box = svg.value.getBoundingClientRect()
  const x = (event.clientX - box.left) * SIZE / box.width, y = (event.clientY - box.top) * SIZE / box.height
  const round = (v: number) => Math.round(v * 1000) / 1000
  emit('move', held.value, {
    x: round((x - EDGE) / frame.value.scale + frame.value.left),
    y: round((SIZE - EDGE - y) / frame.value.scale + frame.value.bottom),
  })
}
function release() {
  held.value = undefined
  fit()
}
function key(event: KeyboardEvent, i: number) {
  const step = event.shiftKey ? 0.01 : 0.001
  const by
    = ({ ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] } as Record<
      string,
      readonly [number, number]
    >)[event.key]
  if (!by) return
  const [dx, dy] = by
  event.preventDefault()
  emit('move', i, {
    x: Math.round((points[i]!.x + dx) * 1000) / 1000,
    y: Math.round((points[i]!.y + dy) * 1000) / 1000,
  })
}
const say = (p: Point, i: number) =>
  mirrored
    ? `Height ${i + 1}: ${formatLength(2 * p.x, session.units)} across at ${formatLength(p.y, session.units)}`
    : `Corner ${i + 1}: ${formatLength(p.x, session.units)} right, ${formatLength(p.y, session.units)} up`
function leave() {
  if (held.value !== undefined) release()
}
</script>

<template>
  <svg
    ref="svg"
    :viewBox="`0 0 ${SIZE} ${SIZE}`"
    class="points"
    role="group"
    :aria-label="label"
    @pointermove="drag"
    @pointerup="release"
    @pointerleave="leave">
    <path :d="path" class="inside" />
    <line v-if="mirrored" :x1="at({ x: 0, y: 0 }).x" :x2="at({ x: 0, y: 0 }).x" y1="8" :y2="SIZE - 8" class="axis" />
    <circle
      v-for="(p, i) in points"
      :key="i"
      :cx="at(p).x"
      :cy="at(p).y"
      r="12"
      class="corner"
      tabindex="0"
      role="button"
      :aria-label="`${say(p, i)}. Arrow keys move it.`"
      @pointerdown.prevent="held = i"
      @keydown="key($event, i)"
    />
  </svg>
</template>

<style scoped>
.points {
  width: 100%;
  max-width: 320px;
  aspect-ratio: 1;
  background: var(--sheet);
  border-radius: 12px;
  touch-action: none;
}
.inside {
  fill: var(--mix-soft);
  stroke: var(--ink);
  stroke-width: 2.4;
  stroke-linejoin: round;
}
.axis {
  stroke: var(--line-strong);
  stroke-dasharray: 4 5;
}
.corner {
  fill: var(--sheet);
  stroke: var(--action);
  stroke-width: 3;
  cursor: grab;
}
.corner:focus-visible {
  outline: none;
  stroke-width: 6;
}
</style>
