<script setup lang="ts">
import Popover from 'primevue/popover'
import { GROUNDS } from '~core/setting/grounds'
import { GROUND_WORDS, SURE_WORDS, type GroundId } from '~core/setting/words'
import { formatConsistency, formatLength, formatTemperature } from '~core/units/format'
import { useSession } from '~/sync/session'
import { usePlanning } from './planning'

/** A figure's words as a button that opens what it stands on. */
const { ground, basis } = defineProps<{ ground: GroundId, basis?: string }>()
const planning = usePlanning(), session = useSession(), popover = ref<InstanceType<typeof Popover>>()
const words = computed(() => GROUND_WORDS[ground])
/** What it was worked out from. */
const inputs = computed(() => {
  const { plan, result, governing } = planning, units = session.units
  return [
    result.powder.name,
    `${formatConsistency(result.ratio.low)}–${formatConsistency(result.ratio.high)} water to 100`,
    `water ${formatTemperature(plan.waterTemperature, units)}, room ${formatTemperature(plan.roomTemperature, units)}`,
    ...governing ? [`${governing.name}, ${formatLength(governing.section, units)} thick at most`] : [],
  ].join('; ')
})
const open = (event: Event) => popover.value?.toggle(event)
</script>

<template>
  <button class="ground" aria-haspopup="dialog" @click="open"><slot /></button>
  <Popover ref="popover" :style="{ maxWidth: 'min(380px, 92vw)' }">
    <div class="told">
      <p>{{ words.how }}</p>
      <p><span class="strong">From</span> {{ inputs }}.</p>
      <p v-if="basis"><span class="strong">Here</span> {{ basis }}.</p>
      <p><span class="strong">Source</span> {{ words.source }}</p>
      <p><span class="strong">{{ SURE_WORDS[GROUNDS[ground]] }}</span> {{ words.narrow }}</p>
    </div>
  </Popover>
</template>

<style scoped>
.ground {
  border: 0;
  padding: 0;
  background: none;
  font: inherit;
  color: inherit;
  text-align: left;
  text-decoration: underline dotted var(--line-strong);
  text-underline-offset: 4px;
  min-height: 24px;
}
.told {
  display: grid;
  gap: 8px;
  font-size: 0.9rem;
}
</style>
