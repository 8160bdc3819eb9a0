<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { PLACES, standingNow, type Standing } from '~core/drying/places'
import { castsOf, type FrozenRun } from '~core/plan/run'
import type { HappeningKind } from '~core/pour/events'
import type { UnitKind } from '~core/units/units'
import StandingFields from '~/features/shelf/StandingFields.vue'
import QuantityField from '~/ui/QuantityField.vue'
import type { Waiting } from '~/sync/outbox'

/** Says an entry otherwise that was not taken: what it is of, its number or its words. When and who stay as they were. */
const { entry, run } = defineProps<{ entry?: Waiting, run?: FrozenRun }>()
const emit = defineEmits<{ mended: [change: Partial<Pick<Waiting['event'], 'data' | 'batch'>>], closed: [] }>()

/** Which of its data is a number that somebody told. */
const NUMBERS: Partial<Record<HappeningKind, { readonly key: string, readonly kind: UnitKind, readonly label: string }>> = {
  'weighed': { key: 'mass', kind: 'mass', label: 'Weighed' },
  'cast-weighed': { key: 'mass', kind: 'mass', label: 'Weighed' },
  'temperature': { key: 'celsius', kind: 'temperature', label: 'Temperature' },
  'measured': { key: 'value', kind: 'length', label: 'Measured' },
}

const amount = ref<number>()
const cast = ref(''), batch = ref<number>(), text = ref('')
interface Told {
  readonly cast?: string
  readonly text?: string
  readonly note?: string
  readonly air?: Standing['air']
  readonly [key: string]: unknown
}
const stood = ref<Standing>()
const data = computed(() => (entry?.event.data ?? {}) as Told)
const number = computed(() => entry && NUMBERS[entry.event.kind])
const casts = computed(() => run ? castsOf(run).map(c => ({ id: c.id, label: c.label })) : [])
const batches = computed(() => (run?.batches ?? []).map((_, i) => ({ id: i, label: `Bucket ${i + 1}` })))
/** Which of its data is words. */
const worded = computed(() => (['text', 'note'] as const).find(key => typeof data.value[key] === 'string'))
watch(() => entry, () => {
  cast.value = casts.value.some(c => c.id === data.value.cast) ? data.value.cast! : ''
  batch.value = entry?.event.batch !== undefined && entry.event.batch < batches.value.length ? entry.event.batch : undefined
  amount.value = number.value && data.value[number.value.key] as number
  text.value = worded.value ? data.value[worded.value]! : ''
  stood.value = data.value.air && standingOf(data.value)
})
/** Where it was told to stand, by the places of today. */
function standingOf(told: Told): Standing {
  const { place, air, weather } = standingNow(told as unknown as Standing)
  return { place: PLACES.some(p => p.id === place) ? place : 'rack', air, ...weather && { weather } }
}
const whole = computed(() =>
  (data.value.cast === undefined || cast.value !== '')
  && (!number.value || amount.value !== undefined)
  && (data.value.cast !== undefined || entry?.event.batch === undefined || batch.value !== undefined),
)
function mend() {
  emit('mended', {
    data: {
      ...data.value,
      ...data.value.cast !== undefined && { cast: cast.value },
      ...number.value && { [number.value.key]: amount.value },
      ...stood.value,
      ...worded.value && { [worded.value]: text.value },
    } as Waiting['event']['data'],
    ...batch.value !== undefined && { batch: batch.value },
  })
}
</script>

<template>
  <Dialog
    :visible="entry !== undefined"
    modal
    header="Mend this entry"
    :style="{ width: 'min(460px, 95vw)' }"
    @update:visible="emit('closed')">
    <form @submit.prevent="mend">
      <p class="soft">{{ entry?.refused }}</p>
      <div v-if="data.cast !== undefined" class="field">
        <span id="mend-cast" class="strong small">It is about</span>
        <Select v-model="cast" :options="casts" option-label="label" option-value="id" aria-labelledby="mend-cast" />
      </div>
      <div v-else-if="entry?.event.batch !== undefined" class="field">
        <span id="mend-batch" class="strong small">It belongs to</span>
        <Select
          v-model="batch"
          :options="batches"
          option-label="label"
          option-value="id"
          aria-labelledby="mend-batch" />
      </div>
      <QuantityField v-if="number" v-model="amount" :kind="number.kind" :label="number.label" />
      <StandingFields v-if="stood" :standing="stood" @change="stood = $event" />
      <div v-if="worded" class="field">
        <label for="mend-text">Its words</label>
        <Textarea id="mend-text" v-model="text" rows="4" maxlength="2000" />
      </div>
      <p v-if="data.cast === undefined && entry?.event.batch === undefined && !number && !worded">
        There is nothing in it that can be said otherwise. Note it again where it belongs; this one stays here.
      </p>
      <Button v-else type="submit" label="Send it so" :disabled="!whole" />
    </form>
  </Dialog>
</template>

<style scoped>
form { display: grid; gap: 14px; }
.pair { display: grid; grid-template-columns: 1fr auto; align-items: center; gap: 10px; }
</style>
