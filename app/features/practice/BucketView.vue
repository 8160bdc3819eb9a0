<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { contentsOf } from '~core/practice/bucket'
import { flowNow } from '~core/practice/run'
import { drawCut, drawFromAbove, type Colours, type Look } from './drawing'
import type { Practising } from './practising'

/** The bucket from above and in a cut, drawn as it changes; powder is strewn where it is touched. */
const { of, strewable } = defineProps<{ of: Practising, strewable: boolean }>()
const emit = defineEmits<{ strew: [place: { readonly x: number, readonly y: number }] }>()
const above = useTemplateRef('above'), cut = useTemplateRef('cut'), holder = useTemplateRef('holder')
const { width } = useElementSize(holder)
/** Where a handful would fall, for who has no pointer. */
const aim = reactive({ x: 0.5, y: 0.5 })
const size = computed(() => Math.max(200, Math.min(400, width.value > 660 ? width.value / 2 - 14 : width.value || 360)))
/** Side by side there is room for all of it; one above the other the hands' acts come first. */
const depth = computed(() => width.value > 660 ? 260 : 150)

function colours(): Colours {
  const style = getComputedStyle(document.documentElement), at = (name: string) => style.getPropertyValue(name).trim()
  return {
    water: '#8fbdd0', bed: '#c3ad86', dry: '#fffdf8', heap: '#eee3cd', behind: at('--ground'), ink: at('--ink'), mix: '#d9d0c2', rim: at('--band'),
    letters: getComputedStyle(document.body).fontFamily,
  }
}
function fitted(canvas: HTMLCanvasElement, w: number, h: number): CanvasRenderingContext2D {
  const sharp = window.devicePixelRatio || 1
  if (canvas.width !== Math.round(w * sharp)) {
    canvas.width = Math.round(w * sharp)
    canvas.height = Math.round(h * sharp)
  }
  const ctx = canvas.getContext('2d')!
  ctx.setTransform(sharp, 0, 0, sharp, 0, 0)
  return ctx
}
function draw() {
  if (!above.value || !cut.value) return
  const run = of.run.value, gloss = 1 - (flowNow(run)?.share ?? 0)
  const look: Look = { place: run.place, b: of.bucket.value, stirred: of.isStirred.value, gloss }
  drawFromAbove(fitted(above.value, size.value, size.value), size.value, look, colours())
  drawCut(fitted(cut.value, size.value, depth.value), size.value, depth.value, look, colours())
  if (strewable && aiming.value) {
    const ctx = above.value.getContext('2d')!
    ctx.strokeStyle = colours().ink
    ctx.lineWidth = 2
    ctx.beginPath()
    ctx.arc(aim.x * size.value, aim.y * size.value, 16, 0, 2 * Math.PI)
    ctx.stroke()
  }
}
const aiming = ref(false)
watch([of.run, size, aim, aiming], draw, { flush: 'post' })
onMounted(draw)

const inside = ({ x, y }: { x: number, y: number }) => Math.hypot(x - 0.5, y - 0.5) < 0.48
function touched(event: PointerEvent) {
  const box = above.value!.getBoundingClientRect()
  const place = { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height }
  if (strewable && inside(place)) emit('strew', place)
}
const MOVES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-0.06, 0], ArrowRight: [0.06, 0], ArrowUp: [0, -0.06], ArrowDown: [0, 0.06],
}
function keyed(event: KeyboardEvent) {
  if (!strewable) return
  const move = MOVES[event.key]
  if (move) {
    const to = { x: aim.x + move[0], y: aim.y + move[1] }
    if (inside(to)) Object.assign(aim, to)
    event.preventDefault()
  }
  if (event.key === 'Enter') {
    emit('strew', { ...aim })
    event.preventDefault()
  }
}
const litres = computed(() => (1000 * contentsOf(of.run.value.place, of.bucket.value)).toFixed(2))
</script>

<template>
  <div ref="holder" class="view">
    <figure>
      <canvas
        ref="above"
        :style="{ width: `${size}px`, height: `${size}px`, cursor: strewable ? 'crosshair' : 'default' }"
        :tabindex="strewable ? 0 : undefined"
        role="img"
        :aria-label="strewable ? 'The bucket from above. Arrow keys aim, Enter strews a handful there.' : 'The bucket from above.'"
        @pointerdown="touched"
        @keydown="keyed"
        @focus="aiming = true"
        @blur="aiming = false" />
      <figcaption>From above</figcaption>
    </figure>
    <figure>
      <canvas
        ref="cut"
        :style="{ width: `${size}px`, height: `${depth}px` }"
        role="img"
        :aria-label="`Cut through the middle: ${litres} litres in it.`" />
      <figcaption>Cut through the middle</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.view { display: grid; grid-template-columns: repeat(auto-fit, minmax(min(300px, 100%), 1fr)); gap: 10px 24px; align-items: end; justify-items: center; min-width: 0; }
figure { margin: 0; display: grid; justify-items: center; gap: 4px; min-width: 0; max-width: 100%; }
canvas { max-width: 100%; touch-action: manipulation; border-radius: 12px; }
figcaption { font-weight: 600; font-size: 0.95rem; }
</style>
