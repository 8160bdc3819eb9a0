<script setup lang="ts">
import type { CastSummary } from '~core/pour/projection'
import { useClock } from '~/sync/clock'

/** From filling to the end of what is awaited: the waiting as a line, the time to act as a band, now as a mark. */
const { cast } = defineProps<{ cast: CastSummary }>()
const clock = useClock()
const span = computed(() => {
  const now = clock.beat
  const drying = cast.openedAt !== undefined && cast.readyTo !== undefined
  const from = drying ? cast.openedAt! : cast.filledAt ?? now
  const [a, b] = drying ? [cast.readyFrom!, cast.readyTo!] : [cast.openFrom ?? now, cast.openTo ?? now]
  const end = Math.max(b + (b - from) * 0.15, Math.min(now, b + (b - from) * 0.6))
  const at = (t: number) => Math.min(100, Math.max(0, 100 * (t - from) / Math.max(1, end - from)))
  return { left: at(a), width: Math.max(2, at(b) - at(a)), now: at(now), drying }
})
</script>

<template>
  <span class="bar" aria-hidden="true">
    <span :class="['band', { drying: span.drying }]" :style="{ left: `${span.left}%`, width: `${span.width}%` }" />
    <span class="now" :style="{ left: `${span.now}%` }" />
  </span>
</template>

<style scoped>
.bar { position: relative; display: block; height: 26px; }
.bar::before { content: ''; position: absolute; inset: 12px 0 auto; border-top: 2px solid var(--line); }
.band { position: absolute; top: 6px; height: 14px; border-radius: 7px; background: #8fcdb0; }
.band.drying { background: #d9c3a0; }
.now { position: absolute; top: 1px; height: 24px; border-left: 3px solid var(--ink); margin-left: -1px; }
</style>
