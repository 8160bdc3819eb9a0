<script setup lang="ts">
import type { SeatAnswer } from '~contract/classroom'
import { stepWords } from '~core/plan/step-words'
import { signsAt } from '~core/plan/stages'
import { additionKind } from '~core/gypsum/additions'
import { toWeigh, type ToWeigh } from '~core/plan/to-weigh'
import { pouringEnds } from '~core/bench/cues'
import { rescue, troublesOf } from '~core/bench/rescue'
import { actWords, neverWords } from '~core/bench/words'
import { milestonesOf } from '~core/pour/milestones'
import { troubleWords, type TroubleId } from '~core/pour/defects'
import { formatDuration, formatMass } from '~core/units/format'
import BenchDrawing from '~/features/bench/BenchDrawing.vue'
import { useClock } from '~/sync/clock'
import PlainButton from '~/ui/PlainButton.vue'
import { counting, windowOf } from '~/ui/when'
import { useKit } from './kit'
import { useSeat } from './seat'

/** A pupil’s own kit: the step in hand as large as it goes, its drawing, one press to go on; and nothing else to read. */
const { kit, units } = defineProps<{ kit: NonNullable<SeatAnswer['kit']>, units: SeatAnswer['units'] }>()
const seat = useSeat(), clock = useClock(), { state, begun, waiting, tell, begin } = useKit(() => kit)
const run = computed(() => kit.run)
const step = computed(() => state.value.steps[state.value.step]!), next = computed(() => state.value.steps[state.value.step + 1])
const batch = computed(() => step.value.batch)
const wetFor = computed(() => {
  const at = state.value.batches[batch.value]?.wetAt
  return at === undefined ? undefined : Math.max(0, (clock.now - at) / 1000)
})
const milestones = computed(() => milestonesOf(run.value, state.value, batch.value))
const casts = computed(() => state.value.casts.filter(c => c.cast.batch === batch.value))
const weighs = computed(() => step.value.stage === 'weigh' || step.value.stage === 'ready'
  ? toWeigh(run.value.plan, run.value.batches[batch.value]!.mix)
  : [])
const left = computed(() => wetFor.value === undefined ? undefined : pouringEnds(run.value, batch.value) - wetFor.value)
const open = computed(() => {
  const all = state.value.casts.filter(c => c.openFrom !== undefined)
  if (all.length === 0) return undefined
  return windowOf(Math.min(...all.map(c => c.openFrom!)), Math.max(...all.map(c => c.openTo!)), clock.now)
})
const weighedName = (w: ToWeigh) => w.what === 'addition' ? additionKind(w.id).name.toLowerCase() : w.what
const TROUBLED = ['lumps', 'webbing', 'will-not-pour']
const signs = computed(() => signsAt(step.value.stage).filter(s => TROUBLED.includes(s.id) || s.id === 'gloss-gone' || s.id === 'warm'))
const troubled = ref(false), trouble = ref<TroubleId>()
/** Worked out for the minute it was asked in. */
const asked = ref(0)
const advice = computed(() =>
  trouble.value && rescue(trouble.value, run.value, state.value, { batch: batch.value, now: asked.value }))

watch(() => [begun.value, step.value.stage, trouble.value] as const, ([is, stage, wrong]) => {
  seat.isAt({ at: is ? stage : 'began', ...wrong && { look: 'trouble' } })
}, { immediate: true })
function goOn() {
  if (!next.value) return
  if (step.value.stage === 'fill')
    for (const c of casts.value) if (c.filledAt === undefined) tell({ kind: 'filled', data: { cast: c.cast.id } }, batch.value)
  tell({ kind: 'stage', data: { stage: next.value.stage, from: step.value.stage } }, next.value.batch)
}
function sayTrouble(id: TroubleId) {
  asked.value = clock.read()
  trouble.value = id
  troubled.value = false
  tell({ kind: 'trouble', data: { trouble: id } }, batch.value)
}
</script>

<template>
  <section class="kit">
    <h1>{{ run.plan.name }}</h1>
    <template v-if="!begun">
      <p class="step">Bring your bag, your bucket and your moulds to your place.</p>
      <p class="detail">Mask and glasses on before the bag is opened. No hand is ever held in plaster that sets: it burns.</p>
      <PlainButton label="I have it all" strong large @click="begin" />
    </template>
    <div v-else class="at">
      <BenchDrawing v-bind="{ run, batch, stage: step.stage, milestones, casts, share: 0, wetFor }" bare class="picture" />
      <div class="words">
        <p class="step">{{ stepWords(step).instruction }}</p>
        <p class="detail">{{ stepWords(step).detail }}</p>
        <ul v-if="weighs.length > 0" class="weighs">
          <li v-for="w in weighs" :key="w.what === 'addition' ? w.id : w.what">
            <span class="num">{{ formatMass(w.mass, units) }}</span> {{ weighedName(w) }}
          </li>
        </ul>
        <p v-if="wetFor !== undefined" class="num wet">{{ counting(wetFor) }}</p>
        <p v-if="left !== undefined && left > 0 && ['stir', 'fill'].includes(step.stage)">
          Pour it within <span class="num">{{ formatDuration(Math.round(left / 5) * 5) }}</span>
        </p>
        <p v-if="open && ['clean-up', 'set'].includes(step.stage)" class="open">Open it {{ open }}</p>
        <PlainButton v-if="next" :label="stepWords(step).done" strong large @click="goOn" />
        <div v-if="signs.length > 0 && wetFor !== undefined" class="signs">
          <PlainButton v-for="s in signs" :key="s.id" :label="s.words" small @click="tell({ kind: 'mark', data: { sign: s.id } }, batch)" />
        </div>
        <PlainButton label="Something is wrong" small @click="troubled = !troubled" />
        <div v-if="troubled" class="signs">
          <PlainButton v-for="t in troublesOf(run)" :key="t" :label="troubleWords(t)" small @click="sayTrouble(t)" />
        </div>
        <div v-if="advice" class="advice" role="status">
          <ol><li v-for="s in advice.steps" :key="s.code">{{ actWords(s, units) }}</li></ol>
          <p v-if="advice.never">{{ neverWords(advice.never, units) }}</p>
          <p class="small">Your teacher is told. Data sheet, local rules and trained people come first.</p>
        </div>
      </div>
    </div>
    <p v-if="waiting.length > 0" class="small" role="status">{{ waiting.length }} of what you told waits here for the network.</p>
  </section>
</template>

<style scoped>
.kit { display: grid; gap: 14px; justify-items: start; }
.at { display: grid; grid-template-columns: minmax(0, 34%) minmax(0, 1fr); gap: 22px; width: 100%; align-items: center; }
.words { display: grid; gap: 12px; justify-items: start; min-width: 0; }
h1 { font-size: clamp(1.2rem, 2.4vw, 1.7rem); color: var(--soft); }
.step { font-size: clamp(1.5rem, 4vw, 2.6rem); font-weight: 720; line-height: 1.12; }
.detail { max-width: 52ch; }
.weighs { list-style: none; margin: 0; padding: 0; font-size: 1.5rem; }
.weighs .num, .wet { font-weight: 750; }
.wet { font-size: clamp(2rem, 6vw, 3.4rem); line-height: 1; }
.open { color: var(--set); font-weight: 680; font-size: 1.3rem; }
.signs { display: flex; flex-wrap: wrap; gap: 8px; }
.advice { font-size: 1.2rem; display: grid; gap: 6px; }
.advice ol { padding-left: 22px; margin: 0; }
@media (max-width: 720px) { .at { grid-template-columns: minmax(0, 1fr); } .picture { max-width: 190px; } }
</style>
