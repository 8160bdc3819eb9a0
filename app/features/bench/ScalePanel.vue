<script setup lang="ts">
import { formatMass } from '~core/units/format'
import { useSession } from '~/sync/session'
import type { useWeighing } from './useWeighing'

/** What stands on the scale, large enough for two metres, and how much more. */
const { weighing } = defineProps<{ weighing: ReturnType<typeof useWeighing> }>()
const { scale, part, begun, target, islands, words, shown, share, insisting } = weighing
const session = useSession()
const islandsWords = computed(() =>
  islands.value
  && `Dry islands would stay at about ${formatMass(islands.value.at / 1000, session.units)} (${
    formatMass(islands.value.from / 1000, session.units)
  } to ${formatMass(islands.value.to / 1000, session.units)})`,
)
const line = computed(() => {
  if (!scale.here) return 'The scale is not heard: switched off, unplugged or asleep. What stood on it is kept.'
  if (scale.weighing.state === 'overload') return 'Too much for this scale: take something off.'
  if (!part.value) return 'Both are weighed.'
  if (!begun.value)
    return scale.weighing.state === 'lifted'
      ? `${part.value === 'water' ? 'Bucket' : 'Dry bucket'} on, then tare.`
      : 'Tare now, if the bucket is on.'
  if (scale.weighing.state === 'lifted') return 'Put the bucket back.'
  return words.value.words
})
</script>

<template>
  <div :class="['scale', begun ? `is-${words.kind}` : 'waits']">
    <p class="num net">{{ shown }}</p>
    <div class="track" aria-hidden="true">
      <span :style="{ width: `${begun ? share * 100 : 0}%` }" />
      <i v-if="islands && islands.at < target" :style="{ left: `${100 * islands.at / target}%` }" />
    </div>
    <p v-if="islandsWords && begun" class="islands">
      {{ islandsWords }}{{ islands!.at < target ? ': stop there if they stay.' : ', beyond what you weigh.' }}
    </p>
    <p class="line" role="status">{{ line }}<template v-if="insisting"> Press again to go on as it is.</template></p>
  </div>
</template>

<style scoped>
.scale {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 4px 20px;
  align-items: center;
  padding: 10px 18px;
  border-radius: 12px;
  background: var(--sheet);
  border-left: 6px solid var(--action);
}
.net {
  font-size: clamp(2.4rem, 5.4vw, 4.2rem);
  font-weight: 750;
  line-height: 1;
}
.track {
  position: relative;
  height: 22px;
  border-radius: 11px;
  background: var(--action-soft);
  overflow: hidden;
}
.track i {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 4px dotted var(--powder);
}
.islands {
  grid-column: 1 / -1;
  font-size: 1.05rem;
  color: var(--soft);
}
.track span {
  display: block;
  height: 100%;
  background: var(--water);
}
.line {
  grid-column: 1 / -1;
  font-size: 1.35rem;
  font-weight: 650;
}
.is-slow .line {
  color: var(--warn);
}
.is-there .line,
.is-there .net {
  color: var(--set);
}
.is-there .track span {
  background: var(--set);
}
.is-over .line,
.is-over .net {
  color: var(--heat);
}
.is-over .track span {
  background: var(--heat);
}
</style>
