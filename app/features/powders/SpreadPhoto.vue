<script setup lang="ts">
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import { startingRound, startingScale, withCorner, withScaleMoved } from '~core/mould/photo/marks'
import { ground, photoRound, type PhotoScale, type Pixel } from '~core/mould/photo/photo'
import { SCALE_PROBLEM_WORDS } from '~core/mould/words'
import { formatLength } from '~core/units/format'
import PhotoMarks, { type MarkGroup } from '~/features/moulds/PhotoMarks.vue'
import FileButton from '~/ui/FileButton.vue'
import QuantityField from '~/ui/QuantityField.vue'
import { Refused } from '~/sync/api'
import { shrunk } from '~/sync/photos'
import { useSession } from '~/sync/session'

/** How wide a mix ran, from a photo of it with something of known size beside it. The picture is not kept. */
const emit = defineEmits<{ across: [diameter: number] }>()
const session = useSession()
const WAYS = [{ id: 'ruler', name: 'A ruler' }, { id: 'rectangle', name: 'Four corners of a rectangle' }] as const
const picture = shallowRef<{ url: string, width: number, height: number }>()
const scale = ref<PhotoScale>(), edge = ref<readonly Pixel[]>([]), trouble = ref(''), busy = ref(false)
const chosen = ref<number>()
const drop = () => {
  if (picture.value) URL.revokeObjectURL(picture.value.url)
  picture.value = undefined
}
onBeforeUnmount(drop)
async function take(file: Blob) {
  trouble.value = ''
  busy.value = true
  try {
    const { blob, width, height } = await shrunk(file)
    drop()
    picture.value = { url: URL.createObjectURL(blob), width, height }
    scale.value = startingScale('ruler', picture.value)
    edge.value = startingRound(picture.value)
  }
  catch (error) {
    trouble.value = error instanceof Refused ? error.sentence : 'This picture could not be read.'
  }
  busy.value = false
}
const setWay = (how: PhotoScale['how']) => {
  scale.value = startingScale(how, picture.value!)
}
const setSize = (size: { length?: number, width?: number }) => {
  scale.value = { ...scale.value, ...size } as PhotoScale
}
const groups = computed<MarkGroup[]>(() => [
  ...scale.value
    ? [{
        id: -1,
        name: scale.value.how === 'ruler' ? 'Ruler' : 'Rectangle',
        points: scale.value.how === 'ruler' ? scale.value.ends : scale.value.corners,
        closed: scale.value.how === 'rectangle',
        scale: true,
      }]
    : [],
  { id: 0, name: 'Its edge', points: edge.value, closed: true, scale: false },
])
function move(group: number, index: number, to: Pixel) {
  if (group < 0) scale.value = withScaleMoved(scale.value!, index, to)
  else edge.value = edge.value.map((p, i) => i === index ? to : p)
}
function corner(_group: number, at: Pixel) {
  edge.value = withCorner(edge.value, at)
}
const standing = computed(() => scale.value && ground(scale.value))
const read = computed(() => scale.value && photoRound(scale.value, edge.value))
const length = (m: number) => formatLength(m, session.units)
const positive = (v: number) => v > 0 ? undefined : 'More than nothing.'
</script>

<template>
  <div class="by-photo">
    <div class="head">
      <FileButton
        small
        :label="picture ? 'Another photo' : 'Or by a photo'"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        :disabled="busy"
        @file="take" />
      <span v-if="!picture" class="small soft">from straight above, a ruler lying on the glass; it is not kept</span>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <template v-if="picture && scale">
      <PhotoMarks
        :src="picture.url"
        :width="picture.width"
        :height="picture.height"
        :groups="groups"
        :chosen="chosen"
        @move="move"
        @corner="corner"
        @choose="chosen = $event" />
      <p class="small soft">Put the marks on the edge of the mix, all round, and those of the scale where it is known.</p>
      <SelectButton
        :model-value="scale.how"
        :options="[...WAYS]"
        option-label="name"
        option-value="id"
        :allow-empty="false"
        aria-label="What gives the scale"
        @update:model-value="setWay" />
      <QuantityField
        v-if="scale.how === 'ruler'"
        kind="length"
        label="Between its two marks"
        :model-value="scale.length"
        :check="positive"
        @amount="setSize({ length: $event })" />
      <template v-else>
        <QuantityField
          kind="length"
          label="Its upper side in the photo"
          :model-value="scale.width"
          :check="positive"
          @amount="setSize({ width: $event })" />
        <QuantityField
          kind="length"
          label="Its right side in the photo"
          :model-value="scale.length"
          :check="positive"
          @amount="setSize({ length: $event })" />
      </template>
      <p v-if="standing && !standing.ok" class="problem">{{ SCALE_PROBLEM_WORDS[standing.code] }}</p>
      <p v-else-if="read" role="status">
        <span class="num strong">{{ length(read.value) }}</span> across, as a circle of its area; eight of ten
        {{ length(read.low) }} to {{ length(read.high) }}.
        <Button label="Take it" severity="secondary" size="small" @click="emit('across', read.value)" />
      </p>
    </template>
  </div>
</template>

<style scoped>
.by-photo {
  display: grid;
  gap: 10px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
</style>
