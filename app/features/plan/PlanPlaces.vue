<script setup lang="ts">
import Select from 'primevue/select'
import { SKIES, type SkyId, type Standing } from '~core/drying/places'
import { SKY_WORDS } from '~core/drying/words'
import { plannedStanding } from '~core/plan/standing'
import type { PlanField } from '~core/plan/problems'
import type { SettingPlace } from '~core/plan/types'
import { SETTING_PLACES, settingPlace, type SettingPlaceId } from '~core/setting/body'
import StandingFields from '~/features/shelf/StandingFields.vue'
import Stepper from '~/ui/Stepper.vue'
import { usePlanning } from './planning'

/** Where the casts set and where they dry: a bench and a rack in the room, until somebody says otherwise. */
const planning = usePlanning()
const places = [...SETTING_PLACES]
const skies = SKIES.map(id => ({ id, name: SKY_WORDS[id] }))
const sets = computed<SettingPlace>(() => planning.plan.sets ?? { place: 'room', humidity: 0.5 })
const seesSky = computed(() => settingPlace(sets.value.place).open)
const dries = computed(() => plannedStanding(planning.plan))
/** As sentences: they are equal until one of them changes, and nothing is drawn anew for another field. */
const saidAt = (field: PlanField) =>
  computed(() => planning.problems.filter(p => p.field === field).map(planning.say).join('\n'))
const saidOfSets = saidAt('sets'), saidOfDries = saidAt('dries')

const putSets = (change: Partial<SettingPlace>) => planning.change({ sets: { ...sets.value, ...change } })
const chooseSets = (place: SettingPlaceId) =>
  putSets({ place, sky: settingPlace(place).open ? sets.value.sky ?? 'half' : undefined })
const chooseSky = (sky: SkyId) => putSets({ sky })
const putDries = ({ place, air, weather }: Standing) => planning.change({ dries: { place, air, weather } })
</script>

<template>
  <div class="places">
    <div class="pair">
      <span id="sets-label" class="strong">It sets</span>
      <Select
        :model-value="sets.place"
        :options="places"
        option-label="name"
        option-value="id"
        aria-labelledby="sets-label"
        class="wide"
        @update:model-value="chooseSets"
      />
    </div>
    <div v-if="seesSky" class="pair">
      <span id="sets-sky" class="strong">The day</span>
      <Select
        :model-value="sets.sky"
        :options="skies"
        option-label="name"
        option-value="id"
        aria-labelledby="sets-sky"
        class="wide"
        @update:model-value="chooseSky"
      />
    </div>
    <div class="pair">
      <span class="strong">Humidity there</span>
      <Stepper
        label="Humidity where it sets, percent"
        unit=" %"
        :min="5"
        :max="100"
        :step="5"
        :model-value="Math.round(100 * sets.humidity)"
        @update:model-value="putSets({ humidity: $event / 100 })"
      />
    </div>
    <p v-if="saidOfSets" class="problem warn said">{{ saidOfSets }}</p>
    <StandingFields :standing="dries" label="It dries" @change="putDries" />
    <p v-if="saidOfDries" class="problem warn said">{{ saidOfDries }}</p>
  </div>
</template>

<style scoped>
.said { white-space: pre-line; }
.places {
  display: grid;
  gap: 10px;
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
