<script setup lang="ts">
import { SOAK_ADVICE_WORDS, stirAdviceWords, waterAdviceWords } from '~core/plan/words'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { CAST_SHAPES, MOULD_MATERIALS, SURROUNDINGS } from '~core/setting/body'
import { soakAdvice, stirAdvice, waterAdvice } from '~core/plan/choices'
import { classesBeside, powderClass } from '~core/gypsum/powders'
import { DRIVING } from '~core/setting/flow'
import { STIR_TOOLS } from '~core/gypsum/stirring'
import { formatConsistency, formatDuration, formatLength, formatPercent, formatTemperature } from '~core/units/format'
import AdditionPicker from '~/ui/AdditionPicker.vue'
import QuantityField from '~/ui/QuantityField.vue'
import RatioField from '~/ui/RatioField.vue'
import { useLab } from '~/features/lab/lab'
import { useSession } from '~/sync/session'
import Lever from './Lever.vue'

/** Everything that can be moved in the chosen mix. */
const lab = useLab(), session = useSession()
const mix = computed(() => lab.mix)
const powder = computed(() => powderClass(mix.value.classId))
const options = <T extends string>(record: Readonly<Record<T, { readonly name: string }>>) =>
  Object.entries(record).map(([id, v]) => ({ id: id as T, name: (v as { name: string }).name }))
const TOOLS = options(STIR_TOOLS)
const CHOICES = [
  { key: 'shape', label: 'It is', options: options(CAST_SHAPES) },
  { key: 'mould', label: 'Mould', options: options(MOULD_MATERIALS) },
  { key: 'behind', label: 'Stands', options: options(SURROUNDINGS) },
  { key: 'driving', label: 'Bubbles', options: options(DRIVING) },
] as const
const BUCKET = [{ share: 0, name: 'Clean' }, { share: 0.002, name: 'A smear' }, {
  share: 0.01,
  name: 'A crust',
}] as const
const span = computed(() => {
  const { low, high } = powder.value.ratio
  return {
    low: Math.max(0.17, Math.min(low - (high - low) * 0.7, mix.value.ratio)),
    high: Math.max(high + (high - low) * 0.7, mix.value.ratio),
  }
})
const mixed = computed(() => lab.current.curve?.temperature[0] ?? mix.value.waterTemperature)
/** Another powder comes with its own recommended ratio. */
function powderTo(classId: typeof mix.value.classId) {
  lab.change({ classId, ratio: powderClass(classId).ratio.recommended })
}
</script>

<template>
  <section class="levers" aria-label="What to move">
    <div class="field">
      <span id="lab-powder" class="small strong">Powder</span>
      <Select
        :model-value="mix.classId"
        :options="[...classesBeside(mix.classId)]"
        option-label="name"
        option-value="id"
        aria-labelledby="lab-powder"
        fluid
        @update:model-value="powderTo"
      />
    </div>
    <Lever
      label="Water per 100 powder"
      :min="span.low"
      :max="span.high"
      :step="0.01"
      :checked="[powder.ratio.low, powder.ratio.high]"
      :say="`${formatConsistency(mix.ratio)} parts of water to 100 of powder`"
      :model-value="mix.ratio"
      @update:model-value="lab.change({ ratio: $event })"
    >
      <RatioField
        :model-value="mix.ratio"
        label="Water per 100 powder, by weight"
        :powder="powder"
        :temperature="mix.waterTemperature"
        @update:model-value="lab.change({ ratio: $event })" />
    </Lever>
    <Lever
      label="Water temperature"
      :min="2"
      :max="60"
      :step="1"
      :checked="[3, 40]"
      :say="formatTemperature(mix.waterTemperature, session.units)"
      :model-value="mix.waterTemperature"
      @update:model-value="lab.change({ waterTemperature: $event })">
      <QuantityField
        kind="temperature"
        field="water"
        label="Water"
        :model-value="mix.waterTemperature"
        @given="lab.change({ waterTemperature: $event })" />
    </Lever>
    <p class="small soft">{{ waterAdviceWords(waterAdvice(mix.waterTemperature, mix.roomTemperature, mixed), session.units) }}</p>
    <Lever
      label="Room temperature"
      :min="0"
      :max="40"
      :step="1"
      :checked="[3, 40]"
      :say="formatTemperature(mix.roomTemperature, session.units)"
      :model-value="mix.roomTemperature"
      @update:model-value="lab.change({ roomTemperature: $event })">
      <QuantityField
        kind="temperature"
        field="air"
        label="Room and powder"
        :model-value="mix.roomTemperature"
        @given="lab.change({ roomTemperature: $event })" />
    </Lever>
    <Lever
      label="Before stirring"
      :min="0"
      :max="600"
      :step="15"
      :say="formatDuration(mix.soak)"
      :model-value="mix.soak"
      @update:model-value="lab.change({ soak: $event })">
      <QuantityField
        kind="time"
        field="minutes"
        label="Sift and soak"
        :model-value="mix.soak"
        :check="v => (v <= 7200 ? undefined : 'Two hours is far too long to soak.')"
        @given="lab.change({ soak: $event })" />
    </Lever>
    <p class="small soft">{{ SOAK_ADVICE_WORDS[soakAdvice('weighed', powder, Math.max(0, mix.soak / 60 - 1))] }}</p>
    <Lever
      label="Stirring"
      :min="0.25"
      :max="10"
      :step="0.25"
      :say="formatDuration(mix.stir.minutes * 60)"
      :model-value="mix.stir.minutes"
      @update:model-value="lab.change({ stir: { ...mix.stir, minutes: $event } })">
      <QuantityField
        kind="time"
        field="minutes"
        label="Stir"
        :model-value="mix.stir.minutes * 60"
        :check="v => (v <= 3600 ? undefined : 'An hour is far too long to stir.')"
        @given="lab.change({ stir: { ...mix.stir, minutes: $event / 60 } })" />
    </Lever>
    <div class="pair">
      <span id="lab-tool" class="strong">With</span>
      <Select
        :model-value="mix.stir.tool"
        :options="TOOLS"
        option-label="name"
        option-value="id"
        aria-labelledby="lab-tool"
        class="wide"
        @update:model-value="lab.change({ stir: { ...mix.stir, tool: $event } })" />
    </div>
    <p class="small soft">{{ stirAdviceWords(stirAdvice(mix.stir, powder, 2)) }}</p>
    <AdditionPicker :additions="mix.additions" @change="lab.change({ additions: $event })" />
    <div class="pair">
      <span id="lab-dirt" class="strong">Bucket</span>
      <SelectButton
        :model-value="mix.dirt"
        :options="[...BUCKET]"
        option-label="name"
        option-value="share"
        :allow-empty="false"
        aria-labelledby="lab-dirt"
        @update:model-value="lab.change({ dirt: $event })" />
    </div>
    <p v-if="mix.dirt > 0" class="small soft">
      Old set plaster, {{ formatPercent(mix.dirt) }} of the powder: each grain seeds the next set.
    </p>
    <Lever
      label="Thickness"
      :min="0.004"
      :max="0.12"
      :step="0.001"
      :checked="[0.004, 0.15]"
      :say="formatLength(mix.section, session.units)"
      :model-value="mix.section"
      @update:model-value="lab.change({ section: $event })">
      <QuantityField
        kind="length"
        field="size"
        label="Cast is thick"
        :model-value="mix.section"
        :check="v => (v > 0 && v <= 1 ? undefined : 'Between nothing and a metre.')"
        @amount="lab.change({ section: $event })" />
    </Lever>
    <div class="pair">
      <template v-for="c in CHOICES" :key="c.key">
        <span :id="`lab-${c.key}`" class="strong">{{ c.label }}</span>
        <Select
          :model-value="mix[c.key]"
          :options="c.options"
          option-label="name"
          option-value="id"
          :aria-labelledby="`lab-${c.key}`"
          class="wide"
          @update:model-value="lab.change({ [c.key]: $event })" />
      </template>
    </div>
  </section>
</template>

<style scoped>
.levers {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
}
.pair {
  display: grid;
  grid-template-columns: minmax(60px, 1fr) auto;
  gap: 8px 10px;
  align-items: center;
}
.wide {
  width: 205px;
}
</style>
