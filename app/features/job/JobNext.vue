<script setup lang="ts">
import type { JobStep } from '~core/job/types'
import type { StepTimes } from '~core/job/windows'
import { HELP_WORDS, TASK_WORDS, nameOfStep } from '~core/job/words'
import { formatDuration } from '~core/units/format'
import { useClock } from '~/sync/clock'
import { STEP_GLYPHS, whenWords } from './step-signs'
import { counting, timeOfDay } from '~/ui/when'
import GroundButton from '~/ui/GroundButton.vue'
import HouseGlyph from '~/ui/HouseGlyph.vue'
import PlainButton from '~/ui/PlainButton.vue'
import { useHold } from './hold'

/** What is next, read from a metre: the act, its window as times, how long is left, and the one button for it. */
const { step, at, mayWrite, busy } = defineProps<{
  step: JobStep
  at: StepTimes
  mayWrite: boolean
  busy: boolean
}>()
const emit = defineEmits<{ begin: [], end: [], mix: [] }>()
const clock = useClock(), now = computed(() => Math.floor(clock.now / 1000) * 1000)
const isHold = computed(() => step.task === 'hold')
const left = computed(() => {
  // Windows are whole seconds: the end of what is over stays a part of one ahead of now.
  if (at.state === 'running') return Math.floor((at.ends - now.value) / 1000)
  if (at.state === 'ahead') return (at.from - now.value) / 1000
  return at.to === undefined ? undefined : (at.to - now.value) / 1000
})
const LONG_S = 6 * 3600
const leftWords = computed(() => {
  if (left.value === undefined || left.value > LONG_S || at.state === 'missed') return ''
  const said = counting(Math.max(0, left.value))
  if (at.state === 'running') return left.value > 0 ? `${said} to go` : 'done any moment'
  return at.state === 'ahead' ? `in ${said}` : `${said} left`
})
const eyebrow = computed(() => ({ ahead: 'Next', missed: 'Too late for its window' } as Record<string, string>)[at.state]
  ?? (at.state === 'running' ? 'In hand' : 'Now'))
useHold(() => isHold.value && at.state === 'running' ? left.value : undefined)
</script>

<template>
  <section :class="['next', at.state]" aria-label="What is next">
    <span class="eyebrow">{{ eyebrow }}</span>
    <h2><HouseGlyph :id="STEP_GLYPHS[step.kind]" :size="36" /> {{ nameOfStep(step) }}</h2>
    <p v-if="step.task && !step.name" class="how">{{ TASK_WORDS[step.task].how }}</p>
    <p class="when">
      <GroundButton ground="job-step"><span class="num">{{ whenWords(at, now) }}</span></GroundButton>
      <span
        v-if="leftWords"
        :class="['left num', { huge: isHold && at.state === 'running' }]"
        role="timer">{{ leftWords }}</span>
    </p>
    <p v-if="at.state === 'missed' && at.late" class="late">
      {{ formatDuration(at.late.by / 1000, 'minute') }} late. {{ at.late.help ? HELP_WORDS[at.late.help] : '' }}
    </p>
    <p
      v-if="isHold && at.state === 'running'"
      class="firm">It feels firm long before it is done. Out at {{ timeOfDay(at.ends) }}; no need to press anything.</p>
    <div v-if="mayWrite" class="acts">
      <NuxtLink v-if="step.pour" :to="`/bench/${step.pour}`" class="go">To the bench</NuxtLink>
      <button
        v-else-if="step.kind === 'pour'"
        type="button"
        class="go"
        :disabled="busy"
        @click="emit('mix')">Mix it</button>
      <template v-else-if="at.state === 'running'">
        <button type="button" class="go" @click="emit('end')">Done</button>
      </template>
      <template v-else>
        <button type="button" class="go" @click="emit('begin')">Begin</button>
        <PlainButton label="Done already" @click="emit('end')" />
      </template>
    </div>
  </section>
</template>

<style scoped>
.next { background: var(--now); color: var(--now-ink); border-radius: 16px; padding: 16px 20px 18px; display: grid; gap: 8px; }
.next.ahead { background: var(--band); color: var(--ink); }
.eyebrow { font-weight: 650; font-size: 0.95rem; color: inherit; }
h2 { display: flex; gap: 12px; align-items: center; font-size: clamp(1.7rem, 3.4vw, 2.5rem); line-height: 1.1; }
.how { max-width: 58ch; font-size: 1.08rem; }
.when { display: flex; flex-wrap: wrap; gap: 4px 18px; font-size: 1.15rem; font-weight: 650; align-items: baseline; }
.left { font-size: 1.5rem; }
.left.huge { font-size: clamp(3rem, 14vw, 6.5rem); line-height: 1; flex-basis: 100%; }
.late { border-left: 5px solid var(--now-ink); padding-left: 12px; font-weight: 600; max-width: 60ch; }
.firm { font-weight: 650; font-size: 1.1rem; }
.acts { display: flex; flex-wrap: wrap; gap: 10px; }
.go { border: 0; border-radius: 14px; background: var(--ink); color: var(--ground); font-weight: 700; font-size: 1.3rem; min-height: 64px; padding: 6px 34px; display: inline-grid; align-content: center; text-decoration: none; }
.next:not(.ahead) .go { background: var(--now-ink); color: var(--now); }
.next:not(.ahead) :deep(.plain-button) { background: none; color: var(--now-ink); border-color: var(--now-ink); }
@media (max-width: 720px) { .go { flex: 1 1 100%; min-height: 84px; } }
</style>
