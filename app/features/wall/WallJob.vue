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
    <HouseGlyph :id="STEP_GLYPHS[next.step.kind]" :size="44" />
    <div>
      <h2>{{ job.name }}</h2>
      <p class="act">{{ nameOfStep(next.step) }} <span class="when num">{{ whenWords(next.at, clock.beat) }}</span></p>
    </div>
  </article>
</template>

<style scoped>
article { display: grid; grid-template-columns: auto minmax(0, 1fr); gap: 4px 16px; align-items: center; padding: 8px 4px; }
h2 { font-size: clamp(1rem, 1.3vw, 1.3rem); color: var(--soft); font-weight: 620; }
.act { font-size: clamp(1.3rem, 1.9vw, 1.8rem); font-weight: 720; line-height: 1.1; }
.when { font-weight: 650; display: block; }
.now .when, .running .when { color: var(--set); }
.missed .when { color: var(--warn); }
</style>
