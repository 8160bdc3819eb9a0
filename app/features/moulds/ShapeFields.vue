<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import { positionsOf, turned } from '~core/mould/mesh/solids'
import { turnedArea, turnedUndercuts, type Point, type Shape } from '~core/mould/gauge/shapes'
import { formatArea, formatLength } from '~core/units/format'
import QuantityField from '~/ui/QuantityField.vue'
import { useModel } from '~/features/moulds/model'
import { useSession } from '~/sync/session'
import { BLANK_SHAPES } from './blanks'
import PointDrawing from './PointDrawing.vue'

/** The measures of one shape; a profile and an outline are drawn as well as typed. */
const { shape } = defineProps<{ shape: Shape }>()
const emit = defineEmits<{ change: [shape: Shape] }>()
const session = useSession()
const kinds = Object.entries(BLANK_SHAPES).map(([id, s]) => ({ id: id as Shape['kind'], name: s.name }))
const NAMES: Readonly<Record<string, string>> = {
  width: 'Width',
  length: 'Length',
  height: 'Height',
  across: 'Across',
  bottom: 'Across the bottom',
  top: 'Across the top',
  depth: 'Depth',
  rim: 'Across the rim',
  bottomWidth: 'Bottom, width',
  bottomLength: 'Bottom, length',
  topWidth: 'Top, width',
  topLength: 'Top, length',
}
const lengths = computed(() =>
  Object.entries(shape).filter(([key, v]) => key !== 'kind' && typeof v === 'number') as [string, number][],
)
const positive = (v: number) => v > 0 ? undefined : 'Every measure has to be more than zero.'
const set = (key: string, value: number | undefined) =>
  value !== undefined && emit('change', { ...shape, [key]: value } as Shape)

const drawn = computed<readonly Point[]>(() =>
  shape.kind === 'outline'
    ? shape.points
    : shape.kind === 'turned'
      ? shape.points.map(p => ({ x: p.across / 2, y: p.height }))
      : [],
)
function move(i: number, to: Point) {
  if (shape.kind === 'outline') emit('change', { ...shape, points: shape.points.map((p, j) => j === i ? to : p) })
  else if (shape.kind === 'turned') {
    const below = shape.points[i - 1]?.height, above = shape.points[i + 1]?.height
    const height = i === 0
      ? 0
      : Math.min(above === undefined ? Infinity : above - 0.001, Math.max(below! + 0.001, to.y))
    emit('change', {
      ...shape,
      points: shape.points.map((p, j) => j === i ? { height, across: Math.max(0, 2 * to.x) } : p),
    })
  }
}
function addPoint() {
  if (shape.kind === 'outline') {
    const a = shape.points.at(-1)!, b = shape.points[0]!
    emit('change', { ...shape, points: [...shape.points, { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }] })
  }
  else if (shape.kind === 'turned') {
    const top = shape.points.at(-1)!
    emit('change', { ...shape, points: [...shape.points, { height: top.height + 0.02, across: top.across }] })
  }
}
function dropPoint(i: number) {
  if (shape.kind === 'outline') emit('change', { ...shape, points: shape.points.filter((_, j) => j !== i) })
  else if (shape.kind === 'turned') {
    const left = shape.points.filter((_, j) => j !== i)
    const floor = left[0]!.height
    emit('change', { ...shape, points: left.map(p => ({ ...p, height: p.height - floor })) })
  }
}
async function inSpace() {
  if (shape.kind !== 'turned') return
  const made = useModel().take(
    positionsOf(turned(shape.points.map(p => [p.across / 2, p.height] as const))),
    'Turned profile',
  )
  await navigateTo('/moulds/model')
  await made
}
const locks = computed(() => shape.kind === 'turned' ? turnedUndercuts(shape.points)[0] : undefined)
</script>

<template>
  <div class="shape">
    <Select
      :model-value="shape.kind"
      :options="kinds"
      option-label="name"
      option-value="id"
      aria-label="Shape"
      fluid
      @update:model-value="emit('change', BLANK_SHAPES[$event as Shape['kind']].shape)" />
    <QuantityField
      v-for="[key, value] in lengths"
      :key="`${shape.kind}-${key}`"
      kind="length"
      :label="NAMES[key] ?? key"
      :model-value="value"
      :check="positive"
      @update:model-value="set(key, $event)" />
    <template v-if="shape.kind === 'turned' || shape.kind === 'outline'">
      <PointDrawing
        :points="drawn"
        :mirrored="shape.kind === 'turned'"
        :label="shape.kind === 'turned' ? 'The profile; drag its heights' : 'The outline; drag its corners'"
        @move="move" />
      <ul class="rows">
        <li v-for="(p, i) in shape.points" :key="i">
          <template v-if="'across' in p">
            <QuantityField
              kind="length"
              hide-label
              :label="`Height ${i + 1}`"
              :model-value="p.height"
              @given="move(i, { x: p.across / 2, y: $event })" />
            <QuantityField
              kind="length"
              hide-label
              :label="`Across at height ${i + 1}`"
              :model-value="p.across"
              @given="move(i, { x: $event / 2, y: p.height })" />
          </template>
          <template v-else>
            <QuantityField
              kind="length"
              hide-label
              :label="`Corner ${i + 1}, right`"
              :model-value="p.x"
              @given="move(i, { x: $event, y: p.y })" />
            <QuantityField
              kind="length"
              hide-label
              :label="`Corner ${i + 1}, up`"
              :model-value="p.y"
              @given="move(i, { x: p.x, y: $event })" />
          </template>
          <button
            class="drop"
            :aria-label="`Take away ${'across' in p ? 'height' : 'corner'} ${i + 1}`"
            :disabled="shape.points.length <= (shape.kind === 'turned' ? 2 : 3)"
            @click="dropPoint(i)">
            ×
          </button>
        </li>
      </ul>
      <Button
        :label="shape.kind === 'turned' ? 'One more height' : 'One more corner'"
        severity="secondary"
        size="small"
        @click="addPoint" />
      <p v-if="shape.kind === 'turned'" class="small soft">
        Left: height from the bottom; right: inside diameter there. Walls and floor:
        {{ formatArea(turnedArea(shape.points), session.units) }}.
      </p>
      <Button
        v-if="shape.kind === 'turned'"
        label="See it in three dimensions"
        severity="secondary"
        size="small"
        @click="inSpace" />
      <p v-if="locks" class="small lock">
        It locks: {{ formatLength(locks.by, session.units) }} wider all round below
        {{ formatLength(locks.to, session.units) }} than at its neck. A rigid form will not let go; a flexible one may.
      </p>
    </template>
  </div>
</template>

<style scoped>
.shape { display: grid; grid-template-columns: minmax(0, 1fr); gap: 8px; }
.rows { display: grid; gap: 5px; }
.rows li { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 32px; gap: 6px; align-items: center; }
.rows :deep(.box) { width: 100%; }
.drop { border: 0; background: none; font-size: 1.1rem; min-height: 32px; color: var(--soft); }
.lock { color: var(--warn); }
</style>
