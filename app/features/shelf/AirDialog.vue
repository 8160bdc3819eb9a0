<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import Select from 'primevue/select'
import { place as placeOf, PLACES, type PlaceId, type Standing } from '~core/drying/cast'
import type { Air } from '~core/drying/air'
import { formatTemperature } from '~core/units/format'
import { useRoom } from '~/sync/climate'
import { useSession } from '~/sync/session'
import { airProblem } from './air'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'

/** The air as it is now, told once for every cast that stands in the same place. */
const { open, standing } = defineProps<{ open: boolean, standing: readonly Standing[] }>()
const emit = defineEmits<{ air: [place: PlaceId, air: Air], closed: [] }>()
const session = useSession(), room = useRoom()
const counts = computed(() =>
  PLACES.map(p => ({ id: p.id, n: standing.filter(s => s.place === p.id).length })).filter(p => p.n > 0).sort((a, b) =>
    b.n - a.n,
  ),
)
const choices = computed(() =>
  counts.value.map(({ id, n }) => ({ id, name: `${placeOf(id).name}: ${n} ${n === 1 ? 'cast' : 'casts'}` })),
)
const chosen = ref<PlaceId>(), celsius = ref(20), humidity = ref(0.5)
function choose(id: PlaceId | undefined) {
  chosen.value = id
  const air = standing.find(s => s.place === id)?.air
  if (air) [celsius.value, humidity.value] = [air.celsius, air.humidity]
}
watch(() => open, (now) => {
  if (now) {
    choose(counts.value[0]?.id)
    room.listen()
  }
  else room.stop()
})
const n = computed(() => counts.value.find(c => c.id === chosen.value)?.n ?? 0)
const check = (t: number) => airProblem(t, session.units)
function send() {
  if (chosen.value) emit('air', chosen.value, { celsius: celsius.value, humidity: humidity.value })
}
</script>

<template>
  <Dialog
    :visible="open"
    modal
    header="The air here"
    :style="{ width: 'min(460px, 95vw)' }"
    dismissable-mask
    @update:visible="emit('closed')">
    <form class="air" @submit.prevent="send">
      <div class="field">
        <span id="air-where" class="small strong">For those that stand</span
        ><Select
          :model-value="chosen"
          :options="choices"
          option-label="name"
          option-value="id"
          aria-labelledby="air-where"
          @update:model-value="choose" />
      </div>
      <QuantityField
        kind="temperature"
        label="Air there"
        :model-value="celsius"
        :check="check"
        @given="celsius = $event" />
      <div class="pair">
        <span class="strong">Humidity</span
        ><Stepper
          label="Humidity, percent"
          unit=" %"
          :min="5"
          :max="100"
          :step="5"
          :model-value="Math.round(100 * humidity)"
          @update:model-value="humidity = $event / 100" />
      </div>
      <Button
        v-if="room.here"
        :label="`Use the room sensor: ${formatTemperature(room.celsius!, session.units)}, ${Math.round(100 * room.humidity!)} %`"
        severity="secondary"
        @click="[celsius, humidity] = [room.celsius!, room.humidity!]" />
      <p class="small soft">Their drying is worked out anew from now on; what stood before stands.</p>
      <Button type="submit" :label="`Note it for ${n} ${n === 1 ? 'cast' : 'casts'}`" :disabled="n === 0" />
    </form>
  </Dialog>
</template>

<style scoped>
.air { display: grid; gap: 12px; }
.pair { display: grid; grid-template-columns: 1fr auto; align-items: center; gap: 10px; }
</style>
