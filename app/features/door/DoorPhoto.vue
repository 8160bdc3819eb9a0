<script setup lang="ts">
import { computed, onBeforeUnmount, reactive, ref } from 'vue'
import { KNOWN_THINGS, type KnownThingId } from '~core/door/known-things'
import { KNOWN_THING_WORDS, measureWords } from '~core/door/words'
import type { DoorKindId } from '~core/door/kinds'
import { photoLength, type Pixel } from '~core/mould/photo/photo'
import { formatLength } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'
import PhotoMarks from '~/features/moulds/PhotoMarks.vue'
import DoorField from './DoorField.vue'

/** Two measures from one photo, taken from straight above with something of known length beside the piece. */
const { kind, units } = defineProps<{ kind: DoorKindId, units: UnitPreferences }>()
const emit = defineEmits<{ measured: [width: number, length: number] }>()
const picture = ref<{ url: string, width: number, height: number }>(), trouble = ref('')
const known = ref<KnownThingId>('card'), own = ref(0.1)
const size = computed(() => known.value === 'own' ? own.value : KNOWN_THINGS[known.value])
const marks = reactive<{ scale: Pixel[], width: Pixel[], length: Pixel[] }>({ scale: [], width: [], length: [] })
const IDS = ['scale', 'width', 'length'] as const, chosen = ref(0)
const groups = computed(() => IDS.map((id, i) => ({
  id: i, points: marks[id], closed: false, scale: id === 'scale',
  name: id === 'scale' ? KNOWN_THING_WORDS[known.value] : measureWords(kind, id),
})))
const line = (x1: number, y1: number, x2: number, y2: number) => {
  const { width, height } = picture.value!
  return [{ x: width * x1, y: height * y1 }, { x: width * x2, y: height * y2 }]
}
async function take(event: Event) {
  const field = event.target as HTMLInputElement, file = field.files?.[0]
  field.value = ''
  if (!file) return
  trouble.value = ''
  try {
    const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' })
    if (picture.value) URL.revokeObjectURL(picture.value.url)
    picture.value = { url: URL.createObjectURL(file), width: bitmap.width, height: bitmap.height }
    bitmap.close()
    Object.assign(marks, { scale: line(0.1, 0.9, 0.4, 0.9), width: line(0.3, 0.4, 0.7, 0.4), length: line(0.5, 0.2, 0.5, 0.7) })
  }
  catch {
    trouble.value = 'This is no picture that the browser can read. Take a JPEG, PNG or WebP.'
  }
}
onBeforeUnmount(() => picture.value && URL.revokeObjectURL(picture.value.url))
const measured = computed(() => {
  const [a, b] = marks.scale
  if (!a || !b || !(size.value > 0)) return undefined
  const scale = { how: 'ruler', ends: [a, b], length: size.value } as const
  const of = (id: 'width' | 'length') => marks[id].length > 1 ? photoLength(scale, marks[id][0]!, marks[id][1]!) : undefined
  return { width: of('width'), length: of('length') }
})
function move(group: number, index: number, to: Pixel) {
  marks[IDS[group]!][index] = to
}
const use = () => {
  const { width, length } = measured.value ?? {}
  if (width && length) emit('measured', width.value, length.value)
}
</script>

<template>
  <div class="photo">
    <label class="take">A photo from above<input type="file" accept="image/*" capture="environment" @change="take"></label>
    <p v-if="trouble" class="why" role="alert">{{ trouble }}</p>
    <template v-if="picture">
      <p class="small">Lay each pair of marks on its ends. It stays on this device.</p>
      <label class="known">Beside it lies
        <select v-model="known">
          <option v-for="(words, id) in KNOWN_THING_WORDS" :key="id" :value="id">{{ words }}</option>
        </select>
      </label>
      <DoorField v-if="known === 'own'" v-model="own" kind="length" label="It is long" :units="units" />
      <PhotoMarks
        :src="picture.url" :width="picture.width" :height="picture.height" :groups="groups" :chosen="chosen"
        @move="move" @choose="chosen = $event" />
      <p v-if="measured?.width && measured.length" class="small" role="status">
        {{ formatLength(measured.width.value, units) }} by {{ formatLength(measured.length.value, units) }}, each within
        {{ formatLength((measured.width.high - measured.width.low) / 2, units) }}.
      </p>
      <button type="button" class="use" :disabled="!measured?.width || !measured.length" @click="use">Use these measures</button>
    </template>
  </div>
</template>

<style scoped>
.photo { display: grid; gap: 8px; margin: 8px 0; }
.take { position: relative; justify-self: start; border: 2px solid var(--ink); border-radius: 12px; background: var(--sheet); min-height: 44px; padding: 8px 16px; font-weight: 650; cursor: pointer; }
.take input { position: absolute; inset: 0; opacity: 0; cursor: pointer; }
.take:focus-within { outline: 3px solid var(--focus); outline-offset: 2px; }
.known { display: grid; gap: 4px; font-weight: 600; }
select { min-height: 44px; border: 1.5px solid var(--line-strong); border-radius: 9px; background: var(--sheet); padding: 4px 10px; }
.use { justify-self: start; min-height: 44px; border: 2px solid var(--ink); border-radius: 12px; background: var(--sheet); padding: 4px 18px; font-weight: 650; }
.use:disabled { border-style: dashed; color: var(--soft); }
.why { color: var(--heat); }
</style>
