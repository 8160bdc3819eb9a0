<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import Select from 'primevue/select'
import type { Gauge, Sides } from '~core/mould/gauge/gauge'
import { shellLayers, type ShellBody } from '~core/mould/gauge/shells'
import { SHELL_BODY_WORDS, shellWords } from '~core/mould/words'
import { formatVolume } from '~core/units/format'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'
import { useSession } from '~/sync/session'
import { BLANK_BODIES } from './blanks'

/** A shell or jacket: what it goes around, and its layers. */
type Shell = Extract<Gauge, { readonly how: 'shell' }>
const { gauge, sides } = defineProps<{ gauge: Shell, sides: Sides }>()
const emit = defineEmits<{ change: [part: object] }>()
const session = useSession()
const positive = (v: number) => v > 0 ? undefined : 'More than nothing.'
const set = (part: object) => emit('change', part)
function setSide(part: Partial<Sides>) {
  const now = { ...sides, ...part }
  set({ sides: now, area: now.width * now.length })
}
const setBody = (part: object) => set({ body: { ...gauge.body, ...part } })

const AREA = 'area'
/** What its model told, as it was when these fields opened: chosen again after something else, it is still there. */
const grown = gauge.body?.kind === 'grown' ? gauge.body : undefined
const known: Partial<Record<ShellBody['kind'], ShellBody>> = { ...BLANK_BODIES, ...grown && { grown } }
const bodies = [
  { id: AREA, name: SHELL_BODY_WORDS.area },
  ...(Object.keys(known) as ShellBody['kind'][]).map(id => ({ id, name: SHELL_BODY_WORDS[id] })),
]
const chooseBody = (id: string) => set({ body: known[id as ShellBody['kind']] })
/** What each layer takes, where there are several. */
const layers = computed(() => gauge.layers > 1 && positive(gauge.thickness) === undefined ? shellLayers(gauge) : [])
</script>

<template>
  <div class="field">
    <span id="shell-around" class="strong">It goes around</span>
    <Select
      :model-value="gauge.body?.kind ?? AREA"
      :options="bodies"
      option-label="name"
      option-value="id"
      aria-labelledby="shell-around"
      @update:model-value="chooseBody" />
  </div>
  <template v-if="!gauge.body">
    <QuantityField kind="length" label="Outline, width" :model-value="sides.width" :check="positive" @amount="setSide({ width: $event })" />
    <QuantityField kind="length" label="Outline, length" :model-value="sides.length" :check="positive" @amount="setSide({ length: $event })" />
    <QuantityField kind="length" clearable label="Over a curve of radius" :model-value="gauge.radius" @update:model-value="set({ radius: $event })" />
    <QuantityField kind="length" clearable label="Open edge, all round" :model-value="gauge.rim" @update:model-value="set({ rim: $event })" />
  </template>
  <template v-else-if="gauge.body.kind !== 'grown'">
    <template v-if="gauge.body.kind === 'box'">
      <QuantityField kind="length" label="Width" :model-value="gauge.body.width" :check="positive" @amount="setBody({ width: $event })" />
      <QuantityField kind="length" label="Length" :model-value="gauge.body.length" :check="positive" @amount="setBody({ length: $event })" />
      <QuantityField kind="length" label="Height" :model-value="gauge.body.height" :check="positive" @amount="setBody({ height: $event })" />
    </template>
    <template v-else>
      <QuantityField kind="length" label="Across" :model-value="gauge.body.across" :check="positive" @amount="setBody({ across: $event })" />
      <QuantityField
        v-if="gauge.body.kind === 'cylinder'"
        kind="length"
        label="Height"
        :model-value="gauge.body.height"
        :check="positive"
        @amount="setBody({ height: $event })" />
    </template>
    <div v-if="gauge.body.kind === 'box' || gauge.body.kind === 'cylinder'" class="tick">
      <Checkbox
        input-id="shell-table"
        binary
        :model-value="gauge.body.onTable ?? false"
        @update:model-value="setBody({ onTable: $event })" />
      <label for="shell-table">Stands on a table, its lower face stays bare</label>
    </div>
  </template>
  <div class="pair">
    <span class="strong">Relief adds</span
    ><Stepper
      label="Relief adds, percent of the area"
      unit=" %"
      :max="200"
      :step="5"
      :model-value="Math.round((gauge.relief - 1) * 100)"
      @update:model-value="set({ relief: 1 + $event / 100 })" />
  </div>
  <QuantityField kind="length" label="One layer is thick" :model-value="gauge.thickness" :check="positive" @amount="set({ thickness: $event })" />
  <div class="pair">
    <span class="strong">Layers</span
    ><Stepper label="Layers" :min="1" :max="20" :model-value="gauge.layers" @update:model-value="set({ layers: $event })" />
  </div>
  <p v-if="layers.length > 1" class="layers small">
    {{ shellWords(layers.map(v => formatVolume(v, session.units)), layers) }}
  </p>
</template>

<style scoped>
.field { display: grid; gap: 4px; }
.pair { display: flex; gap: 12px; align-items: center; justify-content: space-between; }
.tick { display: flex; gap: 8px; align-items: center; min-height: 26px; }
.layers { grid-column: 1 / -1; }
</style>
