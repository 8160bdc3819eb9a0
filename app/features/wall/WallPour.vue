<script setup lang="ts">
import { stepWords } from '~core/plan/step-words'
import { milestonesOf } from '~core/pour/milestones'
import { tapeOf } from '~core/pour/tape'
import type { FrozenRun } from '~core/plan/run'
import type { PourState } from '~core/pour/fold'
import { formatDuration } from '~core/units/format'
import { cuesOf, pouringEnds } from '~core/bench/cues'
import { cueAhead } from '~core/bench/cue-words'
import { softWindows } from '~core/bench/soft'
import { SOFT_WORDS } from '~core/bench/words'
import { counting, timeOfDay, windowOf } from '~/ui/when'
import { useClock } from '~/sync/clock'
import BenchDrawing from '~/features/bench/BenchDrawing.vue'
import BenchGround from '~/features/bench/BenchGround.vue'
import TimeTape from '~/ui/TimeTape.vue'

/** One live pour for a whole room to read: what is done now, what comes next, and its tape of time. */
const { run, state, runFor, large } = defineProps<
  {
    run: FrozenRun
    state: PourState /** As a batch has it by now. */
    runFor: (batch: number) => FrozenRun
    large: boolean
  }
>()
const clock = useClock()
/** Every batch that is not clean yet has its own line; the latest is drawn. */
const atWork = computed(() =>
  state.batches.flatMap((b, i) =>
    b.step !== undefined && b.cleanAt === undefined ? [{ i, step: state.steps[b.step]! }] : [],
  ),
)
const shown = computed(() => state.steps[state.step]!.batch)
const wetFor = computed(() =>
  state.batches[shown.value]!.wetAt === undefined
    ? undefined
    : Math.max(0, (clock.now - state.batches[shown.value]!.wetAt!) / 1000),
)
const milestones = computed(() => milestonesOf(runFor(shown.value), state, shown.value))
const tape = computed(() => tapeOf(milestones.value, run.plan.school, pouringEnds(runFor(shown.value), shown.value)))
const step = computed(() => state.steps[state.step]!)
const castsHere = computed(() => state.casts.filter(c => run.plan.coats || c.cast.batch === shown.value))
/** How far sifting is by its usual time. */
const share = computed(() => {
  const sift = milestones.value.find(m => m.id === 'sift')
  return sift && wetFor.value !== undefined ? Math.min(1, wetFor.value / Math.max(1, sift.value)) : 0
})
const next = computed(() => cuesOf(run, state, runFor).find(c => c.at > clock.now))
const open = computed(() => {
  const waiting = state.casts.filter(c => c.openedAt === undefined && c.openFrom !== undefined)
  if (waiting.length === 0) return undefined
  const from = Math.min(...waiting.map(c => c.openFrom!)), to = Math.max(...waiting.map(c => c.openTo!))
  return { words: windowOf(from, to, clock.now), now: clock.now >= from }
})
/** What hands can still do while it is soft, the one that closes first. */
const soft = computed(() => softWindows(runFor(shown.value), state, shown.value, clock.beat)
  .filter(w => w.state === 'now' && w.id !== 'trim').sort((a, b) => a.to - b.to)[0])
const batchName = (i: number) => run.batches.length > 1 ? `${run.plan.coats ? 'Coat' : 'Bucket'} ${i + 1}: ` : ''
</script>

<template>
  <article :class="{ large }">
    <div class="chart">
      <BenchDrawing
        bare
        v-bind="{ run, batch: shown, stage: step.stage, share, wetFor, milestones }"
        :casts="castsHere" />
    </div>
    <div class="words">
      <h2>{{ run.plan.name }}</h2>
      <template v-if="state.status === 'setting' && atWork.every(b => b.step.stage === 'set')"
      ><p :class="['step', { ready: open?.now }]">
        {{ open?.now ? 'The moulds can be opened' : 'Setting. Leave it alone.' }}
      </p></template
      >
      <p v-for="b in atWork.filter(x => x.step.stage !== 'set')" v-else :key="b.i" class="step">
        {{ batchName(b.i) }}{{ stepWords(b.step).instruction }}
      </p>
      <p v-if="next" class="next">
        {{ cueAhead(next) }} in <span class="num">{{ formatDuration((next.at - clock.now) / 1000) }}</span>
      </p>
      <p v-if="soft" class="next">
        {{ SOFT_WORDS[soft.id].name }} until <span class="num">{{ timeOfDay(soft.to) }}</span>
      </p>
      <p v-if="wetFor !== undefined" class="wet">
        <span class="num">{{ counting(wetFor) }}</span> since powder met water
      </p>
      <p v-if="open" class="open">
        <BenchGround ground="open" :run="runFor(shown)" :batch="state.batches[shown]!"
        >Open the moulds <span class="num">{{ open.words }}</span></BenchGround>
      </p>
      <TimeTape :tape="tape" :now="wetFor" />
    </div>
  </article>
</template>

<style scoped>
article {
  display: grid;
  grid-template-columns: minmax(0, 34%) minmax(0, 1fr);
  gap: 24px;
  align-items: center;
  padding: 18px;
  border-top: 2px solid var(--line);
  min-width: 0;
}
.chart {
  display: grid;
  gap: 16px;
}
h2 {
  font-size: clamp(1.2rem, 2vw, 1.9rem);
  color: var(--soft);
  font-weight: 620;
}
.words {
  display: grid;
  gap: 10px;
}
.step {
  font-size: clamp(1.5rem, 2.8vw, 2.6rem);
  font-weight: 720;
  line-height: 1.08;
}
.step.ready {
  color: var(--set);
}
.large .step {
  font-size: clamp(2.2rem, 5.4vw, 5.2rem);
}
.next {
  font-size: clamp(1.15rem, 1.9vw, 1.8rem);
}
.next .num,
.wet .num {
  font-weight: 700;
}
.large .next {
  font-size: clamp(1.5rem, 2.8vw, 2.6rem);
}
.wet {
  font-size: clamp(1.1rem, 1.7vw, 1.6rem);
  color: var(--soft);
}
.wet .num {
  color: var(--ink);
}
.open {
  font-size: clamp(1.2rem, 2vw, 2rem);
  color: var(--set);
  font-weight: 650;
}
@media (max-width: 720px) {
  article {
    grid-template-columns: minmax(0, 1fr);
  }
  .chart {
    max-width: 240px;
  }
}
</style>
