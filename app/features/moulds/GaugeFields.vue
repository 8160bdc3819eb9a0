<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import { aroundPart, atScale } from '~core/mould/gauge/around'
import type { Gauge, Sides } from '~core/mould/gauge/gauge'
import type { Shape } from '~core/mould/gauge/shapes'
import { formatLength, formatMass, formatVolume } from '~core/units/format'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'
import { useSession } from '~/sync/session'
import { BLANK_SHAPES, MODEL_MATERIALS } from './blanks'
import ShapeFields from './ShapeFields.vue'
import ShellFields from './ShellFields.vue'

/** What is asked for by one way of gauging. */
const { gauge } = defineProps<{ gauge: Gauge }>()
const emit = defineEmits<{ change: [gauge: Gauge] }>()
const session = useSession()
const set = (part: object) => emit('change', { ...gauge, ...part } as Gauge)
const positive = (v: number) => v > 0 ? undefined : 'More than nothing.'
/** An area is asked for as its two sides; where only the area is known, as those of a square. */
const square = (area: number) => ({ width: Math.sqrt(area), length: Math.sqrt(area) })
const sides = computed(() => 'area' in gauge ? gauge.sides ?? square(gauge.area) : square(0))
const printSides = computed(() => gauge.how === 'dam' ? gauge.printSides ?? square(gauge.printArea) : square(0))
function setSide(part: Partial<Sides>) {
  const now = { ...sides.value, ...part }
  set({ sides: now, area: now.width * now.length })
}
function setPrintSide(part: Partial<Sides>) {
  const now = { ...printSides.value, ...part }
  set({ printSides: now, printArea: now.width * now.length })
}
const material = ref<string | null>(null)
function pickMaterial(name: string) {
  material.value = name
  const { low, high } = MODEL_MATERIALS.find(m => m.name === name)!
  set({ density: { low, high } })
}
const changeShape = (i: number, shape: Shape) =>
  gauge.how === 'shapes' && set({ stack: gauge.stack.map((s, j) => j === i ? shape : s) })
const part = reactive({ width: 0.09, thickness: 0.05, depth: 0.18 })
const scaled = reactive({ real: 2, scale: 24 })
const around = computed(() => aroundPart(part))
</script>

<template>
  <div class="fields">
    <template v-if="gauge.how === 'water-weight'">
      <QuantityField
        kind="mass"
        label="The water weighs"
        :model-value="gauge.mass"
        :check="positive"
        @amount="set({ mass: $event })" />
      <QuantityField
        kind="temperature"
        field="water"
        label="It is at"
        :model-value="gauge.temperature"
        @given="set({ temperature: $event })" />
    </template>
    <template v-else-if="gauge.how === 'water-jug' || gauge.how === 'gravel'">
      <QuantityField
        kind="volume"
        label="The jug reads"
        :model-value="gauge.reading"
        :check="positive"
        @amount="set({ reading: $event })" />
      <QuantityField
        kind="volume"
        label="One mark of the jug"
        :model-value="gauge.step"
        :check="positive"
        @amount="set({ step: $event })" />
      <template v-if="gauge.how === 'gravel'">
        <QuantityField
          kind="length"
          label="A grain is"
          :model-value="gauge.grain"
          :check="positive"
          @amount="set({ grain: $event })" />
        <QuantityField
          kind="length"
          label="The narrowest gap is"
          :model-value="gauge.gap"
          :check="positive"
          @amount="set({ gap: $event })" />
      </template>
    </template>
    <template v-else-if="gauge.how === 'water-part'">
      <QuantityField
        kind="volume"
        label="You poured in"
        :model-value="gauge.water"
        :check="positive"
        @amount="set({ water: $event })" />
      <div class="pair">
        <span class="strong">It is full to</span
        ><Stepper
          label="Share that is full, percent"
          unit=" %"
          :min="5"
          :max="100"
          :step="5"
          :model-value="Math.round(gauge.share * 100)"
          @update:model-value="set({ share: $event / 100 })" />
      </div>
    </template>
    <template v-else-if="gauge.how === 'shapes'">
      <div v-for="(s, i) in gauge.stack" :key="i" class="one">
        <div class="pair">
          <span class="small strong">{{
            gauge.stack.length > 1 ? `Part ${i + 1}, from the bottom` : 'Inside measures'
          }}</span
          ><button
            v-if="gauge.stack.length > 1"
            class="drop"
            :aria-label="`Take away part ${i + 1}`"
            @click="set({ stack: gauge.stack.filter((_, j) => j !== i) })">
            ×
          </button>
        </div>
        <ShapeFields :shape="s" @change="changeShape(i, $event)" />
      </div>
      <Button
        label="Stack another part on it"
        severity="secondary"
        size="small"
        @click="set({ stack: [...gauge.stack, BLANK_SHAPES.cup.shape] })" />
      <details class="around">
        <summary>From a real size to a model’s</summary>
        <QuantityField
          kind="length"
          label="Really"
          :model-value="scaled.real"
          @amount="scaled.real = $event" />
        <div class="pair">
          <span class="strong">Scale 1 :</span
          ><Stepper
            label="Scale, one to"
            :min="1"
            :max="1000"
            :model-value="scaled.scale"
            @update:model-value="scaled.scale = $event" />
        </div>
        <p class="small">
          {{ formatLength(atScale(scaled.real, scaled.scale), session.units) }} in the model. Volumes shrink by
          {{ scaled.scale }}³.
        </p>
      </details>
      <QuantityField
        kind="length"
        label="Measured to within"
        :model-value="gauge.error"
        @given="set({ error: $event })" />
    </template>
    <template v-else-if="gauge.how === 'model-weight'">
      <QuantityField
        kind="mass"
        label="The model weighs"
        :model-value="gauge.mass"
        :check="positive"
        @amount="set({ mass: $event })" />
      <Select
        :model-value="material"
        :options="[...MODEL_MATERIALS]"
        option-label="name"
        option-value="name"
        placeholder="It is made of"
        aria-label="The model is made of"
        fluid
        @update:model-value="pickMaterial" />
      <p class="small soft num">{{ gauge.density.low }} to {{ gauge.density.high }} kg/m³</p>
    </template>
    <template v-else-if="gauge.how === 'dam'">
      <QuantityField
        kind="length"
        label="Ring, one side"
        :model-value="sides.width"
        :check="positive"
        @amount="setSide({ width: $event })" />
      <QuantityField
        kind="length"
        label="Ring, other side"
        :model-value="sides.length"
        :check="positive"
        @amount="setSide({ length: $event })" />
      <QuantityField
        kind="length"
        label="Print, width"
        :model-value="printSides.width"
        @amount="setPrintSide({ width: $event })" />
      <QuantityField
        kind="length"
        label="Print, length"
        :model-value="printSides.length"
        @amount="setPrintSide({ length: $event })" />
      <QuantityField
        kind="length"
        label="Print, depth"
        :model-value="gauge.printDepth"
        @given="set({ printDepth: $event })" />
      <QuantityField
        kind="length"
        label="Plaster above the ground"
        :model-value="gauge.cover"
        :problem="gauge.cover < 0.013 ? 'Thinner than 13 mm it breaks as it is lifted; 25 mm is better.' : ''"
        @amount="set({ cover: $event })" />
    </template>
    <ShellFields v-else-if="gauge.how === 'shell'" :gauge="gauge" :sides="sides" @change="set" />
    <template v-else-if="gauge.how === 'told'">
      <QuantityField
        kind="volume"
        field="holds"
        label="It holds"
        :model-value="gauge.volume"
        :check="positive"
        @amount="set({ volume: $event })" />
      <div class="pair">
        <span class="strong">Known to within</span
        ><Stepper
          label="Known to within, percent"
          unit=" %"
          :min="1"
          :max="50"
          :model-value="gauge.percent"
          @update:model-value="set({ percent: $event })" />
      </div>
    </template>
    <details v-if="gauge.how === 'water-jug' || gauge.how === 'water-weight'" class="around">
      <summary>Around a hand, foot or model</summary>
      <QuantityField
        kind="length"
        label="It is wide"
        :model-value="part.width"
        @amount="part.width = $event" />
      <QuantityField
        kind="length"
        label="thick"
        :model-value="part.thickness"
        @amount="part.thickness = $event" />
      <QuantityField
        kind="length"
        label="and goes in"
        :model-value="part.depth"
        @amount="part.depth = $event" />
      <p class="small">
        Container {{ formatLength(around.across, session.units) }} across and
        {{ formatLength(around.height, session.units) }} high inside. Soft impression
        {{ formatVolume(around.impression, session.units) }}: {{ formatMass(around.water, session.units) }} water, about
        {{ formatMass(around.powder, session.units) }} powder; its pack comes first.
      </p>
      <p class="small caution">Only the soft impression touches skin. Plaster never does: it burns.</p>
    </details>
  </div>
</template>

<style scoped>
.fields, .one { display: grid; grid-template-columns: minmax(0, 1fr); gap: 9px; }
.one { border-left: 3px solid var(--line); padding-left: 10px; }
.pair { display: grid; grid-template-columns: 1fr auto; align-items: center; gap: 8px; }
.drop { border: 0; background: none; font-size: 1.1rem; min-height: 32px; min-width: 32px; color: var(--soft); }
.around { display: grid; gap: 8px; border-top: 1px solid var(--line); padding-top: 8px; }
.around summary { cursor: pointer; font-weight: 600; min-height: 26px; }
.around > * + * { margin-top: 8px; }
.caution { color: var(--heat); }
</style>
