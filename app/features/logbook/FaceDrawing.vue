<script setup lang="ts">
import { lookOf, profileOf } from '~core/drawing/profile'
import { defectWords } from '~core/pour/defects'
import type { FaultMark } from '~core/pour/events'
import type { MouldFacts } from '~core/plan/types'
import { DEFECT_MARKS } from './defect-marks'

/**
 * The face of a piece, drawn as its mould is, or a photo of it, with its faults where they are. With a
 * pointer a mark is put down and dragged;
 * with the keyboard Enter puts one in the middle, and arrows move the one that is held.
 */
const { mould, photo, marks, readonly = false, label } = defineProps<
  {
    mould: MouldFacts
    photo?: { readonly address: string, readonly width: number, readonly height: number }
    marks: readonly FaultMark[]
    readonly?: boolean
    label: string
  }
>()
const emit = defineEmits<
  { put: [x: number, y: number], move: [index: number, x: number, y: number], pick: [index: number] }
>()
const SIZE = 400
const frame = computed(() => {
  if (photo) {
    const scale = SIZE / Math.max(photo.width, photo.height)
    return { width: photo.width * scale, height: photo.height * scale }
  }
  const { width, length } = mould.mouth, scale = SIZE / Math.max(width, length)
  return { width: Math.max(120, length * scale), height: Math.max(120, width * scale) }
})
/** The piece as its mould is drawn elsewhere, its long side across the picture; one that stands, standing. */
const form = computed(() => lookOf(mould))
const laid = computed(() => {
  const { width: w, height: h } = frame.value, { mouth } = mould
  if (!form.value.stands)
    return mouth.shape === 'round' ? `scale(${w / 100} ${h / 100})` : `matrix(0 ${h / 100} ${w / 100} 0 0 0)`
  const { depth } = profileOf(mould), scale = Math.min(w / mouth.width, h / depth) / 100
  const wide = scale * mouth.width, tall = scale * depth
  return `translate(${w / 2 - 50 * wide} ${h / 2 - 50 * tall}) scale(${wide} ${tall})`
})
const svg = useTemplateRef('svg'), held = ref<number>(), moved = ref(false)
const between = (v: number) => Math.max(0, Math.min(1, v))
/** Where in the drawing, however it is fitted into its room. */
function placeOf(event: PointerEvent | MouseEvent) {
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.value!.getScreenCTM()!.inverse())
  return [between(x / frame.value.width), between(y / frame.value.height)] as const
}
function drag(event: PointerEvent) {
  if (held.value === undefined || readonly) return
  moved.value = true
  emit('move', held.value, ...placeOf(event))
}
function put(event: MouseEvent) {
  if (!readonly && !moved.value && held.value === undefined) emit('put', ...placeOf(event))
  moved.value = false
}
function release() {
  if (held.value !== undefined) setTimeout(() => {
    moved.value = false
  })
  held.value = undefined
}
function grab(i: number) {
  emit('pick', i)
  if (readonly) return
  moved.value = true
  held.value = i
}
function key(event: KeyboardEvent, i: number) {
  const step = event.shiftKey ? 0.1 : 0.02,
    by
      = ({ ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] } as Record<
        string,
        readonly [number, number]
      >)[event.key]
  if (event.key === 'Enter' || event.key === ' ') emit('pick', i)
  if (!by || readonly) return
  event.preventDefault()
  emit('move', i, between(marks[i]!.x + by[0]), between(marks[i]!.y + by[1]))
}
const WORDS = { 1: 'hardly seen', 2: 'plain', 3: 'spoils it' } as const
const across = (x: number) => x < 0.34 ? 'left' : x > 0.66 ? 'right' : 'middle'
const down = (y: number) => y < 0.34 ? 'upper' : y > 0.66 ? 'lower' : 'half way down'
const says = (m: FaultMark) => `${defectWords(m.defect)}, ${WORDS[m.severity]}, ${down(m.y)} ${across(m.x)}`
</script>

<template>
  <svg
    ref="svg"
    class="face"
    :class="{ readonly }"
    :viewBox="`0 0 ${frame.width} ${frame.height}`"
    :style="{ aspectRatio: `${frame.width} / ${frame.height}` }"
    role="group"
    :aria-label="label"
    :tabindex="readonly ? undefined : 0"
    @pointermove="drag"
    @pointerup="release"
    @pointerleave="release"
    @click="put"
    @keydown.self.enter.prevent="emit('put', 0.5, 0.5)"
  >
    <image v-if="photo" :href="photo.address" :width="frame.width" :height="frame.height" />
    <g v-else :transform="laid">
      <path :d="form.edge" class="piece" />
      <path v-for="l in form.lines" :key="l" :d="l" class="on-it" />
    </g>
    <g
      v-for="(m, i) in marks"
      :key="i"
      :transform="`translate(${m.x * frame.width} ${m.y * frame.height})`"
      class="mark"
      tabindex="0"
      role="button"
      :aria-label="`${says(m)}${readonly ? '' : '. Arrow keys move it.'}`"
      @pointerdown.stop.prevent="grab(i)"
      @click.stop
      @keydown="key($event, i)"
    >
      <circle r="17" class="plate" :class="`s${m.severity}`" />
      <path :d="DEFECT_MARKS[m.defect]" transform="translate(-12 -12)" class="sign" :stroke-width="m.severity + 0.8" />
      <title>{{ says(m) }}</title>
    </g>
  </svg>
</template>

<style scoped>
.face {
  width: 100%;
  max-height: max(260px, 44vh);
  margin: 0 auto;
  display: block;
  background: var(--sheet);
  border-radius: 12px;
  touch-action: none;
  cursor: crosshair;
}
.face.readonly {
  cursor: default;
}
.piece {
  fill: var(--dry);
  stroke: var(--ink);
  stroke-width: 2.4;
  vector-effect: non-scaling-stroke;
}
.on-it {
  fill: none;
  stroke: #6b6f70;
  stroke-width: 1.6;
  vector-effect: non-scaling-stroke;
}
.plate {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.plate.s2 {
  stroke: var(--warn);
  stroke-width: 2.5;
}
.plate.s3 {
  stroke: var(--heat);
  stroke-width: 4;
}
.sign {
  fill: none;
  stroke: var(--ink);
  stroke-linecap: round;
  stroke-linejoin: round;
}
.mark {
  cursor: grab;
}
.readonly .mark {
  cursor: default;
}
.mark:focus-visible {
  outline: none;
}
.mark:focus-visible .plate {
  stroke: var(--focus);
  stroke-width: 5;
}
</style>
