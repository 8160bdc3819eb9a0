<script setup lang="ts">
import { computed, ref } from 'vue'
import { useElementSize } from '@vueuse/core'
import type { Pixel } from '~core/mould/photo/photo'

/**
 * Marks on a photo, dragged by finger or moved by the arrow keys one pixel at a time, with a loupe over the one in
 * hand.
 */
export interface MarkGroup {
  readonly id: number
  readonly name: string
  readonly points: readonly Pixel[]
  readonly closed: boolean
  readonly scale: boolean
}
const { src, width, height, groups, chosen } = defineProps<
  { src: string, width: number, height: number, groups: readonly MarkGroup[], chosen?: number }
>()
const emit = defineEmits<
  { move: [group: number, index: number, to: Pixel], corner: [group: number, at: Pixel], choose: [group: number] }
>()

const svg = ref<SVGSVGElement>()
const held = ref<{ group: number, index: number, touch: boolean }>()
/** The mark that the loupe shows: in hand, or with the focus. */
const looked = ref<{ group: number, index: number }>()
/** Marks keep their size on the screen, whatever the photo's: a finger has to take them. */
const { width: shown } = useElementSize(svg)
const unit = computed(() => 0.75 * width / (shown.value || 700))
const seen = computed(() => {
  const g = looked.value && groups.find(x => x.id === looked.value!.group)
  const p = g?.points[looked.value!.index]
  // In the corner that is farthest from it.
  return p && { p, left: p.x > width / 2, top: p.y > height / 2 }
})
const LOUPE = 230, ZOOM = 5
const line = (g: MarkGroup) => g.points.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join('') + (g.closed ? 'Z' : '')
/**
 * Where a name stands: in an outline's middle, on a length a third of the way along, so that names seldom cover each
 * other.
 */
const middle = (g: MarkGroup) =>
  !g.closed && g.points.length === 2
    ? {
        x: g.points[0]!.x + 0.3 * (g.points[1]!.x - g.points[0]!.x),
        y: g.points[0]!.y + 0.3 * (g.points[1]!.y - g.points[0]!.y),
      }
    : ({
        x: g.points.reduce((s, p) => s + p.x, 0) / g.points.length,
        y: g.points.reduce((s, p) => s + p.y, 0) / g.points.length,
      })
const within = (p: Pixel): Pixel => ({
  x: Math.round(Math.max(0, Math.min(width, p.x)) * 2) / 2,
  y: Math.round(Math.max(0, Math.min(height, p.y)) * 2) / 2,
})
function place(event: PointerEvent | MouseEvent): Pixel {
  const box = svg.value!.getBoundingClientRect()
  return { x: (event.clientX - box.left) * width / box.width, y: (event.clientY - box.top) * height / box.height }
}
let grip: Pixel = { x: 0, y: 0 }
function take(event: PointerEvent, group: number, index: number, p: Pixel) {
  const at = place(event)
  // The mark does not jump under the finger: it keeps its distance from where it was taken.
  grip = { x: p.x - at.x, y: p.y - at.y }
  held.value = { group, index, touch: event.pointerType === 'touch' }
  looked.value = { group, index }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  ;(event.currentTarget as SVGElement).focus()
  emit('choose', group)
}
function drag(event: PointerEvent) {
  if (!held.value) return
  const at = place(event)
  emit('move', held.value.group, held.value.index, within({ x: at.x + grip.x, y: at.y + grip.y }))
}
function key(event: KeyboardEvent, group: number, index: number, p: Pixel) {
  const step = event.shiftKey ? 20 : 1
  const by
    = ({ ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] } as Record<
      string,
      readonly [number, number]
    >)[event.key]
  if (!by) return
  event.preventDefault()
  emit('move', group, index, within({ x: p.x + by[0], y: p.y + by[1] }))
}
function corner(event: MouseEvent) {
  const g = groups.find(x => x.id === chosen)
  if (g?.closed && !g.scale) emit('corner', g.id, within(place(event)))
}
function look(group: number, index: number) {
  looked.value = { group, index }
  emit('choose', group)
}
</script>

<template>
  <svg
    ref="svg"
    :viewBox="`0 0 ${width} ${height}`"
    class="photo"
    role="group"
    aria-label="The photo with its marks"
    @pointermove="drag"
    @pointerup="held = undefined"
    @pointercancel="held = undefined"
    @dblclick="corner">
    <image :href="src" :width="width" :height="height" />
    <g v-for="g in groups" :key="g.id" :class="{ scale: g.scale, chosen: g.id === chosen }">
      <path :d="line(g)" class="casing" :stroke-width="6 * unit" />
      <path
        :d="line(g)"
        class="line"
        :stroke-width="2.6 * unit"
        :stroke-dasharray="g.scale ? undefined : `${9 * unit} ${5 * unit}`" />
      <text :x="middle(g).x" :y="middle(g).y" class="name" :font-size="19 * unit" text-anchor="middle">
        {{ g.name }}
      </text>
      <g
        v-for="(p, i) in g.points"
        :key="i"
        class="mark"
        tabindex="0"
        role="button"
        :aria-label="`${g.name}, mark ${i + 1}, at ${Math.round(p.x)} across and ${Math.round(p.y)} down. Arrow keys move it by a pixel, with shift by twenty.`"
        @pointerdown.prevent="take($event, g.id, i, p)"
        @keydown="key($event, g.id, i, p)"
        @focus="look(g.id, i)"
        @blur="looked = undefined"
      >
        <circle :cx="p.x" :cy="p.y" :r="25 * unit" class="grip" />
        <circle :cx="p.x" :cy="p.y" :r="8 * unit" class="ring" :stroke-width="3 * unit" />
        <circle :cx="p.x" :cy="p.y" :r="1.4 * unit" class="dot" />
      </g>
    </g>
    <g
      v-if="seen"
      class="loupe"
      aria-hidden="true"
      :transform="`translate(${seen.left ? 12 * unit : width - (LOUPE + 12) * unit} ${seen.top ? 12 * unit : height - (LOUPE + 12) * unit})`">
      <svg
        :width="LOUPE * unit"
        :height="LOUPE * unit"
        :viewBox="`${seen.p.x - (LOUPE * unit) / ZOOM / 2} ${seen.p.y - (LOUPE * unit) / ZOOM / 2} ${(LOUPE * unit) / ZOOM} ${(LOUPE * unit) / ZOOM}`">
        <rect :x="seen.p.x - width" :y="seen.p.y - height" :width="2 * width" :height="2 * height" class="beyond" />
        <image :href="src" :width="width" :height="height" />
        <path
          :d="`M${seen.p.x - 20 * unit} ${seen.p.y}h${16 * unit}m${8 * unit} 0h${16 * unit}M${seen.p.x} ${seen.p.y - 20 * unit}v${16 * unit}m0 ${8 * unit}v${16 * unit}`"
          class="cross"
          :stroke-width="0.8 * unit" />
      </svg>
      <rect :width="LOUPE * unit" :height="LOUPE * unit" class="frame" :stroke-width="3 * unit" />
    </g>
  </svg>
</template>

<style scoped>
.photo {
  width: 100%;
  display: block;
  border-radius: 12px;
  background: var(--ink);
  touch-action: none;
  user-select: none;
}
.casing {
  fill: none;
  stroke: #13201f;
  stroke-opacity: 0.72;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.line {
  fill: none;
  stroke: #ffffff;
  stroke-linejoin: round;
}
.scale .line {
  stroke: #ffd54a;
}
.chosen .line {
  stroke: #7fe3ff;
}
.scale.chosen .line {
  stroke: #ffd54a;
}
.name {
  fill: #ffffff;
  font-weight: 650;
  paint-order: stroke;
  stroke: #13201f;
  stroke-width: 5px;
  stroke-linejoin: round;
  pointer-events: none;
}
.mark {
  cursor: grab;
}
.grip {
  fill: transparent;
}
.ring {
  fill: rgb(19 32 31 / 0.35);
  stroke: #ffffff;
}
.dot {
  fill: #ffffff;
}
.mark:focus {
  outline: none;
}
.mark:focus-visible .grip {
  fill: rgb(255 255 255 / 0.3);
  stroke: #ffffff;
  stroke-width: 3px;
}
.loupe {
  pointer-events: none;
}
.beyond {
  fill: #13201f;
}
.cross {
  stroke: #ff4fd8;
  fill: none;
}
.frame {
  fill: none;
  stroke: #ffffff;
}
</style>
