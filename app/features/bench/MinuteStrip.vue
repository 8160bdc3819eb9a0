<script setup lang="ts">
import { formatDuration } from '~core/units/format'
import type { Cue } from '~core/bench/cues'
import { cueAhead, cueShort } from '~core/bench/words'

/** The next few minutes drawn plainly, because the ripple chart crowds them. */
const { cues, now } = defineProps<{ cues: readonly Cue[], now: number }>()
const SPANS = [600, 1800, 7200, 28_800] as const
const ahead = computed(() => cues.filter(c => c.at > now))
const next = computed(() => ahead.value[0])
const span = computed(() => SPANS.find(s => next.value && (next.value.at - now) / 1000 < s * 0.8) ?? 86_400)
const marks = computed(() => {
  let free = -Infinity
  return ahead.value.filter(c => (c.at - now) / 1000 < span.value).flatMap((c) => {
    const x = 100 * (c.at - now) / 1000 / span.value
    const word = x - free > 11
    if (word) free = x
    return [{ ...c, x, word }]
  })
})
</script>

<template>
  <div v-if="next" class="strip">
    <p class="next">
      {{ cueAhead(next) }} in <span class="num">{{ formatDuration((next.at - now) / 1000) }}</span>
    </p>
    <div class="line" aria-hidden="true">
      <span v-for="m in marks" :key="m.id" class="mark" :style="{ left: `${m.x}%` }"
      ><span v-if="m.word">{{ cueShort(m) }}</span></span
      >
      <span class="end num">{{ formatDuration(span, 'minute') }}</span>
    </div>
  </div>
</template>

<style scoped>
.strip { display: grid; gap: 8px; }
.next { font-size: 1.12rem; }
.next .num { font-weight: 700; }
.line { position: relative; height: 34px; overflow-x: clip; border-top: 3px solid var(--line-strong); }
.mark { position: absolute; top: -9px; height: 15px; border-left: 3px solid var(--action); }
.mark span { position: absolute; top: 16px; left: -2px; white-space: nowrap; font-size: 0.85rem; color: var(--soft); }
.end { position: absolute; right: 0; top: -24px; font-size: 0.8rem; color: var(--soft); }
</style>
