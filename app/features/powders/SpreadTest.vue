<script setup lang="ts">
import { format } from 'date-fns'
import Button from 'primevue/button'
import { readSpread, SPREAD_POWDER, spreadExpected, spreadRatio, type SpreadReading } from '~core/forecast/spread-test'
import { spreadWords } from '~core/forecast/words'
import { RING } from '~core/setting/spread'
import { formatConsistency, formatDuration, formatLength, formatMass, formatTemperature, formatTemperatures } from '~core/units/format'
import type { BagBody } from '~contract/library'
import { powderClass } from '~core/gypsum/powders'
import QuantityField from '~/ui/QuantityField.vue'
import RatioField from '~/ui/RatioField.vue'
import SpreadPhoto from './SpreadPhoto.vue'
import { useClock } from '~/sync/clock'
import { useSession } from '~/sync/session'

/** How a bag flows: a ring of mix let go on wet glass. */
const { body, busy, mix } = defineProps<{
  body: BagBody
  busy: boolean
  /** The mix in hand at the bench; else one is made for the test. */
  mix?: { readonly ratio: number, readonly celsius: number, readonly after: number }
}>()
const emit = defineEmits<{ kept: [change: Partial<BagBody>, words: string] }>()
const session = useSession(), clock = useClock()
const typedRatio = ref(spreadRatio(body.classId)), typedCelsius = ref(20)
const ratio = computed(() => mix?.ratio ?? typedRatio.value), celsius = computed(() => mix?.celsius ?? typedCelsius.value)
const first = ref<number>(), second = ref<number>()
const units = computed(() => session.units)
const before = computed<readonly SpreadReading[]>(() => body.spreads ?? [])
const expected = computed(() => spreadExpected(body.classId, ratio.value, celsius.value, mix?.after))
const reading = computed<SpreadReading | undefined>(() => {
  if (first.value === undefined) return undefined
  const diameter = (first.value + (second.value ?? first.value)) / 2
  return { ratio: ratio.value, celsius: celsius.value, diameter, ...mix && { after: mix.after } }
})
const says = computed(() => reading.value && readSpread(body.classId, reading.value, before.value))
const words = computed(() => says.value && spreadWords(says.value, reading.value!, units.value))
const readable = computed(() => says.value !== undefined && says.value.code !== 'stiff' && says.value.code !== 'too-thin')
const last = computed(() => [...body.spreads ?? []].reverse().slice(0, 5))
const checkWidth = (v: number) =>
  v >= RING.diameter && v <= 0.4 ? undefined : 'Wider than the ring, and no wider than the glass.'
const checkWarmth = (v: number) => v >= 5 && v <= 40 ? undefined : `Between ${formatTemperatures(5, 40, units.value)} a test can be compared.`
function keep() {
  if (!reading.value || !words.value) return
  const at = Math.round(clock.read())
  emit('kept', { spreads: [...body.spreads ?? [], { at, ...reading.value }].slice(-50) }, words.value)
  first.value = second.value = undefined
}
</script>

<template>
  <div class="spread">
    <p v-if="mix">
      Wet glass, a ring of {{ formatLength(RING.diameter, units) }} inside and {{ formatLength(RING.height, units) }} high
      on it. Fill it, strike it level, lift it straight up, and measure across twice at right angles after a minute.
      {{ formatConsistency(ratio) }} to 100, {{ formatTemperature(celsius, units) }},
      {{ formatDuration(mix.after, 'minute') }} after powder met water.
    </p>
    <template v-else>
      <p>
        {{ formatMass(SPREAD_POWDER * ratio, units) }} water, {{ formatMass(SPREAD_POWDER, units) }} powder; soak and stir
        a minute each. Wet a sheet of glass, stand a ring of {{ formatLength(RING.diameter, units) }} inside and
        {{ formatLength(RING.height, units) }} high on it, fill it three minutes after powder met water, strike it level
        and lift it straight up in two to five seconds. After a minute measure across, twice at right angles. Mask on.
      </p>
      <RatioField
        v-model="typedRatio"
        label="Water per 100 powder"
        :powder="powderClass(body.classId)"
        :bulk="body.bulk"
        :temperature="celsius" />
      <QuantityField
        kind="temperature"
        field="air"
        label="Water and room"
        :model-value="celsius"
        :check="checkWarmth"
        @given="typedCelsius = $event" />
    </template>
    <p class="small soft">
      {{ before.length === 0 ? 'A mix of its class' : 'This bag’s class' }} runs to about
      {{ formatLength(expected, units) }}, give or take a seventh.
    </p>
    <QuantityField v-model="first" kind="length" label="Across" clearable :check="checkWidth" />
    <QuantityField v-model="second" kind="length" label="Across, at right angles" clearable :check="checkWidth" />
    <SpreadPhoto @across="first = second = $event" />
    <p v-if="words" role="status" class="strong">{{ words }}</p>
    <Button label="Keep it" :disabled="!readable || busy" @click="keep" />
    <ul v-if="last.length > 0" class="small ruled">
      <li v-for="s in last" :key="s.at">
        {{ format(s.at, 'd MMM yyyy') }}: <span class="num">{{ formatLength(s.diameter, units) }}</span> at
        {{ formatConsistency(s.ratio) }}, {{ formatTemperature(s.celsius, units) }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.spread {
  display: grid;
  gap: 12px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 10px;
}
.pair input {
  width: 5em;
  min-height: 36px;
  text-align: right;
  border: 1px solid var(--line-strong);
  border-radius: 9px;
  padding: 0 10px;
  background: var(--sheet);
}
</style>
