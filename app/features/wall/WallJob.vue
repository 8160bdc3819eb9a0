<script setup lang="ts">
import { workOutJob } from '~core/job/windows'
import { nameOfStep } from '~core/job/words'
import type { WallJob } from '~contract/link'
import { STEP_GLYPHS, whenWords } from '~/features/job/step-signs'
import { useClock } from '~/sync/clock'
import HouseGlyph from '~/ui/HouseGlyph.vue'

/** One job for a whole room to read: what is next in it, and its window as times. */
const { job } = defineProps<{ job: WallJob }>()
const clock = useClock()
const pours = computed(() => new Map(job.pours.map(({ step, ...times }) => [step, times])))
const next = computed(() => {
  const { steps, next: id } = workOutJob(job.steps, pours.value, clock.beat)
  const step = job.steps.find(s => s.id === id), at = steps.find(s => s.id === id)
  return step && at && { step, at }
})
</script>

<template>
  <article v-if="next" :class="next.at.state">
    <HouseGlyph :id="STEP_GLYPHS[next.step.kind]" :size="56" />
    <div>
      <h2>{{ job.name }}</h2>
      <p class="act">{{ nameOfStep(next.step) }}</p>
    </div>
    <p class="when num">{{ whenWords(next.at, clock.beat) }}</p>
  </article>
</template>

<style scoped>
article { display: grid; grid-template-columns: auto minmax(0, 1fr) auto; gap: 6px 22px; align-items: center; padding: 14px 18px; border-top: 2px solid var(--line); }
h2 { font-size: clamp(1.1rem, 1.7vw, 1.6rem); color: var(--soft); font-weight: 620; }
.act { font-size: clamp(1.5rem, 2.6vw, 2.4rem); font-weight: 720; line-height: 1.1; }
.when { font-size: clamp(1.3rem, 2.2vw, 2.1rem); font-weight: 650; }
.now .when, .running .when { color: var(--set); }
.missed .when { color: var(--warn); }
@media (max-width: 720px) { article { grid-template-columns: auto minmax(0, 1fr); } .when { grid-column: 2; } }
</style>
