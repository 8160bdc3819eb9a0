<script setup lang="ts">
import { warmthStep } from '~core/drawing/warmth'
import { WARMTH_WORDS } from '~core/drawing/words'
import { powderOf, type FrozenRun } from '~core/plan/run'
import type { Stage } from '~core/plan/stages'
import type { CastState } from '~core/pour/fold'
import type { Milestone } from '~core/pour/milestones'
import { formatLength, formatVolume } from '~core/units/format'
import BucketDrawing from '~/ui/BucketDrawing.vue'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import { useSession } from '~/sync/session'

/** What stands in front of the hands: the bucket with the line to reach, the moulds as they fill, and as they warm. */
const { run, batch, stage, casts, share, wetFor, milestones, bare = false } = defineProps<{
  run: FrozenRun
  batch: number
  stage: Stage
  casts: readonly CastState[]
  /** How far the step in hand is by its usual time, 0 to 1. */
  share: number
  wetFor: number | undefined
  milestones: readonly Milestone[]
  /** For who stands too far away to read lines off it. */
  bare?: boolean
}>()
const session = useSession(), MOST = 4, IN_BUCKET = new Set<Stage>(['ready', 'weigh', 'sift', 'soak', 'stir'])
const planned = computed(() => run.batches[batch]!)
const vessel = computed(() => IN_BUCKET.has(stage) ? run.world.bucket?.vessel : undefined)
const bucket = computed(() => vessel.value && {
  vessel: vessel.value, water: planned.value.mix.waterVolume, mix: planned.value.mix.slurry,
  settled: powderOf(run).settledFraction, mixed: stage === 'stir',
  sifted: stage === 'sift' ? share : stage === 'soak' ? 1 : 0,
})
const length = (m: number) => formatLength(m, session.units)
const lines = computed(() => {
  const { levels } = planned.value
  if (!levels) return []
  return [
    ...levels.water === undefined ? [] : [{ id: 'water', words: 'Water line', height: length(levels.water) }],
    { id: 'mix', words: 'With powder in', height: length(levels.final) },
  ]
})
/** From across a room two stand for all. */
const most = computed(() => bare ? 2 : MOST), wide = computed(() => bare ? 64 : moulds.value.length > 2 ? 124 : 190)
const moulds = computed(() => {
  const at = (id: string) => {
    const m = milestones.find(x => x.id === id)
    return m?.actual ?? m?.value ?? Infinity
  }
  const warmth = wetFor === undefined
    ? 0
    : warmthStep(wetFor, { gloss: at('set'), warmest: at('warm') })
  return casts.slice(0, most.value).map(c => ({
    id: c.cast.id, mould: c.cast.mould, label: c.cast.label, filled: c.filledAt === undefined ? 0 : 1, warmth,
  }))
})
const says = computed(() => {
  if (bare) return bucket.value?.mixed
    ? 'The bucket, with the mix in it'
    : `The bucket, ${Math.round(100 * (bucket.value?.sifted ?? 0))} % of the powder in it`
  const to = lines.value.map(l => `${l.words.toLowerCase()} ${l.height}`).join(', ')
  return `The bucket, for ${formatVolume(planned.value.mix.slurry, session.units)} of mix: ${to}`
})
</script>

<template>
  <div class="drawing">
    <template v-if="bucket">
      <BucketDrawing class="bucket" v-bind="bucket" :width="320" :height="270" :label="says" />
      <dl v-if="!bare">
        <div v-for="l in lines" :key="l.id" :class="l.id"><dt>{{ l.words }}</dt><dd class="num">{{ l.height }}</dd></div>
      </dl>
    </template>
    <ul v-else :class="{ bare }">
      <li v-for="m in moulds" :key="m.id">
        <MouldDrawing
          :mould="m.mould"
          view="cut"
          :width="wide"
          :height="bare ? 120 : Math.min(170, wide)"
          :filled="m.filled"
          :warmth="m.warmth"
          :label="`${m.label}: ${m.filled ? `full, ${WARMTH_WORDS[m.warmth]}` : 'empty'}`" />
        <span v-if="!bare" class="small" aria-hidden="true">{{ m.label }}</span>
      </li>
      <li v-if="casts.length > most" class="num more">+{{ casts.length - most }}</li>
    </ul>
  </div>
</template>

<style scoped>
.drawing { display: flex; gap: 18px; align-items: center; }
.bucket { flex: 0 1 auto; min-width: 0; width: 100%; max-width: 320px; height: auto; }
dl { display: grid; gap: 10px; margin: 0; }
dt { color: var(--soft); font-size: 1rem; }
dd { margin: 0; font-size: 1.5rem; font-weight: 700; }
.water dd { color: var(--water); }
ul { display: flex; gap: 8px; align-items: end; border-bottom: 3px solid var(--line-strong); padding-bottom: 2px; }
li { display: grid; justify-items: center; gap: 4px; flex: 0 1 auto; min-width: 0; }
li svg { max-width: 100%; height: auto; }
.more { align-self: center; font-size: 1.2rem; }
</style>
