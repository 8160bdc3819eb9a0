<script setup lang="ts">
import type { JobStep } from '~core/job/types'
import type { StepTimes } from '~core/job/windows'
import { HELP_WORDS, STEP_STATE_WORDS, nameOfStep } from '~core/job/words'
import { formatDuration } from '~core/units/format'
import { useClock } from '~/sync/clock'
import GroundButton from '~/ui/GroundButton.vue'
import HouseGlyph from '~/ui/HouseGlyph.vue'
import { STEP_GLYPHS, whenWords } from './step-signs'

/** The chain, drawn as one: what is done is filled, what is next is yellow, each with its window as times. */
const { steps, times, next, mayWrite } = defineProps<{
  steps: readonly JobStep[]
  times: readonly StepTimes[]
  next: string | undefined
  mayWrite: boolean
}>()
const emit = defineEmits<{ begin: [id: string], end: [id: string], back: [id: string], mix: [id: string] }>()
const clock = useClock()
/** The others' times say it already. */
const SAID = new Set(['done', 'running', 'waiting', 'missed'])
const rows = computed(() => steps.flatMap((step) => {
  const at = times.find(t => t.id === step.id)
  if (!at) return []
  const takes = step.kind === 'pour' ? Math.max(60, (at.ends - at.from) / 1000) : step.minutes * 60
  return [{
    step, at, name: nameOfStep(step), when: whenWords(at, clock.beat), state: SAID.has(at.state) ? STEP_STATE_WORDS[at.state] : '',
    takes: formatDuration(takes, takes > 90 ? 'minute' : 'second'), isNext: step.id === next,
    mayBegin: step.kind !== 'until' && step.id !== next && ['now', 'missed'].includes(at.state),
    mayGoBack: step.kind !== 'until' && step.kind !== 'pour' && (step.began !== undefined || step.ended !== undefined),
    late: at.late && { by: formatDuration(at.late.by / 1000, 'minute'), help: at.late.help && HELP_WORDS[at.late.help] },
  }]
}))
</script>

<template>
  <ol class="rail" aria-label="Steps of this job">
    <li
      v-for="r in rows"
      :key="r.step.id"
      :class="[r.at.state, r.step.kind, { next: r.isNext }]"
      :aria-current="r.isNext ? 'step' : undefined">
      <span class="knot"><HouseGlyph :id="STEP_GLYPHS[r.step.kind]" :size="20" /></span>
      <span class="what">
        <span class="strong">{{ r.name }}</span>
        <span v-if="r.at.state !== 'done'" class="small soft">{{ ' ' }}<GroundButton :ground="r.step.kind === 'pour' ? 'steps' : 'job-step'">about {{ r.takes }}</GroundButton></span>
        <span v-if="r.late && r.at.state === 'done'" class="small late"> begun {{ r.late.by }} late</span>
      </span>
      <span class="when"><span class="num">{{ r.when }}</span> <span v-if="r.state" class="state">{{ r.state }}</span></span>
      <span class="ways">
        <NuxtLink v-if="r.step.pour" :to="`/bench/${r.step.pour}`" class="way">Bench</NuxtLink>
        <button
          v-else-if="mayWrite && r.mayBegin && r.step.kind === 'pour'"
          type="button"
          class="way"
          :aria-label="`Mix it: ${r.name}`"
          @click="emit('mix', r.step.id)">Mix it</button>
        <button
          v-else-if="mayWrite && r.mayBegin"
          type="button"
          class="way"
          :aria-label="`Done: ${r.name}`"
          @click="emit('end', r.step.id)">Done</button>
        <button
          v-if="mayWrite && r.mayGoBack"
          type="button"
          class="way"
          :aria-label="`Take back: ${r.name}`"
          @click="emit('back', r.step.id)">Back</button>
      </span>
      <p v-if="r.late?.help && r.at.state === 'missed'" class="help">{{ r.late.help }}</p>
    </li>
  </ol>
</template>

<style scoped>
.rail { list-style: none; padding: 0; margin: 0; display: grid; }
li { display: grid; grid-template-columns: 44px minmax(0, 1.4fr) minmax(0, 1fr) 86px; gap: 2px 12px; align-items: center; padding: 9px 0; position: relative; min-height: 54px; }
/* The cord that holds them together. */
li::before { content: ''; position: absolute; left: 20px; top: 0; bottom: 0; width: 4px; background: var(--line-strong); z-index: 0; }
li:first-child::before { top: 30px; }
li:last-child::before { bottom: auto; height: 30px; }
li.done::before { background: var(--set); }
.knot { width: 44px; height: 44px; border-radius: 50%; border: 2px solid var(--line-strong); background: var(--ground); display: grid; place-items: center; z-index: 1; color: var(--soft); }
.pour .knot, .mix .knot { border-radius: 8px 8px 16px 16px; }
.until .knot { border-style: dashed; }
.done .knot { background: var(--set); border-color: var(--set); color: var(--ground); }
.now .knot, .running .knot, .waiting .knot { border-color: var(--ink); color: var(--ink); }
.missed .knot { border-color: var(--heat); color: var(--heat); }
.next .knot { background: var(--now); border-color: var(--now); color: var(--now-ink); }
.what { line-height: 1.25; min-width: 0; }
.next .what { font-size: 1.12rem; }
.ahead .what .strong { font-weight: 550; }
.done .what .strong { font-weight: 500; color: var(--soft); }
.when { font-size: 0.95rem; min-width: 0; }
.state { color: var(--soft); font-size: 0.84rem; }
.missed .when, .late { color: var(--heat); }
.now .state { color: var(--set); font-weight: 650; }
.help { grid-column: 2 / -1; border-left: 4px solid var(--heat); padding-left: 10px; max-width: 62ch; }
.ways { display: flex; gap: 6px; justify-content: end; }
.way { border: 1.5px solid var(--line-strong); background: none; border-radius: 10px; min-height: 36px; padding: 2px 12px; font-weight: 600; color: var(--ink); display: inline-grid; align-content: center; text-decoration: none; }
@media (max-width: 720px) {
  li { grid-template-columns: 44px minmax(0, 1fr) 86px; }
  .when { grid-column: 2; grid-row: 2; }
  .ways { grid-column: 3; grid-row: 1 / 3; flex-direction: column; }
  .way { min-height: 44px; }
  .help { grid-column: 2 / -1; }
}
</style>
