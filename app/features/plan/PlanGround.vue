<script setup lang="ts">
import type { GroundId } from '~core/setting/words'
import { formatConsistency, formatLength, formatTemperature } from '~core/units/format'
import GroundButton from '~/ui/GroundButton.vue'
import { useSession } from '~/sync/session'
import { usePlanning } from './planning'

/** A figure of the plan, and what it stands on. */
const { ground, basis } = defineProps<{ ground: GroundId, basis?: string }>()
const planning = usePlanning(), session = useSession()
/** What it was worked out from: asked for when it is opened, so that no figure is drawn anew for another. */
function from(): string {
  const { plan, result, governing } = planning, units = session.units
  return [
    result.powder.name,
    `${formatConsistency(result.ratio.low)}–${formatConsistency(result.ratio.high)} water to 100`,
    `water ${formatTemperature(plan.waterTemperature, units)}, room ${formatTemperature(plan.roomTemperature, units)}`,
    ...governing ? [`${governing.name}, ${formatLength(governing.section, units)} thick at most`] : [],
  ].join('; ')
}
</script>

<template>
  <GroundButton :ground="ground" :basis="basis" :from="from"><slot /></GroundButton>
</template>
