<script setup lang="ts">
import { COAT_MOMENT_WORDS } from '~core/bench/words'
import type { CoatMoment } from '~core/bench/coat-moment'
import { formatDuration, formatFine } from '~core/units/format'
import { timeOfDay } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'

/** When this coat goes on the one before, and for a shell how thick where. */
const { coat } = defineProps<
  { coat: CoatMoment & { readonly number: number, /** Its own mix is wet already. */ readonly mixing: boolean } }
>()
const clock = useClock(), store = useRun(), session = useSession()
const areas = computed(() => store.run!.plan.coats?.areas?.filter(a => (a.thickness[coat.number - 1] ?? 0) > 0) ?? [])
const untilMix = computed(() => (coat.mixAt - clock.now) / 1000)
</script>

<template>
  <div :class="['coat', coat.state]">
    <p class="when" role="status">
      <template v-if="coat.state === 'early' && !coat.mixing && untilMix > 0"
      >Start mixing coat {{ coat.number }} at <span class="num">{{ timeOfDay(coat.mixAt) }}</span>, in
        {{ formatDuration(untilMix) }}</template
      >
      <template v-else-if="coat.state === 'early' && !coat.mixing">Start mixing coat {{ coat.number }} now</template>
      <template v-else-if="coat.state === 'early'"
      >Coat {{ coat.number }} goes on at about <span class="num">{{ timeOfDay(coat.from) }}</span></template
      >
      <template v-else-if="coat.state === 'now'"
      >Coat {{ coat.number }} on now, before <span class="num">{{ timeOfDay(coat.to) }}</span></template
      >
      <template v-else>Too late to bond by itself</template>
    </p>
    <p class="how">{{ COAT_MOMENT_WORDS[coat.state] }}</p>
    <ul v-if="areas.length > 0">
      <li v-for="a in areas" :key="a.name">
        <span class="strong">{{ a.name }}</span>{{ ' ' }}
        <span class="num">{{ formatFine(a.thickness[coat.number - 1]!, session.units) }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.coat {
  display: grid;
  gap: 4px;
  padding: 10px 16px;
  border-left: 6px solid var(--set);
  background: var(--sheet);
  border-radius: 10px;
}
.when {
  font-size: clamp(1.4rem, 2.4vw, 1.9rem);
  font-weight: 680;
  color: var(--set);
}
.early {
  border-color: var(--line-strong);
}
.early .when {
  color: var(--ink);
}
.late {
  border-color: var(--warn);
}
.late .when {
  color: var(--warn);
}
.how {
  font-size: 1.1rem;
  max-width: 60ch;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
  font-size: 1.15rem;
}
</style>
