<script setup lang="ts">
import { powderOf } from '~core/plan/run'
import type { FrozenRun } from '~core/plan/run'
import type { BatchState } from '~core/pour/fold'
import type { GroundId } from '~core/setting/words'
import { formatConsistency, formatTemperature } from '~core/units/format'
import GroundButton from '~/ui/GroundButton.vue'
import { useSession } from '~/sync/session'

/** A time at the bench, and what it is foretold from. */
const { run, batch } = defineProps<{ ground: GroundId, run: FrozenRun, batch: BatchState }>()
const session = useSession()
function from(): string {
  const { plan, ratio } = run, units = session.units
  return [
    `${powderOf(run).name}, ${formatConsistency(batch.ratio ?? ratio.value)} water to 100`,
    `water ${formatTemperature(batch.water ?? plan.waterTemperature, units)}`,
    `room ${formatTemperature(batch.room ?? plan.roomTemperature, units)}`,
    ...batch.marks.length > 0 ? ['what was marked'] : [],
  ].join('; ')
}
</script>

<template>
  <GroundButton :ground="ground" :from="from"><slot /></GroundButton>
</template>
