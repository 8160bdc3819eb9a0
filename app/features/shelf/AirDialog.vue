<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import Select from 'primevue/select'
import { place as placeOf, PLACES, type PlaceId, type Standing } from '~core/drying/places'
import { formatTemperature } from '~core/units/format'
import { useRoom } from '~/sync/climate'
import { useSession } from '~/sync/session'
import StandingFields from './StandingFields.vue'

/** The air as it is now, told once for every cast that stands in the same place. */
const { open, standing } = defineProps<{ open: boolean, standing: readonly Standing[] }>()
const emit = defineEmits<{ air: [told: Standing], closed: [] }>()
const session = useSession(), room = useRoom()
const counts = computed(() =>
  PLACES.map(p => ({ id: p.id, n: standing.filter(s => s.place === p.id).length })).filter(p => p.n > 0).sort((a, b) =>
    b.n - a.n,
  ),
)
const choices = computed(() =>
  counts.value.map(({ id, n }) => ({ id, name: `${placeOf(id).name}: ${n} ${n === 1 ? 'cast' : 'casts'}` })),
)
const chosen = ref<PlaceId>(), told = ref<Standing>()
function choose(id: PlaceId | undefined) {
  chosen.value = id
  const here = standing.find(s => s.place === id)
  told.value = here && { place: here.place, air: here.air, weather: here.weather }
}
watch(() => open, (now) => {
  if (now) {
    choose(counts.value[0]?.id)
    room.listen()
  }
  else room.stop()
})
const n = computed(() => counts.value.find(c => c.id === chosen.value)?.n ?? 0)
function takeRoom() {
  if (told.value) told.value = { ...told.value, air: { celsius: room.celsius!, humidity: room.humidity! } }
}
function send() {
  if (told.value) emit('air', told.value)
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
      <StandingFields v-if="told" :standing="told" fixed @change="told = $event" />
      <Button
        v-if="room.here && told && !placeOf(told.place).outdoors"
        :label="`Use the room sensor: ${formatTemperature(room.celsius!, session.units)}, ${Math.round(100 * room.humidity!)} %`"
        severity="secondary"
        @click="takeRoom" />
      <p class="small soft">Their drying is worked out anew from now on; what stood before stands.</p>
      <Button type="submit" :label="`Note it for ${n} ${n === 1 ? 'cast' : 'casts'}`" :disabled="n === 0" />
    </form>
  </Dialog>
</template>

<style scoped>
.air { display: grid; gap: 12px; }
</style>
