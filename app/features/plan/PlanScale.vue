<script setup lang="ts">
import Select from 'primevue/select'
import { USUAL_JUG, USUAL_SCALE, type Jug, type Measures } from '~core/gypsum/measuring'
import { weighsBoth } from '~core/gypsum/schools'
import { formatMass } from '~core/units/format'
import QuantityField from '~/ui/QuantityField.vue'
import { useSession } from '~/sync/session'
import { usePlanning } from './planning'

/** What powder and water are measured with: how well the ratio is known follows from it. */
const planning = usePlanning(), session = useSession()
const STEPS = [0.0001, 0.001, 0.002, 0.005, 0.01, 0.05]
const scales = computed(() => STEPS.map(id => ({ id, name: formatMass(id, session.units).replace(/\.0(?=\D)/, '') })))
const WATER = [{ id: 'weighed', name: 'weighed too' }, { id: 'jug', name: 'in a jug' }]
const shown = computed(() => weighsBoth(planning.plan.school))
const measures = computed<Measures>(() => planning.plan.measures ?? { scale: USUAL_SCALE })
const put = (change: Partial<Measures>) => planning.change({ measures: { ...measures.value, ...change } })
const putJug = (change: Partial<Jug>) => put({ jug: { ...USUAL_JUG, ...measures.value.jug, ...change } })
const chooseWater = (how: 'weighed' | 'jug') => how === 'jug' ? putJug({}) : put({ jug: undefined })
const checkLines = (v: number) => v > 0 && v <= 0.005 ? undefined : 'From one line to the next, 5 l at most.'
const checkWidth = (v: number) => v > 0 && v <= 1 ? undefined : 'As wide as the jug is at its water line.'
</script>

<template>
  <div v-if="shown" class="scale">
    <div class="pair">
      <span id="scale-label" class="strong">The scale reads to</span>
      <Select
        :model-value="measures.scale"
        :options="scales"
        option-label="name"
        option-value="id"
        aria-labelledby="scale-label"
        @update:model-value="put({ scale: $event })" />
    </div>
    <div class="pair">
      <span id="water-label" class="strong">Water is</span>
      <Select
        :model-value="measures.jug ? 'jug' : 'weighed'"
        :options="WATER"
        option-label="name"
        option-value="id"
        aria-labelledby="water-label"
        @update:model-value="chooseWater" />
    </div>
    <template v-if="measures.jug">
      <QuantityField
        kind="volume"
        label="The jug has a line each"
        :model-value="measures.jug.step"
        :check="checkLines"
        @given="putJug({ step: $event })" />
      <QuantityField
        kind="length"
        label="The jug is wide"
        :model-value="measures.jug.width"
        :check="checkWidth"
        @given="putJug({ width: $event })" />
    </template>
  </div>
</template>

<style scoped>
.scale {
  display: grid;
  gap: 10px;
}
.pair {
  display: grid;
  grid-template-columns: minmax(74px, 1fr) auto;
  gap: 6px 10px;
  align-items: center;
}
</style>
