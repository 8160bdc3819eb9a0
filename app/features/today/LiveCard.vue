<script setup lang="ts">
import { formatDuration } from '~core/units/format'
import type { PourRow } from '~contract/pour'
import PourPicture from '~/features/library/PourPicture.vue'
import GroundButton from '~/ui/GroundButton.vue'
import { MOMENT_GROUND, pourFrom } from '~/ui/grounds'
import PlainButton from '~/ui/PlainButton.vue'
import { useClock } from '~/sync/clock'
import { useSession } from '~/sync/session'
import { nextMoment } from './next'

/** A pour that is under way: how far it is and what comes next. It reads the clock itself. */
const { pour } = defineProps<{ pour: PourRow }>()
const clock = useClock(), session = useSession()
const wet = computed(() =>
  pour.summary.wetAt ? `, wet ${formatDuration((clock.beat - pour.summary.wetAt) / 1000, 'minute')} ago` : '',
)
const next = computed(() => nextMoment(pour.summary, clock.beat))
</script>

<template>
  <li class="sheet">
    <PourPicture :summary="pour.summary" :size="86" />
    <div class="what">
      <NuxtLink :to="`/bench/${pour.id}`" class="row-link"><h3>{{ pour.summary.name }}</h3></NuxtLink>
      <p class="small soft">{{ pour.summary.powder }}{{ wet }}</p>
      <p class="next">
        <GroundButton v-if="next" :ground="MOMENT_GROUND[next.id]" :from="() => pourFrom(pour.summary, session.units)"
        ><span class="num strong">{{ next.in }}</span>{{ ' ' }}{{ next.words }}</GroundButton>
        <template v-else>{{ pour.summary.step.instruction }}</template>
      </p>
    </div>
    <PlainButton
      label="Bench"
      :aria-label="`Open ${pour.summary.name} on the bench`"
      @click="navigateTo(`/bench/${pour.id}`)" />
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 18px;
  align-items: center;
  padding: 16px 18px;
}
.next {
  margin-top: 6px;
  font-size: 1.12rem;
}
.next .num {
  font-size: 1.15rem;
  color: var(--action);
}
</style>
