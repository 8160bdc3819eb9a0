<script setup lang="ts">
import { computed } from 'vue'
import { BUCKET_SIZES } from '~core/door/kinds'
import { BUCKET_WORDS, KIND_WORDS, piecesWords, waterWithoutScale } from '~core/door/words'
import { DOOR_WAYS } from '~core/door/door'
import { powderClass } from '~core/gypsum/powders'
import { formatCups, formatLength, formatMass, formatPercent, formatVolume } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'
import BucketDrawing from '~/ui/BucketDrawing.vue'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import TermWord from '~/ui/TermWord.vue'
import TimeTape from '~/ui/TimeTape.vue'
import type { Door } from './door'

/** The answer: what goes into the bucket, by weight and by cups, and how the time will go. */
const { door, units, at } = defineProps<{
  door: Door
  units: UnitPreferences
  /** The time of day, so many seconds from now. */
  at: (seconds: number) => string
}>()
const said = door.said
const things = computed(() => typeof door.things.value === 'string' ? undefined : door.things.value)
const mix = computed(() => door.bucket.value?.mix)
const buckets = computed(() => door.found.value?.batches.length ?? 0)
const heading = computed(() =>
  mix.value ? `Mix ${formatVolume(mix.value.slurry, units)} for ${piecesWords(said.kind, said.count)}` : 'Almost there')
const inMoulds = computed(() => things.value && things.value.mould.volume.value * said.count)
const settled = computed(() => powderClass(said.classId).settledFraction)
const levels = computed(() => door.bucket.value?.levels)
const off = computed(() => door.errors.value)
const WAY_SHORT = { weighed: 'weighed', saturation: 'sifted to islands', scoops: 'by cups' } as const
const errorsSaid = computed(() => off.value
  ? DOOR_WAYS.map(w => `${WAY_SHORT[w]} within ${formatPercent(Math.max(0.01, off.value![w]))}`).join(', ')
  : '')
const waterBy = computed(() =>
  waterWithoutScale({ full: door.without.value?.mouldsFull, pieces: said.count, buckets: buckets.value }))
const warning = computed(() => door.found.value?.problems.some(p => p.code === 'too-slow') ?? false)
</script>

<template>
  <section class="table" aria-label="What to mix" aria-live="polite">
    <h2>{{ heading }}</h2>
    <p v-if="door.problem.value" :class="door.waits.value ? 'soft' : 'problem'" role="status">{{ door.problem.value }}</p>
    <template v-if="things && mix">
      <p class="soft">
        {{ formatVolume(inMoulds ?? 0, units) }} in the {{ said.count === 1 ? 'mould' : 'moulds' }}, the rest stays in the bucket.
        <template v-if="buckets > 1">In {{ buckets }} buckets; this is the first.</template>
      </p>
      <div class="scene">
        <div class="bucket">
          <BucketDrawing
            :vessel="BUCKET_SIZES[things.bucket.size]"
            :water="mix.waterVolume"
            :mix="mix.slurry"
            :settled="settled"
            :sifted="0.55"
            :width="230"
            :height="190"
            label="" />
        </div>
        <dl>
          <div class="water">
            <dt>Water first</dt>
            <dd><span class="num big">{{ formatMass(mix.water, units) }}</span>
              <span class="small">or {{ formatCups(mix.waterVolume, units) }}<template v-if="levels?.water">, {{ formatLength(levels.water, units) }} deep</template></span></dd>
          </div>
          <div class="powder">
            <dt>Then sift in</dt>
            <dd><span class="num big">{{ formatMass(mix.powder, units) }}</span>
              <span class="small">or {{ formatCups(door.without.value?.powder ?? 0, units) }}, scooped loosely</span></dd>
          </div>
        </dl>
        <div class="moulds">
          <MouldDrawing :mould="things.mould" view="above" :width="110" :height="92" />
          <MouldDrawing :mould="things.mould" view="cut" :width="150" :height="66" :filled="1" />
        </div>
      </div>
      <div class="edge" />
      <p class="under">
        <span><span class="strong">{{ BUCKET_WORDS[things.bucket.size] }}{{ said.bucket ? '' : ', or bigger' }}</span></span>
        <span><span class="strong">{{ said.count }} {{ said.count === 1 ? KIND_WORDS[said.kind].one.toLowerCase() : KIND_WORDS[said.kind].many }}</span>
          of {{ formatVolume(things.mould.volume.value, units) }}</span>
      </p>
      <p class="noscale">
        <span class="strong">No scale?</span>
        {{ waterBy }}, then sift until <TermWord id="islands">islands</TermWord> of powder stay dry: about {{ door.without.value?.handfuls }} handfuls.
        <span class="soft">How near the mix comes: {{ errorsSaid }}.</span>
      </p>
      <div v-if="door.tape.value" class="time">
        <p class="strong">If you start now</p>
        <TimeTape :tape="door.tape.value" />
        <p class="small">
          Pour by <span class="num">{{ at(door.tape.value.stiff ?? 0) }}</span>, hands off until
          <span class="num">{{ at(door.tape.value.open?.from ?? 0) }}</span>, then open.
        </p>
        <p v-if="warning" class="small problem warn">It may be too stiff before the last is poured. Fewer at a time, or colder water.</p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.table { display: grid; gap: 10px; align-content: start; min-width: 0; }
h2 { font-size: clamp(1.5rem, 3.4vw, 2.4rem); font-weight: 800; font-stretch: 112%; line-height: 1.1; }
.problem { color: var(--heat); font-weight: 600; }
.problem.warn { color: var(--warn); }
.scene { display: flex; gap: 18px; align-items: flex-end; flex-wrap: wrap; }
.moulds { display: grid; gap: 10px; justify-items: center; margin-left: auto; }
dl { display: grid; gap: 12px; margin: 0; align-self: center; }
dt { font-weight: 700; }
dd { margin: 0; display: grid; }
.big { font-size: 2.5rem; font-weight: 800; line-height: 1.05; }
.water { color: var(--water); }
.powder { color: var(--powder); }
dd .small { color: var(--ink); font-weight: 600; }
.edge { height: 14px; margin-top: -10px; background: var(--wood); border-top: 3px solid var(--ink); }
.under { display: flex; justify-content: space-between; gap: 12px; flex-wrap: wrap; }
.noscale { border-top: 1.5px solid var(--line-strong); padding-top: 10px; }
.time { display: grid; gap: 4px; }
@media (max-width: 860px) {
  .scene { gap: 12px; flex-wrap: nowrap; }
  .bucket :deep(svg) { width: 44vw; height: auto; }
  .moulds { display: none; }
  .big { font-size: 2rem; }
}
</style>
