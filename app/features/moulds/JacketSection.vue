<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
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
const thickness = ref(0.01), layers = ref(3), onTable = ref(true), kept = ref('')
const metres = computed(() => model.metres ?? 1e-3)
const found = computed(() => model.jacket)
const litres = (v: number) => formatVolume(v * metres.value ** 3, session.units)
const total = computed(() => found.value ? found.value.layers.reduce((a, b) => a + b, 0) * metres.value ** 3 : 0)
const positive = (v: number) => v > 0 && v <= 1 ? undefined : 'More than nothing, and no wall.'
const look = () => {
  kept.value = ''
  void model.lookForJacket(thickness.value / metres.value, layers.value, onTable.value)
}
/** By hand a shell is even to about a seventh. */
const EVEN = 14
async function keep() {
  const { low, high } = model.mesh!.measures
  const sides = ([0, 1, 2] as const).map(i => Math.min(5, (high[i] - low[i]) * metres.value))
  const body: MouldBody = {
    name: `Jacket of ${model.name.replace(/\.stl$/i, '') || 'a model'}`.slice(0, 80),
    material: 'silicone', fragile: false, note: '', wall: 0.01,
    mouth: { shape: 'rectangular', width: sides[0]!, length: sides[1]! },
    section: Math.min(1, thickness.value * layers.value),
    gauges: [{ how: 'told', volume: total.value, percent: EVEN }],
    volume: { value: total.value, low: total.value * (1 - EVEN / 100), high: total.value * (1 + EVEN / 100) },
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
        <span v-if="kept" class="small">Kept. <NuxtLink :to="`/moulds/${kept}`">Go to it</NuxtLink>; its pour is planned as one amount.</span>
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
