<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { combineGauges, type Gauge } from '~core/mould/gauge/gauge'
import { shellWords } from '~core/mould/words'
import { formatLength, formatVolume } from '~core/units/format'
import type { MouldBody } from '~contract/library'
import { newId } from '~/sync/api'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'
import { useModel } from './model'

/** A jacket around the piece: what each layer takes as it grows outwards, and the jacket as a mould of its own. */
const model = useModel(), library = useLibrary(), session = useSession()
const thickness = ref(0.01), lookedAt = ref(0.01), layers = ref(3), onTable = ref(true), kept = ref('')
const metres = computed(() => model.metres ?? 1e-3)
const found = computed(() => model.jacket)
const litres = (v: number) => formatVolume(v * metres.value ** 3, session.units)
const positive = (v: number) => v > 0 && v <= 1 ? undefined : 'More than nothing, and no wall.'
const look = () => {
  kept.value = ''
  lookedAt.value = thickness.value
  void model.lookForJacket(thickness.value / metres.value, layers.value, onTable.value)
}
async function keep() {
  const { low, high } = model.mesh!.measures
  const sides = ([0, 1, 2] as const).map(i => Math.min(5, (high[i] - low[i]) * metres.value))
  const each = lookedAt.value, taken = found.value!.layers.map(v => v * metres.value ** 3)
  const gauge: Gauge = {
    how: 'shell', area: taken[0]! / each, relief: 1, thickness: each, layers: taken.length,
    body: { kind: 'grown', each, taken },
  }
  const gauged = combineGauges([gauge])
  const body: MouldBody = {
    name: `Jacket of ${model.name.replace(/\.stl$/i, '') || 'a model'}`.slice(0, 80),
    material: 'silicone', fragile: false, note: '', wall: 0.01,
    mouth: { shape: 'rectangular', width: sides[0]!, length: sides[1]! },
    section: Math.min(1, each * taken.length),
    gauges: [gauge],
    volume: { value: gauged.value, low: gauged.low, high: gauged.high },
  }
  const id = newId()
  try {
    await library.save('mould', id, body)
    kept.value = id
  }
  catch (error) {
    model.trouble = (error as Error).message
  }
}
</script>

<template>
  <section aria-labelledby="jacket-head" class="jacket">
    <h2 id="jacket-head">A jacket around it</h2>
    <QuantityField
      kind="length"
      label="One layer is thick"
      :model-value="thickness"
      :check="positive"
      @amount="thickness = $event" />
    <div class="pair">
      <span class="strong">Layers</span><Stepper v-model="layers" label="Layers" :min="1" :max="8" />
    </div>
    <div class="tick">
      <Checkbox v-model="onTable" input-id="jacket-table" binary />
      <label for="jacket-table">It stands on a table, its lowest face stays bare</label>
    </div>
    <div>
      <Button
        label="Work the layers out"
        severity="secondary"
        :disabled="!!model.working || positive(thickness) !== undefined"
        @click="look" />
    </div>
    <div v-if="found" role="status" class="found">
      <p>{{ shellWords(found.layers.map(litres), found.layers) }}</p>
      <p class="small soft">
        By distance from its skin, in cells of {{ formatLength(found.step * metres, session.units) }}.
      </p>
      <div v-if="session.mayWrite" class="pair start">
        <Button label="Keep it as a mould" severity="secondary" size="small" @click="keep" />
        <span v-if="kept" class="small">Kept. <NuxtLink :to="`/moulds/${kept}`">Go to it</NuxtLink>; a plan knows its layers as coats.</span>
      </div>
    </div>
  </section>
</template>

<style scoped>
.jacket,
.found {
  display: grid;
  gap: 10px;
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
}
.pair.start {
  justify-content: flex-start;
}
.tick {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 26px;
}
</style>
