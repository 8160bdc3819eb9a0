<script setup lang="ts">
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import {
  place as placeOf, PLACES, SKIES, USUAL_LATITUDE, USUAL_WEATHER, WINDS,
  type PlaceId, type Standing, type Weather,
} from '~core/drying/places'
import { SKY_WORDS, WIND_WORDS } from '~core/drying/words'
import { useSession } from '~/sync/session'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'
import { airProblem } from './air'

/**
 * Where something stands and in what air: a room's, or outside a day's from its coldest to its warmest hour.
 * `change` tells each keystroke, `settled` what is meant.
 */
const { standing, label = 'Where it stands', fixed = false } = defineProps<
  { standing: Standing, label?: string, fixed?: boolean }
>()
const emit = defineEmits<{ change: [to: Standing], settled: [to: Standing] }>()
const session = useSession(), id = useId()
const outdoors = computed(() => placeOf(standing.place).outdoors === true)
const weather = computed(() => standing.weather ?? USUAL_WEATHER)
const places = [...PLACES]
const skies = SKIES.map(sky => ({ id: sky, name: SKY_WORDS[sky] }))
const winds = WINDS.map(wind => ({ id: wind, name: WIND_WORDS[wind] }))

function tell(to: Standing) {
  emit('change', to)
  emit('settled', to)
}
function choosePlace(place: PlaceId) {
  tell({ place, air: standing.air, ...placeOf(place).outdoors && { weather: weather.value } })
}
const withAir = (celsius: number) => ({ ...standing, air: { ...standing.air, celsius } })
const putHumidity = (percent: number) => tell({ ...standing, air: { ...standing.air, humidity: percent / 100 } })
const putWeather = (change: Partial<Weather>) => tell({ ...standing, weather: { ...weather.value, ...change } })
const checkAir = (celsius: number) => airProblem(celsius, session.units)

const byDay = computed(() => standing.air.celsius + weather.value.swing)
const byNight = computed(() => standing.air.celsius - weather.value.swing)
const between = (night: number, day: number): Standing =>
  ({ ...withAir((day + night) / 2), weather: { ...weather.value, swing: Math.abs(day - night) / 2 } })
const withDay = (day: number) => between(byNight.value, day)
const withNight = (night: number) => between(night, byDay.value)
const apart = (day: number, night: number) =>
  day < night ? 'The night is colder than the day.' : day - night > 40 ? 'No day is that much warmer than its night.' : undefined
const checkDay = (day: number) => checkAir(day) ?? apart(day, byNight.value)
const checkNight = (night: number) => checkAir(night) ?? apart(byDay.value, night)
const north = computed(() => weather.value.latitude ?? USUAL_LATITUDE)
</script>

<template>
  <div class="standing">
    <div v-if="!fixed" class="field">
      <span :id="`${id}-where`" class="small strong">{{ label }}</span>
      <Select
        :model-value="standing.place"
        :options="places"
        option-label="name"
        option-value="id"
        :aria-labelledby="`${id}-where`"
        @update:model-value="choosePlace" />
    </div>
    <QuantityField
      v-if="!outdoors"
      kind="temperature"
      field="air"
      label="Air there"
      :model-value="standing.air.celsius"
      :check="checkAir"
      @given="emit('change', withAir($event))"
      @settled="emit('settled', withAir($event))" />
    <template v-else>
      <QuantityField
        kind="temperature"
        field="air"
        label="Warmest by day"
        :model-value="byDay"
        :check="checkDay"
        @given="emit('change', withDay($event))"
        @settled="emit('settled', withDay($event))" />
      <QuantityField
        kind="temperature"
        field="air"
        label="Coldest by night"
        :model-value="byNight"
        :check="checkNight"
        @given="emit('change', withNight($event))"
        @settled="emit('settled', withNight($event))" />
    </template>
    <div class="pair">
      <span class="strong">Humidity</span
      ><Stepper
        label="Humidity, percent"
        unit=" %"
        :min="5"
        :max="100"
        :step="5"
        :model-value="Math.round(100 * standing.air.humidity)"
        @update:model-value="putHumidity" />
    </div>
    <template v-if="outdoors">
      <div class="pair">
        <span :id="`${id}-sky`" class="strong">The days</span>
        <Select
          :model-value="weather.sky"
          :options="skies"
          option-label="name"
          option-value="id"
          :aria-labelledby="`${id}-sky`"
          @update:model-value="putWeather({ sky: $event })" />
      </div>
      <div class="pair">
        <span class="strong">Wind</span>
        <SelectButton
          :model-value="weather.wind"
          :options="winds"
          option-label="name"
          option-value="id"
          :allow-empty="false"
          aria-label="Wind"
          @update:model-value="putWeather({ wind: $event })" />
      </div>
      <div class="pair">
        <span><span class="strong">Degrees north</span> <span class="small soft">(south: −)</span></span
        ><Stepper
          label="Degrees north"
          unit="°"
          :min="-70"
          :max="70"
          :step="5"
          :model-value="north"
          @update:model-value="putWeather({ latitude: $event })" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.standing,
.field {
  display: grid;
  gap: 10px;
}
.field {
  gap: 4px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 10px;
}
</style>
