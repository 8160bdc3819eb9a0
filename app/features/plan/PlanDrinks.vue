<script setup lang="ts">
import { castsInARow, driesAgain, wallTakes, waterHeld, wetThrough } from '~core/drying/drinking'
import { plannedStanding } from '~core/plan/standing'
import { freeFaces, place as placeOf } from '~core/drying/places'
import { wetFace } from '~core/drying/wet-face'
import { castSection, castVolume } from '~core/plan/batches/coats'
import { drinkingWords } from '~core/plan/words'
import PlanGround from './PlanGround.vue'
import QuantityField from '~/ui/QuantityField.vue'
import { useSession } from '~/sync/session'
import { usePlanning } from './planning'

/** What a mould or bat of this plaster will drink, and when it has to dry. */
const planning = usePlanning(), session = useSession()
/** Wall of what is cast in it; for a bat it is of no account. */
const wall = ref(0.006)
const words = computed(() => {
  const { centre, governing: mould, plan, world } = planning
  if (!centre || !mould) return []
  const thick = castSection(plan, mould), volume = castVolume(plan, mould), standing = plannedStanding(plan, world.day)
  const faces = freeFaces(placeOf(standing.place)) > 0.7 ? 2 : 1
  return drinkingWords({
    wall: wall.value,
    takes: wallTakes(wall.value),
    casts: castsInARow(thick, centre.porosity, wall.value),
    again: driesAgain(wall.value, wetFace(2 * volume / thick, standing).flux, faces),
    through: wetThrough(thick, centre.porosity),
    useful: waterHeld(volume, centre.porosity).useful,
  }, session.units)
})
</script>

<template>
  <section v-if="words.length > 0" class="drinks" aria-labelledby="drinks-head">
    <h2 id="drinks-head" class="eyebrow">What it will drink</h2>
    <QuantityField
      kind="length"
      label="Slip wall to be cast in it"
      :model-value="wall"
      :check="v => (v > 0 && v <= 0.03 ? undefined : 'A slip wall is a few millimetres.')"
      @amount="wall = $event" />
    <p v-for="w in words" :key="w" class="small">{{ w }}</p>
    <p class="small soft">
      <PlanGround ground="drinks">Known to a half.</PlanGround> Moulds that work together are weighed alike: two points of
      water move it by 3 %.
    </p>
  </section>
</template>

<style scoped>
.drinks {
  display: grid;
  gap: 8px;
}
</style>
