<script setup lang="ts">
import Select from 'primevue/select'
import { clothNeeds, CLOTHS, type Cloth, type ClothId } from '~core/plan/batches/cloth'
import { clothAmount, clothDrinks, CLOTH_STRENGTH } from '~core/plan/cloth-words'
import type { Coats } from '~core/plan/batches/coats'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'

/** Cloth or long fibre that is dipped into one of the coats. */
const { coats, count } = defineProps<{ coats: Coats, count: number }>()
const planning = usePlanning(), session = useSession()
const cloth = computed(() => coats.cloth)
const KINDS = [{ id: 'none', name: 'None' }, ...CLOTHS.map(({ id, name }) => ({ id, name }))]
const put = (value: Cloth | undefined) => planning.change({ coats: { ...coats, cloth: value } })
const set = (change: Partial<Cloth>) => put({ ...cloth.value!, ...change })
const FIRST = { width: 0.3, length: 0.3, layers: 1, strip: { width: 0.08, length: 0.4 } } as const
function choose(kind: string) {
  if (kind === 'none') return put(undefined)
  put({ ...FIRST, coat: 2, ...cloth.value, kind: kind as ClothId })
}
const needs = computed(() => {
  const casts = planning.result.batches[0]?.fills.reduce((n, f) => n + f.copies, 0)
  return cloth.value && casts ? clothNeeds(cloth.value, casts) : undefined
})
const positive = (v: number) => v > 0 ? undefined : 'More than nothing.'
const strips = computed(() => cloth.value?.kind !== 'long-fibre' && cloth.value?.strip)
</script>

<template>
  <div class="cloth">
    <div class="pair">
      <span id="cloth-label" class="strong">Cloth or fibre</span>
      <Select
        :model-value="cloth?.kind ?? 'none'"
        :options="KINDS"
        option-label="name"
        option-value="id"
        aria-labelledby="cloth-label"
        class="wide"
        @update:model-value="choose" />
    </div>
    <template v-if="cloth">
      <div class="pair">
        <span>Laid into coat</span>
        <Stepper
          label="Laid into coat" :min="2" :max="Math.max(2, count)" :model-value="cloth.coat"
          @update:model-value="set({ coat: $event })" />
      </div>
      <QuantityField
        kind="length" label="It covers, wide" :model-value="cloth.width" :check="positive" @amount="set({ width: $event })" />
      <QuantityField
        kind="length" label="and long" :model-value="cloth.length" :check="positive" @amount="set({ length: $event })" />
      <div class="pair">
        <span>Layers</span>
        <Stepper label="Layers" :min="1" :max="6" :model-value="cloth.layers" @update:model-value="set({ layers: $event })" />
      </div>
      <template v-if="strips">
        <QuantityField
          kind="length" label="Strips, wide" :model-value="strips.width" :check="positive"
          @amount="set({ strip: { ...strips, width: $event } })" />
        <QuantityField
          kind="length" label="Strips, long" :model-value="strips.length" :check="positive"
          @amount="set({ strip: { ...strips, length: $event } })" />
      </template>
      <p v-if="needs" class="small" role="status">
        {{ clothAmount(cloth, needs, session.units) }}. {{ clothDrinks(needs, session.units) }}
      </p>
      <p class="small soft">{{ CLOTH_STRENGTH }}</p>
    </template>
  </div>
</template>

<style scoped>
.cloth {
  display: grid;
  gap: 9px;
}
.pair {
  display: grid;
  grid-template-columns: minmax(74px, 1fr) auto;
  gap: 6px 10px;
  align-items: center;
}
.wide {
  width: 226px;
}
</style>
